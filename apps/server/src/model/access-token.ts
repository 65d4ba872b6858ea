import type { TokenScope } from '@salt-circle/contracts';
import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import { Person } from './person.js';

/** By which a script of somebody reads what that person may read. */
@Entity('access_token')
export class AccessToken {
  /** HMAC-SHA-256 of the token; the token itself is stored nowhere. */
  @PrimaryColumn('text')
  tokenHash: string;

  /** By which its person can name it. */
  @Column('text', { unique: true })
  id: string;

  @Index('access_token_person')
  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  @Column('text')
  name: string;

  @Column('text')
  scope: TokenScope;

  @Column('integer')
  createdAt: number;

  /** From then on it opens nothing. */
  @Column('integer')
  endsAt: number;

  /** Not newer than an hour ago, so that reading does not mean writing; null before it was used. */
  @Column('integer', { nullable: true })
  usedAt: number | null;
}
