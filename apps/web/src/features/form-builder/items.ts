import {
  newItem as itemOfKind,
  usualItems as itemsOfUse,
  type Band,
  type ChecklistEntry,
  type ChoiceOption,
  type FormItem,
  type ItemKind,
  type Level,
} from '@salt-circle/core';

const id = () => crypto.randomUUID();

export function newLevel(points: number | null, title = ''): Level {
  return { id: id(), title, description: '', points };
}

export function newBand(from: number, to: number, title = ''): Band {
  return { id: id(), title, description: '', from, to };
}

export function newEntry(points: number | null): ChecklistEntry {
  return { id: id(), text: '', points };
}

export function newOption(): ChoiceOption {
  return { id: id(), title: '' };
}

/** A new item of a kind, ready to be named. */
export const newItem = (kind: ItemKind): FormItem => itemOfKind(kind, id);

/** What most begin with. */
export const usualItems = (): FormItem[] => itemsOfUse(id);

/** The same once more, with ids of its own throughout. */
export function duplicate(item: FormItem): FormItem {
  const renewed = <T extends { readonly id: string }>(parts: readonly T[]) =>
    parts.map((part) => ({ ...part, id: id() }));
  const copy = { ...item, id: id() };
  switch (copy.kind) {
    case 'criterion':
      return { ...copy, levels: renewed(copy.levels) };
    case 'range':
      return { ...copy, bands: renewed(copy.bands) };
    case 'checklist':
      return { ...copy, entries: renewed(copy.entries) };
    case 'choice':
      return { ...copy, options: renewed(copy.options) };
    default:
      return copy;
  }
}

/** With the item at `from` moved to stand at `to`; the same list when there is no such place. */
export function moved<T>(items: readonly T[], from: number, to: number): readonly T[] {
  const item = items[from];
  if (item === undefined || to < 0 || to >= items.length) return items;
  const rest = items.filter((_, index) => index !== from);
  return [...rest.slice(0, to), item, ...rest.slice(to)];
}
