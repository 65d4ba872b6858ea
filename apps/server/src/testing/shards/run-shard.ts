import { readdirSync, statSync } from 'node:fs';
import { join, relative } from 'node:path';

const SOURCES = join(import.meta.dirname, '../..');
const SHARDS = 10;

/** Loading the application takes longer than most files of tests: those of a shard load it once between them. */
export function runShard(index: number): void {
  const files = readdirSync(SOURCES, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.spec.ts'))
    .map((file) => ({ path: join(SOURCES, file), size: statSync(join(SOURCES, file)).size }))
    // The largest first, dealt out in turn there and back, so that shards take about as long as each other.
    .sort((a, b) => b.size - a.size || a.path.localeCompare(b.path));
  files.forEach(({ path }, place) => {
    const round = Math.floor(place / SHARDS);
    const seat = round % 2 === 0 ? place % SHARDS : SHARDS - 1 - (place % SHARDS);
    if (seat !== index) return;
    describe(relative(SOURCES, path), () => {
      afterAll(() => jest.restoreAllMocks());
      jest.requireActual(path);
    });
  });
}
