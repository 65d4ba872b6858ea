import type { Band, ChecklistEntry, ChoiceOption, FormItem, ItemKind, Level } from '@salt-circle/core';

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

/** Of a new item, so that it can be used once it is named; to be written over. */
const LEVELS = ['missing', 'in part', 'in full'] as const;
const BANDS = [
  [0, 4, 'weak'],
  [5, 7, 'fair'],
  [8, 10, 'strong'],
] as const;

/** A new item of a kind, as it is most often wanted, ready to be named. */
export function newItem(kind: ItemKind): FormItem {
  const base = { id: id(), title: '', guidance: '', required: true, weight: 10 };
  switch (kind) {
    case 'criterion':
      return { kind, ...base, comment: 'optional', levels: LEVELS.map((title, at) => newLevel(at * 2, title)) };
    case 'range':
      return {
        kind,
        ...base,
        comment: 'optional',
        step: 1,
        bands: BANDS.map(([from, to, title]) => newBand(from, to, title)),
      };
    case 'checklist':
      return { kind, ...base, comment: 'none', entries: [newEntry(null), newEntry(null)] };
    case 'prompt':
      return { kind, ...base, minimumWords: 0 };
    case 'pair':
      return { kind, ...base, worksLabel: '', nextLabel: '', minimumWords: 0 };
    case 'number':
      return { kind, ...base, minimum: 0, maximum: null, whole: true, unit: '' };
    case 'choice':
      return { kind, ...base, comment: 'none', multiple: false, options: [newOption(), newOption()] };
  }
}

/** What most begin with: something to choose from, and something to say. */
export function usualItems(): FormItem[] {
  return [
    { ...newItem('criterion'), title: 'Does it do what was asked?' },
    { ...newItem('pair'), title: 'The draft as a whole' },
  ];
}

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
