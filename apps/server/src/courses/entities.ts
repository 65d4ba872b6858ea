import type { Role } from '@salt-circle/core';
import { Column, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import { Person } from '../accounts/entities.js';

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
}

@Entity('enrolment')
@Unique('enrolment_once', ['courseId', 'personId'])
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

  @Column('text')
  role: Role;

  @Column('boolean', { default: true })
  active: boolean;
}
