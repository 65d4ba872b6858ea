import type { Holiday, PlaceSource, Role } from '@salt-circle/core';
import { Column, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import { Person } from './person.js';

@Entity('course')
export class Course {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  title: string;

  /** IANA name, e.g. `Europe/Tallinn`. */
  @Column('text')
  timeZone: string;

  @Column('integer')
  createdAt: number;

  /** Calendar days on which nothing should fall due. */
  @Column('simple-json', { default: '[]' })
  holidays: Holiday[];

  /** Whether the time that reviewers are at work is measured. */
  @Column('boolean', { default: true })
  measuresTime: boolean;
}

@Entity('enrolment')
@Unique('enrolment_once', ['courseId', 'personId'])
@Unique('enrolment_address', ['courseId', 'email'])
@Index('enrolment_lti_user', ['courseId', 'ltiUser'], { unique: true })
export class Enrolment {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  @ForeignKey(() => Course, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  courseId: string;

  @Index('enrolment_person')
  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  /** As the course lists the person, and shows them to others. */
  @Column('text')
  name: string;

  /** As the course lists it, lower case: where invitations and the course's mail go. */
  @Column('text')
  email: string;

  @Column('text')
  role: Role;

  /** False once dropped: all work stays, and comes back with a re-add. */
  @Column('boolean', { default: true })
  active: boolean;

  @Column('text', { nullable: true })
  campusId: string | null;

  @Column('text', { nullable: true })
  section: string | null;

  /** What groups can be mixed by, from a column of a roster. */
  @Column('text', { nullable: true })
  trait: string | null;
  /** By whom the place was last written. */
  @Column('text', { default: 'hand' })
  source: PlaceSource;

  /** Of the person at the platform that the course is linked to. */
  @Column('text', { nullable: true })
  ltiUser: string | null;
}
