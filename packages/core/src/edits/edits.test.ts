import { diffWordsWithSpace } from 'diff';
import fc from 'fast-check';
import { describeTextAnchor } from '../anchoring/describe.js';
import { editTyped, passageAfter, placedEdit, type ProposedEdit } from './proposedEdit.js';
import { applyEdit, invertSplices, rebaseEdit, spliced, splicesOf, type Splice, type TextEdit } from './textEdit.js';

const TEXT = 'The bed rose by four centimetres.\nGeese graze here.\nThe spit holds.';

const texts = fc
  .array(fc.constantFrom('geese', 'graze', 'é', '𝄞', ' ', '\n', 'low water', 'שפל'), { minLength: 2, maxLength: 14 })
  .map((parts) => parts.join(''));

/** A text with an edit that lies in it. */
const edits = texts.chain((text) =>
  fc
    .record({
      type: fc.constantFrom<TextEdit['type']>('insert', 'delete', 'replace', 'move', 'split', 'join'),
      a: fc.nat(text.length),
      b: fc.nat(text.length),
      to: fc.nat(text.length),
      put: fc.constantFrom('new ', 'two words', '\n'),
    })
    .map(({ type, a, b, to, put }): TextEdit | null => {
      const [start, end] = [Math.min(a, b), Math.max(a, b)];
      switch (type) {
        case 'insert':
          return { type, at: a, text: put };
        case 'delete':
          return { type, start, end };
        case 'replace':
          return { type, start, end, text: put };
        case 'move':
          return to > start && to < end ? null : { type, start, end, to };
        case 'split':
          return { type, at: a };
        case 'join':
          return text.indexOf('\n', a) === -1 ? null : { type, at: a };
      }
    })
    .map((edit) => ({ text, edit })),
);

const SEED = { seed: 5776, numRuns: 400 };

describe('edits of a text', () => {
  it.each<[string, TextEdit, string]>([
    ['insert', { type: 'insert', at: 33, text: ' Or five.' }, TEXT.replace('metres.', 'metres. Or five.')],
    ['delete', { type: 'delete', start: 0, end: 34 }, TEXT.slice(34)],
    ['replace', { type: 'replace', start: 16, end: 20, text: 'five' }, TEXT.replace('four', 'five')],
    [
      'move on',
      { type: 'move', start: 0, end: 34, to: 52 },
      'Geese graze here.\nThe bed rose by four centimetres.\nThe spit holds.',
    ],
    [
      'move back',
      { type: 'move', start: 34, end: 52, to: 0 },
      'Geese graze here.\nThe bed rose by four centimetres.\nThe spit holds.',
    ],
    ['begin a paragraph', { type: 'split', at: 8 }, TEXT.replace('bed rose', 'bed\nrose')],
    ['join two', { type: 'join', at: 20 }, TEXT.replace('metres.\nGeese', 'metres. Geese')],
  ])('%s', (_, edit, after) => {
    expect(applyEdit(TEXT, edit)).toBe(after);
  });

  it('are undone by their inverse, whatever they are', () => {
    fc.assert(
      fc.property(edits, ({ text, edit }) => {
        fc.pre(edit !== null);
        const splices = splicesOf(text, edit as TextEdit);
        const after = spliced(text, splices);
        expect(spliced(after, invertSplices(text, splices))).toBe(text);
      }),
      SEED,
    );
  });

  it('change what a general-purpose comparison finds changed, and nothing else', () => {
    fc.assert(
      fc.property(edits, ({ text, edit }) => {
        fc.pre(edit !== null);
        const after = applyEdit(text, edit as TextEdit);
        // jsdiff 9.0.0: its pieces, as splices of ours, lead to the same text, and back.
        let at = 0;
        const splices: Splice[] = [];
        for (const { added, removed, value } of diffWordsWithSpace(text, after)) {
          if (added) splices.push({ start: at, end: at, text: value });
          else if (removed) {
            splices.push({ start: at, end: at + value.length, text: '' });
            at += value.length;
          } else at += value.length;
        }
        expect(spliced(text, splices)).toBe(after);
        expect(spliced(after, invertSplices(text, splices))).toBe(text);
      }),
      SEED,
    );
  });

  it('come to the same in either order where they are independent of each other', () => {
    let compared = 0;
    fc.assert(
      fc.property(edits, fc.nat(), fc.nat(), fc.constantFrom('x', ''), ({ text, edit }, a, b, put) => {
        fc.pre(edit !== null);
        const [from, to] = [a % (text.length + 1), b % (text.length + 1)];
        const other: TextEdit = { type: 'replace', start: Math.min(from, to), end: Math.max(from, to), text: put };
        const [mine, theirs] = [splicesOf(text, edit as TextEdit), splicesOf(text, other)];
        // Independent: apart, with a letter between.
        const apart = mine.every((one) => theirs.every((two) => one.end < two.start || two.end < one.start));
        const [mineAfter, theirsAfter] = [rebaseEdit(edit as TextEdit, theirs), rebaseEdit(other, mine)];
        if (!apart || mineAfter === null || theirsAfter === null) return;
        compared += 1;
        expect(applyEdit(spliced(text, theirs), mineAfter)).toBe(applyEdit(spliced(text, mine), theirsAfter));
        // The same as one after the other, from the end of the text on, by the positions that they were made with.
        const both = [...mine, ...theirs].sort((one, two) => one.start - two.start);
        expect(applyEdit(spliced(text, theirs), mineAfter)).toBe(spliced(text, both));
      }),
      { ...SEED, numRuns: 1_500 },
    );
    expect(compared).toBeGreaterThan(200);
  });

  it('are both kept where two people changed the same words: neither is made to fit', () => {
    const mine: TextEdit = { type: 'replace', start: 16, end: 32, text: 'five centimetres' };
    const theirs = splicesOf(TEXT, { type: 'delete', start: 13, end: 20 });
    expect(rebaseEdit(mine, theirs)).toBeNull();
    expect(rebaseEdit({ type: 'insert', at: 18, text: '-' }, theirs)).toBeNull();
    expect(rebaseEdit({ type: 'insert', at: 33, text: '!' }, theirs)).toEqual({ type: 'insert', at: 26, text: '!' });
  });

  it.each<TextEdit>([
    { type: 'delete', start: 5, end: 4 },
    { type: 'insert', at: 1e9, text: 'x' },
    { type: 'replace', start: -1, end: 2, text: 'x' },
    { type: 'delete', start: 0, end: 1.5 },
    { type: 'move', start: 0, end: 10, to: 5 },
    { type: 'join', at: 60 },
  ])('are refused where they do not lie in the text: %j', (edit) => {
    expect(() => applyEdit(TEXT, edit)).toThrow(expect.objectContaining({ code: 'edit-invalid' }));
  });
});

