import type { DecisionsView, DecisionView, FeedbackView, PersonLabel } from '@salt-circle/contracts';
import { decisionKey, planFigures, type PlanFigures } from '@salt-circle/core';
import type { ReadNote } from '../../app/reading/ReadDraft.js';

/** A note or a next step that asks something of its author. What is to be kept asks nothing. */
export type Remark =
  | { readonly key: string; readonly by: PersonLabel; readonly note: ReadNote }
  | {
      readonly key: string;
      readonly by: PersonLabel;
      readonly note: null;
      readonly itemTitle: string;
      readonly words: string;
    };

/** Notes in the order of the draft, then what answers name as next steps; nothing of one’s own review. */
export function remarksOf(
  { reviews, form }: Pick<FeedbackView, 'reviews' | 'form'>,
  notes: ReadonlyArray<ReadNote & { readonly self: boolean }>,
): readonly Remark[] {
  const onPlaces = notes
    .filter(({ kind, self }) => kind !== 'keep' && !self)
    .map((note): Remark => ({ key: decisionKey({ kind: 'note', noteId: note.id }), by: note.by, note }));
  const steps = reviews
    .filter(({ self }) => !self)
    .flatMap(({ id: reviewId, reviewer: by, answers }) =>
      form.items.flatMap(({ id: itemId, title: itemTitle }): Remark[] => {
        const words = answers[itemId]?.next ?? '';
        const key = decisionKey({ kind: 'next', reviewId, itemId });
        return words.trim() === '' ? [] : [{ key, by, note: null, itemTitle, words }];
      }),
    );
  return [...onPlaces, ...steps];
}

export function decisionOf(decisions: DecisionsView | undefined, key: string): DecisionView | null {
  return decisions?.decisions.find((one) => one.key === key) ?? null;
}

export function figuresOf(remarks: readonly Remark[], decisions: DecisionsView | undefined): PlanFigures {
  return planFigures(
    remarks.map(({ key }) => {
      const known = decisionOf(decisions, key);
      return { key, decision: known?.decision ?? null, done: known?.done ?? false };
    }),
  );
}
