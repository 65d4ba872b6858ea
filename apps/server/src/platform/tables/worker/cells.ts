import { CsvError, parse } from 'csv-parse/sync';
import { Refused } from '../../bytes/refused.js';
import { say } from '../../../words/tables.js';

/** What a table may have. A roster of a large course has some thousand rows, and a platform system some dozens of columns. */
export const TABLE_BOUNDS = { rows: 5_000, columns: 200, cells: 500_000, cell: 20_000 } as const;

const BOM = '\uFEFF';

/** The header, up to the first end of a line that is in no quotation marks. */
function headerOf(text: string): string {
  let quoted = false;
  for (let at = 0; at < text.length; at += 1) {
    const sign = text[at];
    if (sign === '"') quoted = !quoted;
    else if (!quoted && (sign === '\n' || sign === '\r')) return text.slice(0, at);
  }
  return text;
}

/** Whichever of comma, semicolon and tab is most frequent in the header, outside quotes. */
function delimiterOf(text: string): string {
  const counts = new Map([',', ';', '\t'].map((one) => [one, 0]));
  let quoted = false;
  for (const sign of headerOf(text)) {
    if (sign === '"') quoted = !quoted;
    else if (!quoted && counts.has(sign)) counts.set(sign, (counts.get(sign) as number) + 1);
  }
  return [...counts].reduce((best, one) => (one[1] > best[1] ? one : best))[0];
}

/** A first line that names the sign between cells, as spreadsheets write and read it: "sep=;". */
const NAMED = /^"?sep=([,;\t|])"?\r?\n/i;

/** The line, from 1, in which a quotation mark opens that nothing closes; null where all are closed. */
function unclosedLine(text: string): number | null {
  let [line, opened]: [number, number | null] = [1, null];
  for (const sign of text) {
    if (sign === '\n') line += 1;
    else if (sign === '"') opened = opened === null ? line : null;
  }
  return opened;
}

/** Tables that leave here, and others, mark what a spreadsheet would run by an apostrophe before it: it is no part of the text. */
function unmarked(cell: string): string {
  return /^'[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell;
}

function tooMuch(sentence: string): Error {
  return new Refused(sentence, say('splitItOrLeaveOut'));
}

/**
 * The cells of a CSV text (RFC 4180; also with semicolons or tabs, as pasted from a spreadsheet). What is in a
 * cell is text and nothing else: a formula stays the letters it is written with. Ends with the first row beyond the bounds.
 *
 * @throws Refused with the line, when quotes do not match; and for a table that is beyond the bounds
 */
export function cellsOf(text: string): string[][] {
  const unmarkedText = text.startsWith(BOM) ? text.slice(1) : text;
  const named = NAMED.exec(unmarkedText);
  const plain = named === null ? unmarkedText : unmarkedText.slice(named[0].length);
  const { rows, columns, cells, cell } = TABLE_BOUNDS;
  let count = 0;
  try {
    return parse(plain, {
      delimiter: named?.[1] ?? delimiterOf(plain),
      relax_column_count: true,
      skip_empty_lines: false,
      bom: false,
      max_record_size: columns * cell,
      on_record: (record: string[], { records }) => {
        count += record.length;
        if (records > rows + 1) throw tooMuch(say('moreThanRows', { rows }));
        if (record.length > columns) throw tooMuch(say('cellsInRow', { cells: record.length, row: records }));
        if (count > cells) throw tooMuch(say('moreThanCells', { cells }));
        if (record.some((one) => one.length > cell))
          throw tooMuch(say('cellOfMoreThanCharacters', { cell, row: records }));
        return record.map(unmarked);
      },
    });
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    if (error.code === 'CSV_MAX_RECORD_SIZE') throw tooMuch(say('rowThatDoesNotEnd'));
    const { lines = 1 } = error as CsvError & { lines?: number };
    const opened = error.code === 'CSV_QUOTE_NOT_CLOSED' ? unclosedLine(plain) : null;
    if (opened !== null) {
      throw new Refused(
        say('quotationMarkOpensInLine', { opened: opened + (named === null ? 0 : 1) }),
        say('closeItThereOrWrite'),
      );
    }
    throw new Refused(say('quotationMarksAroundLineDo', { lines }), say('closeQuotationMarkThereOr'));
  }
}
