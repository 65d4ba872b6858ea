import { Column, Entity, Index, PrimaryColumn } from 'typeorm';
import type { StoredLetterKind } from './letter-kind.js';

/** `ended`: never sent, because what it was about is over. */
export type MailState = 'kept' | 'waiting' | 'sent' | 'failed' | 'ended';

/**
 * One mail. Written in the transaction of what it tells of, sent afterwards. Ids are plain values, so that
 * the outbox outlives what it speaks of.
 */
@Entity('mail')
@Index('mail_course', ['courseId', 'at'])
@Index('mail_state', ['state', 'nextTryAt'])
export class Mail {
  @PrimaryColumn('text')
  id: string;

  @Column('integer')
  at: number;

  @Column('text')
  address: string;

  @Column('text', { nullable: true })
  courseId: string | null;

  @Column('text', { nullable: true })
  exchangeId: string | null;

  @Column('text', { default: '' })
  kind: StoredLetterKind;

  @Column('text')
  subject: string;

  @Column('text')
  text: string;

  /** A link that acts for the one who has it; replaced in what staff can read once the mail is sent. */
  @Column('text', { nullable: true })
  secret: string | null;

  /** That the secret is for the addressee alone, also where mail stays here. */
  @Column('boolean', { default: false })
  sealed: boolean;

  @Column('text')
  state: MailState;

  @Column('integer', { default: 0 })
  tries: number;

  @Column('integer', { default: 0 })
  nextTryAt: number;

  @Column('text', { nullable: true })
  error: string | null;
}
