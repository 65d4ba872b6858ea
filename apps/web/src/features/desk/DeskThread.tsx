import type { DeskView } from '@salt-circle/contracts';
import { createContext, use, useMemo, type ReactNode } from 'react';
import { Thread } from '../../app/after/Thread.js';

interface Around {
  readonly reviewId: string;
  readonly timeZone: string;
  /** Its reviewer answers what was asked; staff may speak first. */
  readonly quiet: boolean;
}

const Surroundings = createContext<Around | null>(null);

/** What below it can be answered: a review that was submitted. Practice is answered by its key. */
export function ThreadsOf({ desk, children }: { readonly desk: DeskView; readonly children: ReactNode }) {
  const { id, submittedAt, practice, checkable } = desk;
  const { timeZone } = desk.exchange;
  const open = submittedAt !== null && practice === null;
  const around = useMemo(
    () => (open ? { reviewId: id, timeZone, quiet: !checkable } : null),
    [open, id, timeZone, checkable],
  );
  return <Surroundings value={around}>{children}</Surroundings>;
}

/** Answers to a note or to an answer of the review, or to the review as a whole. */
export function DeskThread(target: { readonly noteId?: string; readonly itemId?: string }) {
  const around = use(Surroundings);
  return around === null ? null : <Thread {...around} {...target} />;
}
