import type { NoteView, AnswerView } from '@salt-circle/contracts';
import { Column, Entity, ForeignKey, PrimaryColumn, Unique } from 'typeorm';
import { Review } from './review.js';

/** One submitted try of a practice draft, and how near it came to the key as the key was then. */
@Entity('practice_try')
@Unique('practice_try_number', ['reviewId', 'number'])
export class PracticeTry {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  @ForeignKey(() => Review, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  reviewId: string;

  /** From 1. */
  @Column('integer')
  number: number;

  @Column('integer')
  submittedAt: number;

  /** Share of the items near to the key, 0..1; null where none can be compared. */
  @Column('real', { nullable: true })
  share: number | null;

  /** Weighted kappa; null where there are too few items for it. */
  @Column('real', { nullable: true })
  kappa: number | null;

  /** What was submitted: a later try begins anew. */
  @Column('simple-json')
  answers: Record<string, AnswerView>;

  @Column('simple-json')
  notes: NoteView[];
}
