import fc from 'fast-check';
import { csvOf } from '../cells.js';
import { cellsOf, TABLE_BOUNDS } from './cells.js';

const { rows, columns, cell } = TABLE_BOUNDS;
const lines = (count: number, line: string) => Array(count).fill(line).join('\n');

describe('the cells of a table', () => {
  it('are those of RFC 4180, section 2: quoted line breaks, separators and doubled quotes', () => {
    expect(cellsOf('name,note\r\n"Ström, ""Zo""","two\r\nlines"\r\n')).toEqual([
      ['name', 'note'],
      ['Ström, "Zo"', 'two\r\nlines'],
    ]);
  });

  it('are told apart by what is most frequent in the header, whatever stands in quotes', () => {
    expect(cellsOf('"a,b,c,d";e\n1;2')).toEqual([
      ['a,b,c,d', 'e'],
      ['1', '2'],
    ]);
    expect(cellsOf('a\tb\n1,5\t2')).toEqual([
      ['a', 'b'],
      ['1,5', '2'],
    ]);
  });

  it('go by a first line that names the sign between them', () => {
    expect(cellsOf('sep=;\r\na,b;c\r\n1;2')).toEqual([
      ['a,b', 'c'],
      ['1', '2'],
    ]);
  });

  it('name the line in which a quotation mark opens that is never closed', () => {
    expect(() => cellsOf('a,b\n1,2\n"3,4\n5,6\n7,8')).toThrow('opens in line 3 and is never closed');
    expect(() => cellsOf('sep=,\na,b\n"1,2')).toThrow('opens in line 3 and is never closed');
  });

  it('lose the mark that keeps a spreadsheet from running them, and no other apostrophe', () => {
    expect(cellsOf("'=1+1,'-x,'tis,'").flat()).toEqual(['=1+1', '-x', "'tis", "'"]);
  });

  it('are taken up to the bounds, and refused beyond them, in words', () => {
    expect(cellsOf(lines(rows + 1, 'a,b'))).toHaveLength(rows + 1);
    expect(() => cellsOf(lines(rows + 2, 'a,b'))).toThrow(`more than ${rows} rows`);
    expect(() => cellsOf('a,'.repeat(columns))).toThrow(`${columns + 1} cells in row 1`);
    expect(() => cellsOf(lines(4_000, 'a,'.repeat(150)))).toThrow('more than 500000 cells');
    expect(() => cellsOf(`a,b\n${'x'.repeat(cell + 1)},y`)).toThrow(`more than ${cell} characters in row 2`);
    expect(() => cellsOf(`a,b\n"${'x'.repeat(columns * cell + 1)}`)).toThrow(/does not end|never closed/);
  });
});

describe('a table that is written', () => {
  it('is read again as it was, whatever letters stand in it', () => {
    const text = fc.oneof(
      fc.string({ unit: 'binary' }),
      fc.constantFrom('=1+1', '-x', '@a', '+', '\tb', 'a"b', 'a;b', 'a,b', 'two\r\nlines', '\u{1F9A2}', ''),
    );
    // A header tells by what cells are told apart; an apostrophe before a formula is the mark, and is taken off.
    const marked = (cell: string) => /^'[=+\-@\t\r\uFF1D\uFF0B\uFF0D\uFF20]/.test(cell);
    const row = fc.tuple(text, text, text).filter((cells) => !cells.some(marked));
    fc.assert(
      fc.property(fc.array(row, { maxLength: 5 }), (rows) => {
        const all = [['one', 'two', 'three'], ...rows];
        expect(cellsOf(csvOf(all))).toEqual(all);
      }),
    );
  });

  it('has numbers as numbers, also those below 0, and texts that a spreadsheet would work out as texts', () => {
    expect(csvOf([[-0.25, '-0.25', 3, '=A1', 'a-b']])).toBe("\uFEFF-0.25,'-0.25,3,'=A1,a-b\r\n");
  });
});
