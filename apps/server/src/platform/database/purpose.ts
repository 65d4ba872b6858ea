import { Person } from '../../model/person.js';
import { SettingsError, type Mode } from '../config/settings.js';
import { Setting } from '../../model/audit-entry.js';
import type { Database } from './database.js';

const KEY = 'demo';

/**
 * Keeps demo data and real data apart: a database is made for the one or the other at its first start.
 * @throws SettingsError when it is opened for the other purpose
 */
export async function assertPurpose(database: Database, mode: Mode): Promise<void> {
  const isDemo = await database.read.existsBy(Setting, { key: KEY });
  if (mode === 'production' && isDemo) {
    throw new SettingsError(
      'This data folder holds demo data, which anybody can step into. Set SALT_CIRCLE_DATA to another folder.',
    );
  }
  if (mode !== 'demo' || isDemo) return;
  if (await database.read.exists(Person)) {
    throw new SettingsError(
      'Demo mode was asked for, but this data folder holds real data. Set SALT_CIRCLE_DATA to another folder.',
    );
  }
  await database.write((manager) => manager.insert(Setting, { key: KEY, value: 'yes' }));
}
