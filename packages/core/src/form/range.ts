import type { RangeItem } from './form.js';

/** Least and most points of a range, from its bands; 0 and 0 without any. */
export function rangeBounds({ bands }: Pick<RangeItem, 'bands'>): { readonly least: number; readonly most: number } {
  if (bands.length === 0) return { least: 0, most: 0 };
  return { least: Math.min(...bands.map(({ from }) => from)), most: Math.max(...bands.map(({ to }) => to)) };
}
