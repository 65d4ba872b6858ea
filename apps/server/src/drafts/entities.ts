import { Column, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import { Exchange, Participant } from '../exchanges/entities.js';

@Entity('draft')
export class Draft {
  @PrimaryColumn('text')
  id: string;

  @Index('draft_exchange')
  @Column('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  @Column('text', { unique: true })
  @ForeignKey(() => Participant, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  participantId: string;

  /** What is saved, handed in or not. */
  @Column('text')
  title: string;

  @Column('text')
  html: string;

  @Column('integer')
  revision: number;

  @Column('integer', { nullable: true })
  savedAt: number | null;
}

@Entity('draft_version')
@Unique('draft_version_number', ['draftId', 'number'])
export class DraftVersion {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  @ForeignKey(() => Draft, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  draftId: string;

  /** From 1. */
  @Column('integer')
  number: number;

  @Column('text')
  title: string;

  @Column('text')
  html: string;

  @Column('integer')
  words: number;

  @Column('text')
  digest: string;

  @Column('integer')
  handedInAt: number;
}
