import type { MessagePort } from 'node:worker_threads';
import {
  allocate,
  poolRound,
  repair,
  type Allocation,
  type AllocationChanges,
  type AllocationProblem,
  type Pair,
  type PoolProblem,
  type Repair,
} from '@salt-circle/core';

export type SolverTask =
  | { readonly kind: 'new'; readonly problem: AllocationProblem }
  | {
      readonly kind: 'repair';
      readonly problem: AllocationProblem;
      readonly current: readonly Pair[];
      readonly changes: AllocationChanges;
    }
  | { readonly kind: 'round'; readonly problem: PoolProblem };

export interface Solved {
  /** Null for a round that was not held. */
  readonly allocation: Allocation | null;
  readonly removed: Repair['removed'];
  readonly added: Repair['added'];
}

/** What the thread does. */
export function solve({ port, ...task }: SolverTask & { readonly port: MessagePort }): Solved {
  const watch = (progress: unknown) => port.postMessage(progress);
  switch (task.kind) {
    case 'new':
      return { allocation: allocate(task.problem, watch), removed: [], added: [] };
    case 'repair':
      return repair(task.problem, task.current, task.changes, watch);
    case 'round': {
      const { allocation, pairs } = poolRound(task.problem, watch);
      return { allocation, removed: [], added: pairs.map((pair) => ({ ...pair, reason: 'new-reviewer' as const })) };
    }
  }
}
