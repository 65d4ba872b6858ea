import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import { Person } from './person.js';
import { Course } from './course.js';

/** Lets a person without an account set a password, once. */
@Entity('invitation')
export class Invitation {
  /** SHA-256 of the token in the link; the token itself is stored nowhere but in the mail. */
  @PrimaryColumn('text')
  tokenHash: string;

  @Index('invitation_person')
  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  @Column('text')
  @ForeignKey(() => Course, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  courseId: string;

  /** Who invited. */
  @Column('text')
  inviterId: string;

  @Column('integer')
  createdAt: number;

  @Column('integer', { nullable: true })
  usedAt: number | null;
}
