import 'reflect-metadata';
import { Mail } from '../../model/mail.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { endHolding, isMailHeld } from '../../platform/database/installation.js';

/** What the one who runs the server does with letters, at its own keyboard. Each works beside a server that is up. */

export function mailStatus(folder: string): Promise<{ held: boolean; waiting: number; failed: number }> {
  return opened(folder, async ({ read }) => ({
    held: await isMailHeld(read),
    waiting: await read.countBy(Mail, { state: 'waiting' }),
    failed: await read.countBy(Mail, { state: 'failed' }),
  }));
}

/** @returns how many letters waited */
export function endMailHold(folder: string, how: 'send' | 'drop'): Promise<number> {
  return opened(folder, (database) => endHolding(database, how));
}

/** @returns how many letters had failed */
export function retryFailed(folder: string): Promise<number> {
  return opened(folder, async (database) => {
    const again = { state: 'waiting' as const, tries: 0, nextTryAt: 0, error: null };
    const { affected } = await database.write((manager) => manager.update(Mail, { state: 'failed' }, again));
    return affected ?? 0;
  });
}

async function opened<T>(folder: string, work: (database: Database) => Promise<T>): Promise<T> {
  const database = await Database.open(folder, new Clock());
  try {
    return await work(database);
  } finally {
    await database.onApplicationShutdown();
  }
}
