import type { Clock } from '../clock/clock.js';
import type { Database } from '../database/database.js';
export async function seedDemo(_database: Database, _clock: Clock): Promise<void> {}
