import { readOneRoster, readRoster, type Bundle, type BundleFiles, type Roster } from '@salt-circle/core';
import { answered, type Answer } from '../../bytes/answered.js';
import { Refused } from '../../bytes/refused.js';
import { readZip } from '../../bytes/read-zip.js';
import { decoded, decodeText, type Decoded } from '../../bytes/decode-text.js';
import { cellsOf } from './cells.js';
import { say } from '../../../words/tables.js';

/** What was pasted or chosen: one of the two. */
export interface TableTask {
  readonly bytes: Uint8Array | null;
  readonly text: string | null;
}

export interface RosterTask extends TableTask {
  /** Title of the column to mix groups by. */
  readonly traitColumn: string | null;
}

/** A table with its text, so that it can be mended on the spot; or a text that is no table but JSON. */
export type ReadTable =
  | { readonly kind: 'table'; readonly text: string; readonly cells: string[][] }
  | { readonly kind: 'json'; readonly text: string };

export type ReadRoster =
  | { readonly kind: 'table'; readonly text: string; readonly encoding: string; readonly roster: Roster }
  | { readonly kind: 'bundle'; readonly bundle: Bundle };

/** Bytes of all files of a bundle together, unpacked. */
const MOST_UNPACKED = 25_000_000;
const MOST_FILES = 50;

/** Runs in a thread: the cells of one table. */
export function readTable(task: TableTask): Promise<Answer<ReadTable>> {
  return answered(() => {
    assertNoWorkbook(task);
    if (isArchive(task)) throw new Refused(say('thisIsArchiveAndOne'), say('unpackItAndChooseFile'));
    const { text } = textOf(task);
    return /^\uFEFF?\s*[[{]/u.test(text) ? { kind: 'json', text } : { kind: 'table', text, cells: cellsOf(text) };
  });
}

/** Runs in a thread: the people of a table, or of a bundle of tables. */
export function readRosterFile(task: RosterTask): Promise<Answer<ReadRoster>> {
  return answered(async () => {
    assertNoWorkbook(task);
    if (isArchive(task)) return { kind: 'bundle', bundle: readOneRoster(await unpacked(task.bytes as Uint8Array)) };
    const { text, encoding } = textOf(task);
    return { kind: 'table', text, encoding, roster: readRoster(cellsOf(text), task.traitColumn) };
  });
}

/** Names of members by which a workbook is known, in the list at the end of its archive; and the older format. */
const WORKBOOK = ['xl/workbook.xml', 'xl/workbook.bin', 'application/vnd.oasis.opendocument.spreadsheet'];
const OLD_WORKBOOK = Buffer.from([0xd0, 0xcf, 0x11, 0xe0]);

/** @throws Refused for a workbook, with how it becomes a table */
function assertNoWorkbook({ bytes }: TableTask): void {
  if (bytes === null) return;
  const content = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (!WORKBOOK.some((name) => content.includes(name)) && content.indexOf(OLD_WORKBOOK) !== 0) return;
  throw new Refused(say('thisIsWorkbookOfSpreadsheet'), say('openItChooseSaveAs'));
}

function isArchive({ bytes }: TableTask): boolean {
  return bytes !== null && bytes[0] === 0x50 && bytes[1] === 0x4b;
}

function textOf({ bytes, text }: TableTask): Decoded {
  if (text !== null) {
    if (text.trim() === '') throw new Refused(say('thereIsNothingToRead'), say('pasteRowsOrChooseFile'));
    return { text, encoding: 'UTF-8' };
  }
  return decoded(bytes ?? new Uint8Array());
}

async function unpacked(bytes: Uint8Array): Promise<BundleFiles> {
  const members = await readZip(Buffer.from(bytes), {
    wanted: (name) => /\.csv$/iu.test(name) && !name.includes('__MACOSX'),
    most: MOST_UNPACKED,
    members: MOST_FILES,
    broken: [say('archiveIsDamagedSoIt'), say('exportItAgain')],
    tooMuch: [say('archiveHoldsMoreThanCan'), say('leaveOutFilesThatAre')],
  });
  const files: Record<string, string[][]> = {};
  for (const [path, content] of members) {
    const name = (path.split('/').at(-1) ?? path).toLowerCase();
    files[name] = content.length === 0 ? [] : cellsOf(decodeText(content));
  }
  if (Object.keys(files).length === 0) {
    throw new Refused(say('thereAreNoCsvFiles'), say('chooseRosterBundleOrCsv'));
  }
  return files;
}
