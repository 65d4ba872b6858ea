import type { DecisionKind } from '@salt-circle/core';
import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import { Draft } from './draft.js';
import { Participant } from './exchange.js';
import { NoteRow } from './review.js';

/** What the authors of a draft decided about a remark, and whether they have done it. */
@Entity('decision')
export class DecisionRow {
  @PrimaryColumn('text')
  @ForeignKey(() => Draft, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  draftId: string;

  /** See `decisionKey` of the core. */
  @PrimaryColumn('text')
  key: string;

  /** Null once it was taken back. */
  @Column('text', { nullable: true })
  decision: DecisionKind | null;

  /** Why not, or what else its author wants to remember. */
  @Column('text', { default: '' })
  why: string;

  /** When it was ticked off; null: it is not. */
  @Column('integer', { nullable: true })
  doneAt: number | null;

  @Column('integer')
  revision: number;
}

/** A proposed edit that was put into the text as it is saved, a step that can be undone as long as nothing was written since. */
@Entity('adoption')
export class AdoptionRow {
  @PrimaryColumn('text')
  id: string;

  @Index('adoption_draft')
  @Column('text')
  @ForeignKey(() => Draft, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  draftId: string;

  @Column('text')
  @ForeignKey(() => NoteRow, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  noteId: string;

  @Column('text')
  deliverableId: string;

  /** The text before, and after. */
  @Column('text')
  before: string;

  @Column('text')
  after: string;

  @Column('integer')
  at: number;
}

/** What one author thought over. */
@Entity('reflection')
export class ReflectionRow {
  @PrimaryColumn('text')
  @ForeignKey(() => Participant, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  participantId: string;

  /** To each prompt of the plan, in their order. */
  @Column('simple-json')
  texts: string[];

  @Column('integer')
  revision: number;

  @Column('integer')
  savedAt: number;

  /** Null as long as it is not handed in. */
  @Column('integer', { nullable: true })
  handedInAt: number | null;
}
