import type { AnswerView } from '@salt-circle/contracts';
import type { GradePartName, GradingWork } from '@salt-circle/core';
import { Column, Entity, ForeignKey, PrimaryColumn } from 'typeorm';
import { Participant } from './exchange.js';
import { Person } from './person.js';

/** What staff give instead of what is worked out, for one part of somebody's grade or for the whole. */
@Entity('grade_override')
export class GradeOverrideRow {
  @PrimaryColumn('text')
  @ForeignKey(() => Participant, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  participantId: string;

  /** Empty for the whole. */
  @PrimaryColumn('text')
  part: GradePartName | '';

  /** 0 to 1 of a part; percent of the whole. */
  @Column('real')
  value: number;

  @Column('text')
  reason: string;

  /** What was worked out when it was set, in the same unit; null for nothing. */
  @Column('real', { nullable: true })
  computed: number | null;

  @Column('text', { nullable: true })
  @ForeignKey(() => Person, { onDelete: 'SET NULL', onUpdate: 'CASCADE' })
  byId: string | null;

  @Column('integer')
  at: number;
}

/** What staff say of somebody's reviewing, by the form for reviews. */
@Entity('reviewing_mark')
export class ReviewingMark {
  @PrimaryColumn('text')
  @ForeignKey(() => Participant, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  participantId: string;

  /** By item of the form; where reviewing is marked review by review, by review and item, a point between the two. */
  @Column('simple-json')
  answers: Record<string, AnswerView>;

  @Column('text', { nullable: true })
  @ForeignKey(() => Person, { onDelete: 'SET NULL', onUpdate: 'CASCADE' })
  byId: string | null;

  @Column('integer')
  at: number;
}

/** Whose of the staff it is to grade somebody. */
@Entity('grading_task')
export class GradingTask {
  @PrimaryColumn('text')
  @ForeignKey(() => Participant, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  participantId: string;

  @PrimaryColumn('text')
  work: GradingWork;

  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  graderId: string;
}
