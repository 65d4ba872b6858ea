import type { CriterionItem, FormItem, Level, PromptItem } from '@salt-circle/core';

export function newLevel(points: number | null): Level {
  return { id: crypto.randomUUID(), title: '', description: '', points };
}

/** Three levels with points, the commonest case, ready to be named. */
export function newCriterion(): CriterionItem {
  const levels = [0, 2, 4].map(newLevel);
  return {
    kind: 'criterion',
    id: crypto.randomUUID(),
    title: '',
    guidance: '',
    required: true,
    comment: 'optional',
    levels,
  };
}

export function newPrompt(): PromptItem {
  return { kind: 'prompt', id: crypto.randomUUID(), title: '', guidance: '', required: true, minimumWords: 0 };
}

/** With the item at `from` moved to stand at `to`; the same list when there is no such place. */
export function moved(items: readonly FormItem[], from: number, to: number): readonly FormItem[] {
  const item = items[from];
  if (item === undefined || to < 0 || to >= items.length) return items;
  const rest = items.filter((_, index) => index !== from);
  return [...rest.slice(0, to), item, ...rest.slice(to)];
}
