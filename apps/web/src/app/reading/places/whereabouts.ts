import type { DraftReading, PartView } from '@salt-circle/contracts';
import type { Place } from '@salt-circle/core';
import { capitalised } from '../../capitalised.js';
import { partLabel } from '../../viewing/partWords.js';
import { secondsInWords } from '../../viewing/sizes.js';
import type { DraftLayout } from '../DraftText.js';
import { say } from '../../../words/app.js';

type Parts = DraftReading['parts'];

/**
 * Where a place is, in a few words: "Slides, page 3"; without the name where there is one part, or none is given because the note
 * stands beside it. Empty for a passage of the only text of a draft, which says it itself.
 */
export function placeWords({ partId, selector }: Place, parts: Parts): string {
  if (partId === null) return say('wholeDraftLabel');
  const part = parts.find(({ id }) => id === partId);
  const name = part === undefined || parts.length === 1 ? '' : partLabel(part, parts);
  switch (selector.type) {
    case 'whole':
      return name === '' ? say('wholeOfIt') : say('asWhole', { name });
    case 'text':
      return name;
    case 'page':
    case 'passage':
      return within(name, say('page', { page: selector.page }));
    case 'region': {
      const key = selector.width === 0 && selector.height === 0 ? 'point' : 'region';
      return within(name, say(key, { page: selector.page ?? 'none' }));
    }
    case 'moment': {
      const from = secondsInWords(selector.start);
      return within(
        name,
        selector.end === null
          ? say('atOf', { from })
          : say('toOf2', { from, secondsInWords: secondsInWords(selector.end) }),
      );
    }
  }
}

function within(name: string, where: string): string {
  return name === '' ? capitalised(where) : say('whereaboutsWithin', { name, where });
}

/** Letters of a page of print, to guess how far down a passage stands on a page that is not drawn. */
const USUAL_PAGE = 3_000;

/** How far down, or along, a part a note stands, 0 to 1; null where that says nothing. */
export function wayThrough(
  { id, place: { selector } }: { readonly id: string; readonly place: Place },
  part: PartView,
  layout: DraftLayout | null,
): number | null {
  const pages = part.facts.pages ?? 1;
  switch (selector.type) {
    case 'whole':
      return null;
    case 'text': {
      const top = layout?.tops.get(id);
      return top === undefined || layout === null || layout.height === 0 ? null : top / layout.height;
    }
    case 'page':
      return (selector.page - 1) / pages;
    case 'passage':
      return (selector.page - 1 + Math.min(0.95, selector.position.start / USUAL_PAGE)) / pages;
    case 'region':
      return selector.page === null ? selector.y : (selector.page - 1 + selector.y) / pages;
    case 'moment':
      return part.facts.seconds === undefined ? null : selector.start / part.facts.seconds;
  }
}
