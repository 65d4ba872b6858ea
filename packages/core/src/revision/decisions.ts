import { MisuseError } from '../problem.js';

/** What an author says of a note or of a next step. */
export const DECISIONS = ['will-change', 'there', 'will-not', 'not-sure'] as const;
export type DecisionKind = (typeof DECISIONS)[number];

/** What is decided on: a note, or the next step that an answer names. */
export type DecisionTarget =
  | { readonly kind: 'note'; readonly noteId: string }
  | { readonly kind: 'next'; readonly reviewId: string; readonly itemId: string };

/** By which a decision is known: one for each target. */
export function decisionKey(target: DecisionTarget): string {
  return target.kind === 'note' ? `note.${target.noteId}` : `next.${target.reviewId}.${target.itemId}`;
}

/** @throws MisuseError `decision-key` for what no target is known by */
export function decisionTarget(key: string): DecisionTarget {
  const [kind, first, second, ...more] = key.split('.');
  if (kind === 'note' && first && second === undefined) return { kind, noteId: first };
  if (kind === 'next' && first && second && more.length === 0) return { kind, reviewId: first, itemId: second };
  throw new MisuseError('decision-key', `“${key}” names neither a note nor a next step.`, { key });
}

/** A remark that asks something of its author. */
export interface Remark {
  readonly key: string;
  readonly decision: DecisionKind | null;
  readonly done: boolean;
}

/** How far a plan of changes is. */
export interface PlanFigures {
  readonly remarks: number;
  readonly decided: number;
  /** Those that the author will change, and how many of them are ticked off. */
  readonly toDo: number;
  readonly done: number;
}

export function planFigures(remarks: readonly Remark[]): PlanFigures {
  const toDo = remarks.filter(({ decision }) => decision === 'will-change');
  return {
    remarks: remarks.length,
    decided: remarks.filter(({ decision }) => decision !== null && decision !== 'not-sure').length,
    toDo: toDo.length,
    done: toDo.filter(({ done }) => done).length,
  };
}
