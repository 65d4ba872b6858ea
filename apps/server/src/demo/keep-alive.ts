import { DATE_ORDER, OWN_DATES } from '@salt-circle/core';
import type { Database } from '../database/database.js';
import { Setting } from '../record/entities.js';

const KEY = 'demo.last-day';
const DAY = 24 * 3_600_000;

const MOVED: ReadonlyArray<readonly [table: string, columns: readonly string[]]> = [
  ['exchange', [...DATE_ORDER, 'publishedAt', 'createdAt']],
  ['own_times', OWN_DATES],
  ['mail', ['at']],
  ['draft', ['savedAt']],
  ['draft_version', ['handedInAt', 'withdrawnAt']],
  ['draft_part', ['savedAt']],
  ['review', ['begunAt', 'submittedAt']],
  ['note', ['createdAt']],
];

/** A demo opened again after some days is moved along by as many whole days, so that it stays in the middle of things. */
export async function keepDemoAlive(database: Database, now: number): Promise<void> {
  const today = Math.floor(now / DAY);
  const kept = await database.read.findOneBy(Setting, { key: KEY });
  const passed = kept === null ? 0 : today - Number(kept.value);
  if (kept !== null && passed <= 0) return;
  await database.write(async (manager) => {
    await manager.save(Setting, { key: KEY, value: String(today) });
    if (passed === 0) return;
    for (const [table, columns] of MOVED) {
      const set = columns.map((column) => `"${column}" = "${column}" + ${passed * DAY}`).join(', ');
      await manager.query(`UPDATE "${table}" SET ${set}`);
    }
  });
}
