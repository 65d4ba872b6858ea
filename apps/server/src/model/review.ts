import type { NoteKind } from '@salt-circle/contracts';
import type { Check, ProposedEdit, ReviewForm, Selector } from '@salt-circle/core';
import { Column, DeleteDateColumn, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import { Draft, DraftPart, DraftVersion } from './draft.js';
import { Exchange, Participant } from './exchange.js';

/** One allocation and the review written for it. */
@Entity('review')
@Unique('review_once', ['reviewerId', 'draftId'])
export class Review {
  @PrimaryColumn('text')
  id: string;

  @Index('review_exchange')
  @Column('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  @Column('text')
  @ForeignKey(() => Participant, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  reviewerId: string;

  @Index('review_draft')
  @Column('text')
  @ForeignKey(() => Draft, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  draftId: string;

  /**
   * The version of the draft that it is of, from when it is begun on: handing in more moves no text under its notes.
   * A plain value: versions go with their draft alone, and reviews with them.
   */
  @Column('text', { nullable: true })
  versionId: string | null;

  /**
   * As whom somebody of the staff wrote it under the own name; null for a review that was allocated. What is counted, checked and
   * balanced are allocated ones: see `ALLOCATED`.
   */
  @Column('text', { nullable: true })
  voice: 'instructor' | 'assistant' | null;

  /** By which somebody of the staff writes it, where that is not the form of the exchange. As it was when it was chosen. */
  @Column('simple-json', { nullable: true })
  ownForm: ReviewForm | null;

  /** Order among the reviews of the same reviewer, from 1; 0 for one under a name of the staff. */
  @Column('integer')
  position: number;

  @Column('integer', { nullable: true })
  begunAt: number | null;

  @Column('integer', { nullable: true })
  submittedAt: number | null;

  /** Since when its reviewer is changing what was submitted, which counts as it was until it is submitted again; null: not. */
  @Column('integer', { nullable: true })
  reopenedAt: number | null;

  /** Why an instructor reopened it; null where the reviewer did, or nobody. */
  @Column('text', { nullable: true })
  reopenReason: string | null;

  /** Until when it can be submitted again, where the instructor said so; null: until the release. */
  @Column('integer', { nullable: true })
  reopenUntil: number | null;

  /** Seconds that its reviewer was at work on it, where the course measures that. */
  @Column('integer', { default: 0 })
  spentSeconds: number;

  /** When they were last added to. */
  @Column('integer', { nullable: true })
  spentAt: number | null;

  /** When something was last written in it; for staff alone. */
  @Column('integer', { nullable: true })
  workedAt: number | null;

  /** Kept in step with answers and notes at every save, so that the board of a large course is one query. */
  @Column('integer', { default: 0 })
  answered: number;

  /** Required things in all, which can grow as answers are given; 0 before the review is begun. */
  @Column('integer', { default: 0 })
  required: number;

  @Column('integer', { default: 0 })
  words: number;

  @Column('integer', { default: 0 })
  noteCount: number;

  /** Made or held by hand: stays in every new allocation. */
  @Column('boolean', { default: false })
  locked: boolean;

  /** Since when staff keep it from the author; null: they do not. */
  @Column('integer', { nullable: true })
  withheldAt: number | null;

  /** When its reviewer was told by mail; null before. */
  @Column('integer', { nullable: true })
  toldAt: number | null;

  /**
   * Taken away after it had begun: no query finds it, unless it asks for removed ones, and its work comes back with the
   * pair.
   */
  @DeleteDateColumn({ type: 'integer', nullable: true })
  removedAt: number | null;
}

/** What was submitted of a review that has been reopened since. */
@Entity('submitted_review')
export class SubmittedReview {
  @PrimaryColumn('text')
  @ForeignKey(() => Review, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  reviewId: string;

  @Column('simple-json')
  answers: AnswerRow[];

  @Column('simple-json')
  notes: NoteRow[];
}

@Entity('answer')
export class AnswerRow {
  @PrimaryColumn('text')
  @ForeignKey(() => Review, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  reviewId: string;

  @PrimaryColumn('text')
  itemId: string;

  @Column('text', { nullable: true })
  levelId: string | null;

  @Column('text')
  text: string;

  @Column('integer')
  revision: number;

  @Column('text', { default: '' })
  next: string;

  @Column('real', { nullable: true })
  value: number | null;

  @Column('simple-json', { default: '{}' })
  checks: Record<string, Check>;

  @Column('simple-json', { default: '[]' })
  choices: string[];

  /** As with the review. */
  @Column('integer', { nullable: true })
  withheldAt: number | null;
}

@Entity('note')
export class NoteRow {
  @PrimaryColumn('text')
  id: string;

  @Index('note_review')
  @Column('text')
  @ForeignKey(() => Review, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  reviewId: string;

  @Column('text')
  kind: NoteKind;

  @Column('text')
  body: string;

  /** Where it stands: in which version and part, and at which place in it. Without a part it is on the whole draft. */
  @Column('text')
  @ForeignKey(() => DraftVersion, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  versionId: string;

  @Column('text', { nullable: true })
  @ForeignKey(() => DraftPart, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  partId: string | null;

  @Column('simple-json')
  selector: Selector;

  /** What it proposes to do with its passage. */
  @Column('simple-json', { nullable: true })
  edit: ProposedEdit | null;

  /** The item of the form that it is filed under; it stays when the form no longer has that. */
  @Column('text', { nullable: true })
  itemId: string | null;

  /** As with the review. */
  @Column('integer', { nullable: true })
  withheldAt: number | null;

  @Column('integer')
  revision: number;

  @Column('integer')
  createdAt: number;
}
