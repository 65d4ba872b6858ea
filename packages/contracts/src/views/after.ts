import type { DecisionKind, Helped } from '@salt-circle/core';
import type { DraftReading } from './drafts.js';
import type { IsoInstant, PersonLabel } from './person.js';
import type { NoteView } from './views.js';

/** One answer in a thread. */
export interface ReplyView {
  readonly id: string;
  /** To a note or an answer; both null: to the review. */
  readonly noteId: string | null;
  readonly itemId: string | null;
  readonly as: 'author' | 'reviewer' | 'staff';
  readonly by: PersonLabel;
  readonly words: string;
  /** Of one's own, of staff, and for staff: when the other side works is not told. */
  readonly at: IsoInstant | null;
}

export interface RatingView {
  readonly helped: Helped;
  readonly words: string;
}

/** What was answered to a review, in the order in which it was, and how it helped. */
export interface ThreadsView {
  readonly replies: readonly ReplyView[];
  /** The one who asks can answer now. */
  readonly may: boolean;
  /** Why not, where that can be said; and until when, where there is an end. */
  readonly over: boolean;
  readonly until: IsoInstant | null;
  /** Null: not said, or not for the one who asks. */
  readonly rating: RatingView | null;
  /** The one who asks can say how it helped; and who reads it. */
  readonly mayRate: boolean;
  readonly ratingRead: 'staff' | 'at-once' | 'at-end' | null;
}

/** What authors decided about one remark. */
export interface DecisionView {
  readonly key: string;
  readonly decision: DecisionKind | null;
  readonly why: string;
  readonly done: boolean;
  readonly revision: number;
}

/** A proposed edit that was put into the saved text. */
export interface AdoptionView {
  readonly id: string;
  readonly noteId: string;
  /** The last one, and nothing was written since: it can be undone. */
  readonly undoable: boolean;
}

/** Why a proposed edit was not put into the text. */
export type NotAdopted = 'already' | 'gone' | 'no-text' | 'conflict';

export interface DecisionsView {
  readonly decisions: readonly DecisionView[];
  readonly adoptions: readonly AdoptionView[];
  /** Proposed edits can be put into a typed text now. */
  readonly mayAdopt: boolean;
}

export interface AdoptResult extends DecisionsView {
  readonly skipped: ReadonlyArray<{ readonly noteId: string; readonly why: NotAdopted }>;
}

/** One author's reflection. */
export interface ReflectionView {
  readonly prompts: readonly string[];
  readonly minimumWords: number;
  readonly texts: readonly string[];
  readonly revision: number;
  readonly savedAt: IsoInstant | null;
  readonly handedInAt: IsoInstant | null;
  readonly open: boolean;
}

/** A note or a next step, with what its author decided about it. */
export interface RemarkView {
  /** Of its decision. */
  readonly key: string;
  readonly reviewId: string;
  readonly by: PersonLabel;
  /** Null for a next step. */
  readonly note: NoteView | null;
  readonly itemTitle: string;
  readonly words: string;
  /** For the author and staff. */
  readonly decision: DecisionView | null;
}

/** The version that was reviewed beside the revision; null where none was handed in. */
export interface RevisionView {
  readonly author: PersonLabel;
  readonly reviewed: DraftReading;
  readonly revision: DraftReading | null;
  readonly handedInAt: IsoInstant | null;
  /** What changed, in words of the author; for the author and staff. */
  readonly changes: string | null;
  /** For the author: what is compared is saved, and not handed in. */
  readonly savedOnly: boolean;
  /** What was asked of its author, as far as the one who looks may read it; in the order of the draft. */
  readonly remarks: readonly RemarkView[];
}

/** What has come after the release, by draft; for staff. */
export interface AfterRow {
  readonly draftId: string;
  readonly author: PersonLabel;
  readonly reviews: number;
  /** Authors who have read their feedback, of all authors of the draft. */
  readonly read: number;
  readonly authors: number;
  /** Notes and next steps that ask something, and decisions about them. */
  readonly remarks: number;
  readonly decided: number;
  readonly toDo: number;
  readonly done: number;
  readonly replies: number;
  /** Reviews that were rated, by how they helped. */
  readonly helped: Readonly<Record<Helped, number>>;
  /** Authors whose reflection is handed in; null where none is asked for. */
  readonly reflections: number | null;
  readonly revisionAt: IsoInstant | null;
}

/** One author's reflection, for staff. */
export interface ReflectionRead {
  readonly author: PersonLabel;
  readonly prompts: readonly string[];
  readonly texts: readonly string[];
  readonly handedInAt: IsoInstant | null;
}

/** What happened that concerns the one who asks. */
export interface NewsView {
  readonly id: string;
  readonly at: IsoInstant;
  readonly words: string;
  readonly path: string;
  readonly read: boolean;
}

export interface InboxView {
  readonly unread: number;
  readonly news: readonly NewsView[];
  readonly mailWish: 'at-once' | 'daily' | 'off';
}
