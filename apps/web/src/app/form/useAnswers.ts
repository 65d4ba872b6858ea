import type { AnswerView } from '@salt-circle/contracts';
import { OVERALL_ID, type Answer, type ReviewForm } from '@salt-circle/core';
import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { saveQueue } from '../store.js';

export interface AnswersState {
  readonly answers: Readonly<Record<string, Answer | undefined>>;
  readonly change: (itemId: string, part: Answer) => void;
  readonly replace: (itemId: string, theirs: AnswerView | null) => void;
}

export function useAnswers(
  { items }: Pick<ReviewForm, 'items'>,
  saved: Readonly<Record<string, AnswerView>>,
  prefix: string,
  /** Where the answer to an item is saved, and what goes along with it, such as the number of the version in view. */
  to: { readonly url: string; readonly along?: Readonly<Record<string, unknown>> },
): AnswersState {
  const { url, along } = to;
  const [answers, setAnswers] = useState<Readonly<Record<string, Answer | undefined>>>(() =>
    Object.fromEntries(
      [...items.map(({ id }) => id), OVERALL_ID].map((id) => [
        id,
        (saveQueue.pending(prefix + id)?.body as Answer | undefined) ?? saved[id],
      ]),
    ),
  );
  useEffect(() => {
    // What another tab or device has saved since shows here, unless something typed here is still on its way.
    setAnswers((all) => {
      const newer = Object.entries(saved).filter(([id, theirs]) => {
        const mine = all[id];
        const known = saveQueue.revision(
          prefix + id,
          mine !== undefined && 'revision' in mine ? Number(mine.revision) : 0,
        );
        return saveQueue.pending(prefix + id) === null && theirs.revision > known;
      });
      return newer.length === 0 ? all : { ...all, ...Object.fromEntries(newer) };
    });
  }, [saved, prefix]);
  // Fields keep the function that they were first given: what they change is looked up when they do.
  const latest = useRef({ answers, saved });
  useLayoutEffect(() => {
    latest.current = { answers, saved };
  }, [answers, saved]);
  const set = useCallback((itemId: string, answer: Answer | undefined) => {
    const next = { ...latest.current.answers, [itemId]: answer };
    latest.current = { ...latest.current, answers: next };
    setAnswers(next);
  }, []);
  const change = useCallback(
    (itemId: string, part: Answer) => {
      const now = latest.current.answers[itemId] ?? {};
      const { levelId = null, text = '', next: nextStep = '', value = null, checks = {}, choices = [] } = now;
      const next = { levelId, text, next: nextStep, value, checks, choices, ...part };
      set(itemId, next);
      saveQueue.put({
        key: prefix + itemId,
        url: `${url}/${itemId}`,
        method: 'PUT',
        body: { ...next, ...along },
        revision: latest.current.saved[itemId]?.revision ?? 0,
      });
    },
    [set, prefix, url, along],
  );
  const replace = useCallback((itemId: string, theirs: AnswerView | null) => set(itemId, theirs ?? undefined), [set]);
  return { answers, change, replace };
}
