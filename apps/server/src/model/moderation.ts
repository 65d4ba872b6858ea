import { Column, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import { Participant } from './exchange.js';
import { Person } from './person.js';
import { Review } from './review.js';

/** What staff have made of a submitted review. */
@Entity('review_check')
export class ReviewCheck {
  @PrimaryColumn('text')
  @ForeignKey(() => Review, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  reviewId: string;

  /** When somebody last looked at it, and who; null before. */
  @Column('integer', { nullable: true })
  lookedAt: number | null;

  @Column('text', { nullable: true })
  @ForeignKey(() => Person, { onDelete: 'SET NULL', onUpdate: 'CASCADE' })
  lookedBy: string | null;

  /** When what was looked at had been submitted: submitted again, it is to be looked at again. */
  @Column('integer', { nullable: true })
  ofSubmission: number | null;

  /** Keys of dismissed flags. */
  @Column('simple-json', { default: '[]' })
  dismissed: string[];
}

/** Something of a review that staff keep from its author. That it is kept is on the row itself (`withheldAt`); here is why. */
@Entity('withheld')
@Unique('withheld_once', ['reviewId', 'kind', 'targetId'])
export class Withheld {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  @ForeignKey(() => Review, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  reviewId: string;

  @Column('text')
  kind: 'review' | 'note' | 'answer' | 'file';

  /** Id of the note, the item or the file; empty for the whole review. */
  @Column('text')
  targetId: string;

  /** For staff, and for the reviewer where told. */
  @Column('text')
  reason: string;

  @Column('text', { nullable: true })
  @ForeignKey(() => Person, { onDelete: 'SET NULL', onUpdate: 'CASCADE' })
  byId: string | null;

  @Column('integer')
  at: number;

  /** The reviewer sees that it is withheld, and why. */
  @Column('boolean')
  told: boolean;

  /** It counts for the reviewer all the same. */
  @Column('boolean')
  counts: boolean;
}

/** An author or a reviewer asks the instructor to look at a review, or at one note of it. */
@Entity('look_request')
export class LookRequestRow {
  @PrimaryColumn('text')
  id: string;

  @Index('look_request_review')
  @Column('text')
  @ForeignKey(() => Review, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  reviewId: string;

  /** Null of the whole review. */
  @Column('text', { nullable: true })
  noteId: string | null;

  @Column('text')
  @ForeignKey(() => Participant, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  participantId: string;

  @Column('text')
  words: string;

  @Column('integer')
  at: number;

  @Column('text', { nullable: true })
  answer: string | null;

  @Column('integer', { nullable: true })
  answeredAt: number | null;
}
