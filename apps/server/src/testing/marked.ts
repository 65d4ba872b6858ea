import { describeTextAnchor, type AnnotatedNote } from '@salt-circle/core';
import fc from 'fast-check';

const words = fc.stringMatching(/^[a-zäß🪿 ,.]{1,12}$/u).filter((text) => text.trim() !== '');
const inline = fc.oneof(
  words,
  words.map((text) => `<em>${text}</em>`),
  words.map((text) => `<strong><u>${text}</u></strong>`),
  words.map((text) => `${text}<br />${text}`),
);
const inlines = fc.array(inline, { minLength: 1, maxLength: 4 }).map((all) => all.join(''));
const block = fc.oneof(
  inlines.map((html) => `<p>${html}</p>`),
  inlines.map((html) => `<h3>${html}</h3>`),
  inlines.map((html) => `<blockquote><p>${html}</p></blockquote>`),
  inlines.map((html) => `<ul><li>${html}</li><li>${html}<ol><li>${html}</li></ol></li></ul>`),
  inlines.map((html) => `<table><tbody><tr><td>${html}</td><td>${html}</td></tr></tbody></table>`),
  words.map((text) => `<pre>${text}\n${text}</pre>`),
);
export const ANY_HTML = fc.array(block, { minLength: 1, maxLength: 4 }).map((all) => all.join(''));
const edit = fc.oneof(
  fc.constant(null),
  fc.constant({ type: 'delete' as const }),
  words.map((text) => ({ type: 'replace' as const, text })),
  fc.record({
    type: fc.constant('insert' as const),
    side: fc.constantFrom('before' as const, 'after' as const),
    text: words,
  }),
);
/** How far on, how long, and what is proposed. */
export const ANY_NOTES = fc.array(fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.nat(30), edit), {
  maxLength: 8,
});

/** Notes at places of a text, which may lie over each other. */
export function notesOn(
  text: string,
  given: ReadonlyArray<readonly [share: number, length: number, edit: AnnotatedNote['edit']]>,
): AnnotatedNote[] {
  return given.map(([share, length, edit], index) => {
    // Nobody selects half a letter.
    const letters = [...text];
    const first = Math.min(letters.length - 1, Math.floor(share * letters.length));
    const start = letters.slice(0, first).join('').length;
    const exact = letters.slice(first, first + 1 + length).join('');
    const end = start + exact.length;
    const { prefix, suffix } = describeTextAnchor(text, { start, end }).quote;
    return {
      ...{ id: `n${index}`, by: 'Skua', kind: 'change', body: `About it, ${index}.`, partId: 'p', edit, replies: [] },
      selector: {
        type: 'text',
        quote: { type: 'TextQuoteSelector', exact, prefix, suffix },
        position: { type: 'TextPositionSelector', start, end },
      },
    };
  });
}

/** From the end on, so that places stay where they are. */
export function spliced(text: string, all: ReadonlyArray<{ start: number; end: number; text: string }>): string {
  return all
    .toSorted((a, b) => b.start - a.start)
    .reduce((so, { start, end, text: put }) => so.slice(0, start) + put + so.slice(end), text);
}
