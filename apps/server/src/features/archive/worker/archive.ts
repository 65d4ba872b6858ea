import { closeSync, openSync, statSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { snapshotOf } from '../../../platform/database/snapshot.js';
import { placeOf } from '../../../platform/files/file-store.js';
import { csvOf } from '../../../platform/tables/cells.js';
import { ArchiveLines, type ArchiveWishes } from '../kept/archive-lines.js';
import type { PlainTable } from '../kept/tables.js';
import { say } from '../../../words/archive.js';

export interface RowsTask {
  /** Where the database is, and where the files are. */
  readonly dataFolder: string;
  readonly filesFolder: string;
  readonly exchangeId: string;
  readonly wishes: ArchiveWishes;
  readonly tables: readonly PlainTable[];
  /** An empty folder for what is made. */
  readonly into: string;
}

export interface RowsMade {
  /** Names in the archive, and where they are. */
  readonly members: ReadonlyArray<readonly [name: string, path: string]>;
  /** Lines of each table. */
  readonly rows: Readonly<Record<string, number>>;
  readonly digests: readonly string[];
}

/** UTF-16 code units that are written at once. */
const PIECE = 1 << 18;

/** Runs in a thread: all rows of an exchange as they are at this moment, in files of a folder. */
export function writeRows({ dataFolder, filesFolder, exchangeId, wishes, tables, into }: RowsTask): RowsMade {
  const snapshot = snapshotOf(dataFolder);
  try {
    const sizeOf = (digest: string) => statSync(placeOf(filesFolder, digest), { throwIfNoEntry: false })?.size ?? null;
    const lines = new ArchiveLines(snapshot, tables, exchangeId, wishes, sizeOf);
    const members: Array<readonly [string, string]> = [];
    const write = (name: string, texts: Iterable<string>) => {
      const path = join(into, name.replace('/', '-'));
      writeAll(path, texts);
      members.push([name, path]);
    };
    const rows: Record<string, number> = {};
    for (const table of tables) {
      let count = 0;
      const counted = function* () {
        for (const line of lines.of(table)) {
          count += 1;
          yield `${JSON.stringify(line)}\n`;
        }
      };
      write(`rows/${table.name}.jsonl`, counted());
      rows[table.name] = count;
    }
    write('record.csv', [csvOf([RECORD, ...recordRows(lines, tables)])]);
    if (wishes.aliases) write('finds.csv', [csvOf([FINDS, ...findRows(lines)])]);
    return { members, rows, digests: lines.files.map(({ digest }) => digest) };
  } finally {
    snapshot.close();
  }
}

const RECORD = ['at', 'person', 'action', 'details'];
const FINDS = ['rows', 'row', 'column', 'found', 'hidden'];

function recordRows(lines: ArchiveLines, tables: readonly PlainTable[]): string[][] {
  return tables
    .filter(({ name }) => name === 'record')
    .flatMap((table) => [...lines.of(table)])
    .map(({ at, actorId, action, details }) => [
      ...[new Date(at as number).toISOString(), typeof actorId === 'string' ? actorId : ''],
      ...[String(action), JSON.stringify(details)],
    ]);
}

function findRows({ finds }: ArchiveLines): string[][] {
  return finds.map(({ table, row, column, found, hidden }) => [
    ...[table, row, column, found, hidden ? say('yes') : say('noPerhapsSomebodyElseOr')],
  ]);
}

function writeAll(path: string, texts: Iterable<string>): void {
  const file = openSync(path, 'w', 0o600);
  try {
    let open = '';
    for (const text of texts) {
      open += text;
      if (open.length < PIECE) continue;
      writeSync(file, open);
      open = '';
    }
    writeSync(file, open);
  } finally {
    closeSync(file);
  }
}