describe('what a note proposes', () => {
  it.each<[string, ProposedEdit | null]>([
    ['four', null],
    ['', { type: 'delete' }],
    [' \n', { type: 'delete' }],
    ['four or five', { type: 'insert', side: 'after', text: ' or five' }],
    ['some four', { type: 'insert', side: 'before', text: 'some ' }],
    ['five', { type: 'replace', text: 'five' }],
  ])('is read from what was typed over “four”: %j', (typed, edit) => {
    expect(editTyped('four', typed)).toEqual(edit);
    if (edit !== null && edit.type !== 'delete') expect(passageAfter('four', edit)).toBe(typed);
  });

  it('is made where its passage is, also once that has moved', () => {
    const moved = `A first line.\n${TEXT}`;
    const range = { start: 30, end: 34 };
    expect(moved.slice(range.start, range.end)).toBe('four');
    const made = (edit: ProposedEdit) => applyEdit(moved, placedEdit(moved, range, edit) as TextEdit);
    expect(made({ type: 'replace', text: 'five' })).toBe(moved.replace('four', 'five'));
    expect(made({ type: 'insert', side: 'before', text: 'about ' })).toBe(moved.replace('four', 'about four'));
    expect(made({ type: 'split' })).toBe(moved.replace(' four', '\nfour'));
    const to = describeTextAnchor(TEXT, { start: TEXT.indexOf('Geese'), end: TEXT.indexOf(' graze') });
    expect(made({ type: 'move', side: 'before', to })).toBe(moved.replace('four', '').replace('Geese', 'fourGeese'));
  });

  it('is not made where what it needs is gone', () => {
    const to = describeTextAnchor('Nothing of this stands there.', { start: 0, end: 28 });
    expect(placedEdit(TEXT, { start: 16, end: 20 }, { type: 'move', side: 'after', to })).toBeNull();
    expect(placedEdit('One paragraph.', { start: 0, end: 3 }, { type: 'join' })).toBeNull();
  });
});
