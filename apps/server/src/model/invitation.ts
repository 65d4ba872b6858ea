import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import { Enrolment } from './course.js';

/** Lets whoever has the link take a place in a course. */
@Entity('invitation')
export class Invitation {
  /** SHA-256 of the token in the link; the token itself is stored nowhere but in the mail. */
  @PrimaryColumn('text')
  tokenHash: string;

  @Index('invitation_enrolment')
  @Column('text')
  @ForeignKey(() => Enrolment, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  enrolmentId: string;

  /** Where the link went, lower case. It ends when the enrolment has another address. */
  @Column('text')
  address: string;

  /** That staff could read the link as well: it says nothing of who has it, and gives its own place only. */
  @Column('boolean')
  shown: boolean;

  /** Who invited: the person's id. */
  @Column('text')
  inviterId: string;

  /** The mail that holds the link. */
  @Column('text', { nullable: true })
  mailId: string | null;

  @Column('integer')
  createdAt: number;
}
