import { say } from '../words/defaults.js';
import type { FormItem, ItemKind } from './form.js';

/** Gives an id that was not given before. */
export type NewId = () => string;

/** Of a new item, so that it can be used once it is named; to be written over. */
const LEVELS = ['missing', 'inPart', 'inFull'] as const;
const BANDS = [
  [0, 4, 'weak'],
  [5, 7, 'fair'],
  [8, 10, 'strong'],
] as const;

/** A new item of a kind, as it is most often wanted, ready to be named. Its parts have ids of their own. */
export function newItem(kind: ItemKind, id: NewId): FormItem {
  const base = { id: id(), title: '', guidance: '', required: true, weight: 10 };
  switch (kind) {
    case 'criterion':
      return {
        kind,
        ...base,
        comment: 'optional',
        levels: LEVELS.map((level, at) => ({ id: id(), title: say(level), description: '', points: at * 2 })),
      };
    case 'range':
      return {
        kind,
        ...base,
        comment: 'optional',
        step: 1,
        bands: BANDS.map(([from, to, band]) => ({ id: id(), title: say(band), description: '', from, to })),
      };
    case 'checklist':
      return {
        kind,
        ...base,
        comment: 'none',
        entries: [id(), id()].map((entry) => ({ id: entry, text: '', points: null })),
      };
    case 'prompt':
      return { kind, ...base, minimumWords: 0 };
    case 'pair':
      return { kind, ...base, worksLabel: '', nextLabel: '', minimumWords: 0 };
    case 'number':
      return { kind, ...base, minimum: 0, maximum: null, whole: true, unit: '' };
    case 'choice':
      return {
        kind,
        ...base,
        comment: 'none',
        multiple: false,
        options: [id(), id()].map((option) => ({ id: option, title: '' })),
      };
  }
}

/** The items that most begin with: something to choose from, and something to say. */
export function usualItems(id: NewId): FormItem[] {
  return [
    { ...newItem('criterion', id), title: say('doesWhatWasAsked') },
    { ...newItem('pair', id), title: say('draftAsWhole') },
  ];
}
