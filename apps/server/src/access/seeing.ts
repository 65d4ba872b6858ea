import type { Person } from '../model/person.js';

/** How somebody of the staff looks at one exchange with a student's eyes. */
export interface Seeing {
  /** Who really asks. */
  readonly by: { readonly id: string; readonly name: string };
  readonly courseId: string;
  readonly exchangeId: string;
  /** Whose eyes: a participant of the exchange, or an invented one. */
  readonly participant: {
    readonly id: string;
    readonly exchangeId: string;
    readonly personId: string;
    readonly alias: string;
    readonly extraReviews: number | null;
  };
  readonly example: boolean;
  /** The moment looked at, for an example student (milliseconds); null for the present one. */
  readonly at: number | null;
}

/** The one who asks: a person, perhaps with a student's eyes. */
export interface Asker extends Person {
  readonly seeing?: Seeing;
}
