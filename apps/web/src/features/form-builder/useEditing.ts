import type { FormItem } from '@salt-circle/core';
import { useMemo } from 'react';
import type { Built } from './built.js';
import type { HistoryAction } from './history.js';
import { duplicate, moved } from './items.js';
import type { ItemActions } from './ItemEditor.js';

export interface Editing {
  readonly items: (label: string, make: (items: readonly FormItem[]) => readonly FormItem[]) => void;
  readonly whole: (part: Partial<Built>) => void;
  readonly actions: ItemActions;
}

/** All changes, by functions that stay the same from render to render. */
export function useEditing(dispatch: (action: HistoryAction<Built>) => void): Editing {
  return useMemo(() => {
    const change = (label: string, make: (form: Built) => Built) =>
      dispatch({ type: 'change', make, label, at: performance.now() });
    const items: Editing['items'] = (label, make) =>
      change(label, (form) => {
        const next = make(form.items);
        return next === form.items ? form : { ...form, items: next };
      });
    return {
      items,
      whole: (part) => change(`whole ${Object.keys(part).join()}`, (form) => ({ ...form, ...part })),
      actions: {
        change: (next) => items(`item ${next.id}`, (list) => list.map((one) => (one.id === next.id ? next : one))),
        move: (id, step) =>
          items('move', (list) => {
            const from = list.findIndex((one) => one.id === id);
            return moved(list, from, from + step);
          }),
        duplicate: (id) =>
          items('duplicate', (list) => list.flatMap((one) => (one.id === id ? [one, duplicate(one)] : [one]))),
        remove: (id) => items('remove', (list) => list.filter((one) => one.id !== id)),
      },
    };
  }, [dispatch]);
}
