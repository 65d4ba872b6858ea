import { DATE_ORDER, PERSONAL_DATES } from '@salt-circle/core';
import type { Database } from '../platform/database/database.js';
import type { EntityTarget, ObjectLiteral } from 'typeorm';
import { Draft, DraftPart, DraftVersion } from '../model/draft.js';
import { Exchange, PersonalDatesRow } from '../model/exchange.js';
import { Mail } from '../model/mail.js';
import { NoteRow, Review } from '../model/review.js';
import { Setting } from '../model/audit-entry.js';

const KEY = 'demo.last-day';
const DAY = 24 * 3_600_000;

const MOVED: ReadonlyArray<readonly [entity: EntityTarget<ObjectLiteral>, columns: readonly string[]]> = [
  [Exchange, [...DATE_ORDER, 'publishedAt', 'createdAt']],
  [PersonalDatesRow, PERSONAL_DATES],
  [Mail, ['at']],
  [Draft, ['savedAt']],
  [DraftVersion, ['handedInAt', 'withdrawnAt']],
  [DraftPart, ['savedAt']],
  [Review, ['begunAt', 'submittedAt', 'reopenedAt']],
  [NoteRow, ['createdAt']],
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
    for (const [entity, columns] of MOVED) {
      const moved = Object.fromEntries(columns.map((column) => [column, () => `"${column}" + ${passed * DAY}`]));
      await manager.createQueryBuilder().update(entity).set(moved).execute();
    }
  });
}
