import type { Draft, DraftVersion } from './entities.js';

/** Whether what is saved differs from the version last handed in. */
export function changedSinceHandIn(draft: Pick<Draft, 'title' | 'html'>, last: DraftVersion | null): boolean {
  return last !== null && (draft.title.trim() !== last.title || draft.html !== last.html);
}
