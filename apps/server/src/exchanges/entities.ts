import type { FormItem, NamesPolicy } from '@salt-circle/core';
import { Column, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import { Person } from '../accounts/entities.js';
import { Course } from '../courses/entities.js';

@Entity('review_form')
export class ReviewFormRow {
  @PrimaryColumn('text')
  id: string;

  @Index('review_form_course')
  @Column('text')
  @ForeignKey(() => Course, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  courseId: string;

  @Column('simple-json')
  items: FormItem[];

  @Column('integer')
  revision: number;
}

@Entity('exchange')
export class Exchange {
  @PrimaryColumn('text')
  id: string;

  @Index('exchange_course')
  @Column('text')
  @ForeignKey(() => Course, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  courseId: string;

  @Column('text')
  @ForeignKey(() => ReviewFormRow, { onDelete: 'RESTRICT', onUpdate: 'CASCADE' })
  formId: string;

  @Column('text')
  title: string;

  @Column('text')
  briefHtml: string;

  @Column('text')
  guideHtml: string;

  @Column('integer', { nullable: true })
  draftsOpen: number | null;

  @Column('integer', { nullable: true })
  draftsDue: number | null;

  @Column('integer', { nullable: true })
  reviewsOpen: number | null;

  @Column('integer', { nullable: true })
  reviewsDue: number | null;

  @Column('integer', { nullable: true })
  release: number | null;

  @Column('integer')
  reviewsPerStudent: number;

  @Column('text')
  names: NamesPolicy;

  @Column('integer', { nullable: true })
  publishedAt: number | null;

  @Column('integer')
  revision: number;

  @Column('integer')
  createdAt: number;
}

/**
 * A person's part in one exchange. Its id and alias are random: they stand for the person wherever
 * the name is hidden, and nothing of the person can be told from them.
 */
@Entity('participant')
@Unique('participant_once', ['exchangeId', 'personId'])
@Unique('participant_alias', ['exchangeId', 'alias'])
export class Participant {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  @Index('participant_person')
  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  @Column('text')
  alias: string;
}
