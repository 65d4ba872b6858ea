import { Column, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import { Course, Enrolment } from './course.js';

/** A named way to divide the students of a course. */
@Entity('group_set')
@Unique('group_set_title', ['courseId', 'title'])
export class GroupSet {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  @ForeignKey(() => Course, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  courseId: string;

  @Column('text')
  title: string;

  @Column('integer')
  createdAt: number;
}

@Entity('student_group')
@Unique('student_group_title', ['setId', 'title'])
export class StudentGroup {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  @ForeignKey(() => GroupSet, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  setId: string;

  @Column('text')
  title: string;

  /** Order on the board. */
  @Column('integer')
  position: number;
}

/** In a set, a student is in one group at most: the key says so. */
@Entity('group_member')
export class GroupMemberRow {
  @PrimaryColumn('text')
  @ForeignKey(() => GroupSet, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  setId: string;

  @PrimaryColumn('text')
  @ForeignKey(() => Enrolment, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  enrolmentId: string;

  @Index('group_member_group')
  @Column('text')
  @ForeignKey(() => StudentGroup, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  groupId: string;
}
