import type { Helped } from '@salt-circle/core';
import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import { Participant } from './exchange.js';
import { Person } from './person.js';
import { Review } from './review.js';

/** What author, reviewer or staff answered to a review, or to a note or an answer of it. */
@Entity('reply')
export class ReplyRow {
  /** Made by the page that it was written in: sent twice, it is there once. */
  @PrimaryColumn('text')
  id: string;

  @Index('reply_review')
  @Column('text')
  @ForeignKey(() => Review, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  reviewId: string;

  /** To a note or to an answer; both null: to the review. */
  @Column('text', { nullable: true })
  noteId: string | null;

  @Column('text', { nullable: true })
  itemId: string | null;

  /** As what it was written. */
  @Column('text')
  as: 'author' | 'reviewer' | 'staff';

  /** Null for staff. */
  @Column('text', { nullable: true })
  @ForeignKey(() => Participant, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  participantId: string | null;

  /** Of the staff who wrote it; null for everybody else. */
  @Column('text', { nullable: true })
  @ForeignKey(() => Person, { onDelete: 'SET NULL', onUpdate: 'CASCADE' })
  personId: string | null;

  @Column('text')
  words: string;

  @Column('integer')
  at: number;
}

/** How a review helped, in words of its author; of a group’s draft in those of whoever wrote last. */
@Entity('rating')
export class RatingRow {
  @PrimaryColumn('text')
  @ForeignKey(() => Review, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  reviewId: string;

  @Column('text')
  helped: Helped;

  /** Thanks, or why. */
  @Column('text')
  words: string;

  @Column('text')
  @ForeignKey(() => Participant, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  participantId: string;

  @Column('integer')
  at: number;
}
