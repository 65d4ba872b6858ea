import type { AllocationAct, PreviewKind, RunOutcome, ScheduleKind, WishesView } from '@salt-circle/contracts';
import type { AllocationQuality, Pair, Shortfall } from '@salt-circle/core';
import { Column, Entity, ForeignKey, Index, PrimaryColumn, PrimaryGeneratedColumn, Unique } from 'typeorm';
import { Exchange, Participant } from './exchange.js';

/** What is wished of allocations of one exchange, and when they are made. Without a row, the defaults hold. */
@Entity('allocation_plan')
export class AllocationPlan {
  @PrimaryColumn('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  @Column('integer')
  revision: number;

  /** Ids of earlier exchanges; null for all of the course. */
  @Column('simple-json', { nullable: true })
  avoid: string[] | null;

  @Column('boolean')
  mix: boolean;

  @Column('integer', { nullable: true })
  maxPerDraft: number | null;

  @Column('text')
  schedule: ScheduleKind;

  @Column('integer', { nullable: true })
  runAt: number | null;

  @Column('integer')
  party: number;

  @Column('integer')
  patience: number;

  /** The planned time of the last run made, or when the schedule was set: what was planned up to then is not made up for. */
  @Column('integer')
  ranUntil: number;

  @Column('integer', { nullable: true })
  lastRunAt: number | null;

  @Column('text', { nullable: true })
  lastOutcome: RunOutcome | null;
}

/** This one is not to review drafts of that one. */
@Entity('forbidden_pair')
@Unique('forbidden_pair_once', ['reviewerId', 'authorId'])
export class ForbiddenPair {
  @PrimaryGeneratedColumn()
  id: number;

  @Index('forbidden_pair_exchange')
  @Column('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  @Column('text')
  @ForeignKey(() => Participant, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  reviewerId: string;

  @Column('text')
  @ForeignKey(() => Participant, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  authorId: string;
}

/** What a preview consists of, apart from when and for whom it was made. */
export interface PreviewContent {
  readonly wishes: WishesView;
  readonly pairs: readonly Pair[];
  readonly quality: AllocationQuality;
  readonly shortfalls: readonly Shortfall[];
  readonly removed: ReadonlyArray<Pair & { readonly reason: string }>;
  readonly added: ReadonlyArray<Pair & { readonly reason: string }>;
}

/** A computed allocation that has not been applied. The last few of each person who asked, and one of the last scheduled run. */
@Entity('allocation_preview')
export class AllocationPreview {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  /** A person's id, or empty for the schedule. A plain value: a preview may outlive an account. */
  @Column('text')
  madeBy: string;

  @Column('text')
  kind: PreviewKind;

  /** A whole number up to 2^32; SQLite keeps it exactly. */
  @Column('integer')
  seed: number;

  /** Of hand-ins, people and settings that it was made from. */
  @Column('text')
  fingerprint: string;

  @Column('integer')
  madeAt: number;

  @Column('simple-json')
  content: PreviewContent;
}

/** A review as far as allocation goes: what is needed to take it away and bring it back. */
export interface PairRow extends Pair {
  readonly id: string;
  readonly position: number;
  readonly locked: boolean;
  readonly toldAt: number | null;
}

/** One change of the allocation, so that the last one can be undone. */
/** What a step changed besides pairs. */
export interface StepBefore {
  /** Settings of the plan, as they were. */
  readonly whom?: Exchange['whom'];
  readonly reviewsPerStudent?: number;
  /** Wishes of the allocation, as they were. */
  readonly wishes?: Pick<AllocationPlan, 'avoid' | 'mix' | 'maxPerDraft'>;
  /** What was held, let go, kept apart and allowed. */
  readonly hands?: StepHands;
}

export interface StepHands {
  readonly held: readonly Pair[];
  readonly letGo: readonly Pair[];
  readonly apart: ReadonlyArray<Pick<ForbiddenPair, 'reviewerId' | 'authorId'>>;
  readonly together: ReadonlyArray<Pick<ForbiddenPair, 'reviewerId' | 'authorId'>>;
}

@Entity('allocation_step')
export class AllocationStep {
  @PrimaryGeneratedColumn()
  id: number;

  @Index('allocation_step_exchange')
  @Column('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  @Column('integer')
  at: number;

  @Column('text')
  act: AllocationAct;

  @Column('simple-json')
  added: PairRow[];

  @Column('simple-json')
  removed: PairRow[];

  @Column('simple-json')
  before: StepBefore;
}
