import { Column, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import { Course } from './course.js';
import { Person } from './person.js';

/** A remark that somebody has made and may make again; nobody else sees it. */
@Entity('own_remark')
@Unique('own_remark_once', ['personId', 'body'])
export class OwnRemark {
  @PrimaryColumn('text')
  id: string;

  @Index('own_remark_person')
  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  /** Where it was first written. */
  @Column('text')
  @ForeignKey(() => Course, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  courseId: string;

  @Column('text')
  title: string;

  @Column('text')
  body: string;

  /** In how many notes of submitted reviews it stood. */
  @Column('integer')
  uses: number;

  /** Removed by its owner: not offered again, however often it is written. */
  @Column('integer', { nullable: true })
  removedAt: number | null;
}
