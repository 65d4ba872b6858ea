import { stringify } from 'csv-stringify/sync';
import { ProblemError } from '../problems/problem-error.js';

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

/** RFC 4180, with a mark at the beginning by which spreadsheets recognise UTF-8, and no cell that would be run as a formula. */
export function csvOf(rows: readonly string[][]): string {
  return stringify(rows as string[][], { bom: true, record_delimiter: '\r\n', escape_formulas: true });
}
