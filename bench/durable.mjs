import { mkdtempSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { at } from '../scripts/run.mjs';

const Database = createRequire(import.meta.url)('better-sqlite3');
const COMMITS = 300;

/** Milliseconds that a commit takes, at the median, on the disk of the project. */
function commit(synchronous) {
  const folder = mkdtempSync(at('.cache', 'durable-'));
  const database = new Database(join(folder, 'data.sqlite'));
  database.pragma('journal_mode = WAL');
  database.pragma(`synchronous = ${synchronous}`);
  database.exec('CREATE TABLE draft (id INTEGER PRIMARY KEY, html TEXT)');
  const insert = database.prepare('INSERT INTO draft (html) VALUES (?)');
  const times = [];
  for (let count = 0; count < COMMITS; count += 1) {
    const begun = performance.now();
    insert.run('A paragraph of a draft, as it is typed. '.repeat(50));
    times.push(performance.now() - begun);
  }
  database.close();
  rmSync(folder, { recursive: true, force: true });
  return times.toSorted((a, b) => a - b)[COMMITS / 2];
}

/** What it costs that the power may go: each commit waits for the disk. @param save milliseconds of a save, all in all */
export function durableFigures({ line, save }) {
  process.stdout.write('\nA commit that survives a power cut\n');
  const [full, normal] = [commit('FULL'), commit('NORMAL')];
  line(
    'waiting for the disk / not',
    (full / normal).toFixed(1),
    `${full.toFixed(2)} ms against ${normal.toFixed(2)} ms`,
  );
  line('of a save of one answer, the waiting', `${Math.round((100 * (full - normal)) / save)} %`);
}
