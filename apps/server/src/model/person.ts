import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';

/**
 * Somebody. With a sign-in address it is an account, which is the person's own: courses neither see nor change it. Without
 * one it stands behind a single place of one course that nobody has taken yet.
 */
@Entity('person')
export class Person {
  @PrimaryColumn('text')
  id: string;

  /** Address to sign in with, lower case. Null: no account. */
  @Column('text', { unique: true, nullable: true })
  email: string | null;

  /** As the person wants to be greeted; what others see is in the enrolment. */
  @Column('text')
  name: string;

  /** Null: cannot sign in with a password. */
  @Column('text', { nullable: true })
  passwordHash: string | null;

  /** When it was shown that mail to the address reaches this person; null: not yet. */
  @Column('integer', { nullable: true })
  addressConfirmedAt: number | null;

  /** When mail tells of what happens in courses: each time, once a day, or not. */
  @Column('text', { default: 'at-once' })
  mailWish: 'at-once' | 'daily' | 'off';

  @Column('boolean', { default: false })
  createsCourses: boolean;

  /** Connects platforms, and sees how they do. */
  @Column('boolean', { default: false })
  runsPlatforms: boolean;

  @Column('integer')
  createdAt: number;
}

@Entity('session')
export class Session {
  /** HMAC-SHA-256 of the token in the cookie; the token itself is stored nowhere. */
  @PrimaryColumn('text')
  tokenHash: string;

  /** By which its person can name it. */
  @Column('text', { unique: true })
  id: string;

  @Index('session_person')
  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  /** What the browser calls itself, shortened. */
  @Column('text', { default: '' })
  browser: string;

  @Column('integer')
  createdAt: number;

  @Column('integer')
  lastSeenAt: number;

  /** When the password was given in it last; null where it was begun by other means. Milliseconds. */
  @Column('integer', { nullable: true })
  passwordAt: number | null;
}

/** Lets whoever reads the mail of an account's address choose a new password, once. */
@Entity('password_link')
export class PasswordLink {
  /** SHA-256 of the token in the link; the token itself is stored nowhere but in the mail. */
  @PrimaryColumn('text')
  tokenHash: string;

  @Index('password_link_person')
  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  @Column('integer')
  createdAt: number;
}

/** An account's new address, which counts once it is confirmed from the old one and the new one. One at a time. */
@Entity('address_change')
export class AddressChange {
  @PrimaryColumn('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  /** The new one, lower case. */
  @Column('text')
  email: string;

  /** SHA-256 of the token that went to the old address; null once it was used. */
  @Index('address_change_old', { unique: true })
  @Column('text', { nullable: true })
  oldTokenHash: string | null;

  /** SHA-256 of the token that went to the new address; null once it was used. */
  @Index('address_change_new', { unique: true })
  @Column('text', { nullable: true })
  newTokenHash: string | null;

  @Column('integer')
  createdAt: number;
}
