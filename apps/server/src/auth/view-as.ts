import type { Participant } from '../model/exchange.js';
import type { Person } from '../model/person.js';

/** How somebody of the staff looks at one exchange with a student's eyes. */
export interface ViewAs {
  /** Who really asks. */
  readonly by: { readonly id: string; readonly name: string };
  readonly courseId: string;
  readonly exchangeId: string;
  /** Whose eyes: a participant of the exchange, or an invented one. */
  readonly participant: Participant;
  readonly example: boolean;
  /** The moment looked at, for an example student (milliseconds); null for the present one. */
  readonly at: number | null;
}

/** The one who asks: a person, perhaps with a student's eyes. */
export interface CurrentUser extends Person {
  readonly viewAs?: ViewAs;
}
