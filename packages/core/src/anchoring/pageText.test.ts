import fc from 'fast-check';
import { pageText, runPieces, type PageRun } from './pageText.js';

const run = (str: string, hasEOL = false): PageRun => ({ str, hasEOL });

describe('the words of pages', () => {
  it('are one text, in which a line end is one letter and so is the edge of a page', () => {
    const pages = [[run('Tide '), run('gauge', true), run('at the bar')], [], [run('Low water')]];
    expect(pageText(pages)).toEqual({ text: 'Tide gauge\nat the bar\nLow water', starts: [[0, 5, 11], [], [22]] });
    expect(pageText([])).toEqual({ text: '', starts: [] });
  });

  it('give back, piece by piece, just the letters of any range of them', () => {
    const runs = fc.array(fc.record({ str: fc.string({ unit: 'grapheme', maxLength: 6 }), hasEOL: fc.boolean() }));
    fc.assert(
      fc.property(fc.array(runs, { maxLength: 4 }), fc.nat(), fc.nat(), (pages, a, b) => {
        const built = pageText(pages);
        const [start, end] = [a % (built.text.length + 1), b % (built.text.length + 1)].sort((x, y) => x - y) as [
          number,
          number,
        ];
        const pieces = runPieces(pages, built, { start, end });
        const letters = pieces.map(({ page, run: at, from, to }) => pages[page]?.[at]?.str.slice(from, to)).join('');
        // Line ends are between runs or after them, so they are in no piece; a letter of a run may be one too.
        const own = [...built.starts.entries()].flatMap(([page, starts]) =>
          starts.map((from, at) => [from, from + (pages[page]?.[at]?.str.length ?? 0)] as const),
        );
        const wanted = own
          .map(([from, to]) =>
            built.text.slice(Math.max(from, start), Math.max(Math.max(from, start), Math.min(to, end))),
          )
          .join('');
        expect(letters).toBe(wanted);
        expect(pieces.every(({ from, to }) => from < to)).toBe(true);
      }),
    );
  });
});
