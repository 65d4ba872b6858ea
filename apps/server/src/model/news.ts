import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import type { StoredLetterKind } from './letter-kind.js';
import { Person } from './person.js';

/** Something that happened and concerns one person. Ids of course and exchange are plain values: it outlives them. */
@Entity('news')
@Index('news_person', ['personId', 'at'])
@Index('news_daily', ['mailDay'])
export class News {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  @Column('integer')
  at: number;

  @Column('text')
  courseId: string;

  @Column('text', { nullable: true })
  exchangeId: string | null;

  @Column('text', { default: '' })
  kind: StoredLetterKind;

  @Column('text')
  words: string;

  /** Where it leads, a path of the application. */
  @Column('text')
  path: string;

  @Column('integer', { nullable: true })
  readAt: number | null;

  /** That it is still to be told in the letter of the day. */
  @Column('boolean', { default: false })
  mailDay: boolean;
}
