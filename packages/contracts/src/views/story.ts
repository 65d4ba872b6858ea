import type { IsoInstant, PersonLabel } from './person.js';

/** One thing that somebody did, or that happened to them, in an exchange. */
export interface StoryEvent {
  readonly kind:
    | 'handed-in'
    | 'withdrawn'
    | 'allocated'
    | 'begun'
    | 'submitted'
    | 'reopened'
    | 'received'
    | 'told'
    | 'read'
    | 'answered'
    | 'rated'
    | 'asked'
    | 'reflected'
    | 'revision'
    | 'mailed';
  readonly at: IsoInstant;
  /** Of a version. */
  readonly number: number | null;
  /** Whose draft was reviewed, or who reviewed. */
  readonly about: PersonLabel | null;
  /** Subject of a mail. */
  readonly words: string | null;
  /** Where the evidence is, a path of the application. */
  readonly to: string | null;
}

export interface StoryView {
  readonly person: PersonLabel;
  readonly events: readonly StoryEvent[];
}
