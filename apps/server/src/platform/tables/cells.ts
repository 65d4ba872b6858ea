import { stringify } from 'csv-stringify/sync';
import { ProblemError } from '../problems/problem-error.js';

/** A file that cannot be read as what it should be. */
export function unreadable(sentence: string, whatToDo: string): ProblemError {
  return new ProblemError({ code: 'file-unreadable', sentence, whatToDo });
}

/**
 * RFC 4180, with a mark at the beginning by which spreadsheets recognise UTF-8, and no text that would be run as a formula: it gets an
 * apostrophe before it. Numbers stay numbers, also those below 0.
 */
export function csvOf(rows: ReadonlyArray<ReadonlyArray<string | number>>): string {
  return stringify(rows as Array<Array<string | number>>, {
    bom: true,
    record_delimiter: '\r\n',
    escape_formulas: true,
  });
}
