import type { IsoInstant, PersonLabel } from './person.js';

/** That somebody asked the instructor to look, and what came of it. Nobody but the one who asked and staff gets it. */
export interface LookRequestView {
  readonly id: string;
  /** Of one note; null of the whole review. */
  readonly noteId: string | null;
  readonly words: string;
  readonly at: IsoInstant;
  readonly answer: string | null;
  readonly answeredAt: IsoInstant | null;
  /** For staff: who asked, and as what. */
  readonly by: { readonly person: PersonLabel; readonly as: 'author' | 'reviewer' } | null;
}
