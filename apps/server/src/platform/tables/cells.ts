import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { ProblemError } from '../problems/problem-error.js';

const BOM = '\uFEFF';

/** A file that cannot be read as what it should be. */
export function unreadable(sentence: string, whatToDo: string): ProblemError {
  return new ProblemError({ code: 'file-unreadable', sentence, whatToDo });
}

/**
 * The text of a file: UTF-8 with or without a mark at its beginning, UTF-16 with one, or, where it is not valid
 * UTF-8, Windows-1252, in which spreadsheets of western Europe still write.
 */
export function decodeText(bytes: Uint8Array): string {
  if (bytes.length === 0) throw unreadable('The file is empty.', 'Choose another file.');
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (first === 0xfe && second === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  // A zero byte is in no text of the encodings below.
  if (bytes.includes(0)) {
    throw unreadable(
      'This is no text file, perhaps a spreadsheet’s own format.',
      'Save it as CSV, then choose that file.',
    );
  }
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch (error) {
    if ((error as { code?: unknown }).code !== 'ERR_ENCODING_INVALID_ENCODED_DATA') throw error;
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** Whichever of comma, semicolon and tab is most frequent in the header, outside quotes. */
function delimiterOf(text: string): string {
  const header = text.replace(/"(?:[^"]|"")*"/gu, '').split(/\r?\n|\r/u, 1)[0] ?? '';
  const counts = [',', ';', '\t'].map((one) => [one, header.split(one).length] as const);
  return counts.reduce((best, one) => (one[1] > best[1] ? one : best))[0];
}

/**
 * The cells of a CSV text (RFC 4180; also with semicolons or tabs, as pasted from a spreadsheet). What is in a
 * cell is text and nothing else: a formula stays the letters it is written with.
 * @throws ProblemError with the line, when quotes do not match
 */
export function cellsOf(text: string): string[][] {
  const plain = text.startsWith(BOM) ? text.slice(1) : text;
  try {
    return parse(plain, {
      delimiter: delimiterOf(plain),
      relax_column_count: true,
      skip_empty_lines: false,
      bom: false,
    });
  } catch (error) {
    const { lines } = error as { lines?: number };
    if (lines === undefined) throw error;
    throw unreadable(
      `The quotation marks around line ${lines} do not match, so it is not clear where a cell ends.`,
      'Close the quotation mark there, or write two for one that belongs to the text.',
    );
  }
}

/** RFC 4180, with a mark at the beginning by which spreadsheets recognise UTF-8, and no cell that would be run as a formula. */
export function csvOf(rows: readonly string[][]): string {
  return stringify(rows as string[][], { bom: true, record_delimiter: '\r\n', escape_formulas: true });
}
