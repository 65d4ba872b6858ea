import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';

@Entity('person')
export class Person {
  @PrimaryColumn('text')
  id: string;

  /** Lower case. */
  @Column('text', { unique: true })
  email: string;

  @Column('text')
  name: string;

  /** Null: cannot sign in with a password. */
  @Column('text', { nullable: true })
  passwordHash: string | null;

  @Column('boolean', { default: false })
  createsCourses: boolean;

  @Column('integer')
  createdAt: number;
}

@Entity('session')
export class Session {
  /** HMAC-SHA-256 of the token in the cookie; the token itself is stored nowhere. */
  @PrimaryColumn('text')
  tokenHash: string;

  @Index('session_person')
  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  @Column('integer')
  createdAt: number;

  @Column('integer')
  lastSeenAt: number;
}
