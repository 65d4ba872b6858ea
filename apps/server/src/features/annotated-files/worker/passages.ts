import { matchTextAnchor, placedEdit, splicesOf, type AnnotatedNote, type Splice } from '@salt-circle/core';
import { htmlToText } from '../../../platform/html/html-to-text.js';

/** A note where it stands in a text, in UTF-16 code units of it. */
export interface PlacedNote {
  readonly note: AnnotatedNote;
  readonly start: number;
  readonly end: number;
  /** What it proposes, as it can be shown in the text; empty where it proposes nothing, or where that is only told in words. */
  readonly splices: readonly Splice[];
}

/**
 * Notes in the order of their places. An edit that would touch what another one changes already, or that is of paragraphs and not of
 * words, is told in words.
 *
 * @param notes on this text alone
 */
export function placedNotes(html: string, notes: readonly AnnotatedNote[]): PlacedNote[] {
  const text = htmlToText(html);
  const found = notes
    .flatMap((note) => {
      if (note.selector.type !== 'text') return [];
      const match = matchTextAnchor(text, note.selector);
      return match.found === 'gone' ? [] : [{ note, ...match.range }];
    })
    .sort((a, b) => a.start - b.start || a.end - b.end || (a.note.id < b.note.id ? -1 : 1));
  const taken: Splice[] = [];
  return found.map(({ note, start, end }): PlacedNote => {
    const edit = note.edit === null ? null : placedEdit(text, { start, end }, note.edit);
    const splices = edit === null ? [] : splicesOf(text, edit);
    const apart = splices.every((one) => taken.every((other) => one.end < other.start || one.start > other.end));
    const ofWords = splices.every((one) => !/\n/.test(text.slice(one.start, one.end) + one.text));
    if (!apart || !ofWords) return { note, start, end, splices: [] };
    taken.push(...splices);
    return { note, start, end, splices };
  });
}
