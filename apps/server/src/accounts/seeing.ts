import type { Participant } from '../exchanges/entities.js';
import type { Person } from './entities.js';

/** How somebody of the staff looks at one exchange with a student's eyes. */
export interface Seeing {
  /** Who really asks. */
  readonly by: Person;
  readonly courseId: string;
  readonly exchangeId: string;
  /** Whose eyes: a participant of the exchange, or an invented one. */
  readonly participant: Participant;
  readonly example: boolean;
  /** The moment looked at, for an example student; null for the present one. */
  readonly at: number | null;
}
