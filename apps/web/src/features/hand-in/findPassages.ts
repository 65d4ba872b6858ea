import type { NameFindView } from '@salt-circle/contracts';
import type { Passage } from '../../app/reading/passages.js';

/** The finds in texts, by part, as passages to be marked where they stand. */
export function findPassages(finds: readonly NameFindView[]): ReadonlyMap<string, readonly Passage[]> {
  const byPart = new Map<string, Passage[]>();
  for (const { key, partId, removed, before, exact, after, start, end } of finds) {
    if (partId === null || removed) continue;
    const anchor: Passage['anchor'] = {
      quote: { type: 'TextQuoteSelector', exact, prefix: before, suffix: after },
      position: { type: 'TextPositionSelector', start, end },
    };
    byPart.set(partId, [...(byPart.get(partId) ?? []), { id: key, kind: 'find', anchor }]);
  }
  return byPart;
}
