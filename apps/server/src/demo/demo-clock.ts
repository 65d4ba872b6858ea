import type { Database } from '../platform/database/database.js';
import { Setting } from '../model/audit-entry.js';

const KEY = 'demo.clock-offset';

/** So that the moved time survives a restart. */
export async function keepOffset(database: Database, offset: number, actorId: string | null): Promise<void> {
  await database.write(async (manager, emit) => {
    await manager.save(Setting, { key: KEY, value: String(offset) });
    emit({ action: 'clock-moved', actorId, details: { offset } });
  });
}

export async function keptOffset(database: Database): Promise<number> {
  const setting = await database.read.findOneBy(Setting, { key: KEY });
  return setting === null ? 0 : Number(setting.value);
}
