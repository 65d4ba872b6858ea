import type { FormItem } from './form.js';

/**
 * Whether an answer to one item means the same as an answer to the other: the same kind, and the same levels, bands, entries or
 * options with the same points. What is asked for beside it, and how it is worded, may differ.
 */
export function sameScale(one: FormItem, other: FormItem): boolean {
  return one.kind === other.kind && JSON.stringify(scaleOf(one)) === JSON.stringify(scaleOf(other));
}

function scaleOf(item: FormItem): unknown {
  switch (item.kind) {
    case 'criterion':
      return item.levels.map(({ id, points }) => [id, points]);
    case 'range':
      return [item.step, item.bands.map(({ from, to }) => [from, to])];
    case 'checklist':
      return [item.cannotTell ?? false, item.entries.map(({ id, points }) => [id, points])];
    case 'number':
      return [item.minimum, item.maximum, item.whole];
    case 'choice':
      return [item.multiple, item.options.map(({ id }) => id)];
    case 'prompt':
    case 'pair':
      return [];
  }
}
