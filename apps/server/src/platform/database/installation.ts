import { randomUUID } from 'node:crypto';
import { existsSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { EntityManager } from 'typeorm';
import { Mail } from '../../model/mail.js';
import { Setting } from '../../model/audit-entry.js';
import type { Database } from './database.js';
import { DATABASE_FILE } from './data-source.js';

/**
 * Tells a folder that goes on where it was from a copy of it that was restored or moved. A copy must not send again what its original
 * has sent, so it holds its mail and its scores until somebody says what becomes of them (`npm run mail`).
 *
 * At each start a new mark is written beside the database and into it. A restored database has an older mark than the file beside it;
 * a restored folder is another file of another disk or machine.
 */
const FILE = 'installation.json';
const MARK = 'installation';
const HELD = 'mail-held';

interface Beside {
  readonly machine: string;
  /** Of the file of the database, as the file system counts it. */
  readonly inode: number;
  readonly mark: string;
  /** Written before it is in the database: after a fault between the two, either is right. */
  readonly next?: string;
}

/** By which systems with systemd or D-Bus tell machines apart; empty in most containers, where the file alone has to tell. */
function machineId(): string {
  const path = '/etc/machine-id';
  return existsSync(path) ? readFileSync(path, 'utf8').trim() : '';
}

function readBeside(folder: string): Beside | null {
  try {
    return JSON.parse(readFileSync(join(folder, FILE), 'utf8')) as Beside;
  } catch {
    return null;
  }
}

function writeBeside(folder: string, beside: Beside): void {
  const path = join(folder, FILE);
  writeFileSync(`${path}.new`, JSON.stringify(beside), { mode: 0o600 });
  renameSync(`${path}.new`, path);
}

/**
 * Marks the folder as being used here. Called once at each start of the server, before anything is sent.
 *
 * @returns whether mail is held
 */
export async function settleInstallation(database: Database, folder: string): Promise<boolean> {
  const stored = await database.read.findOneBy(Setting, { key: MARK });
  const beside = readBeside(folder);
  const here = { machine: machineId(), inode: statSync(join(folder, DATABASE_FILE)).ino };
  // A folder of a version that did not mark it yet stays where it is.
  const isCopy =
    stored !== null &&
    (beside === null ||
      beside.machine !== here.machine ||
      beside.inode !== here.inode ||
      ![beside.mark, beside.next].includes(stored.value));
  const next = randomUUID();
  writeBeside(folder, { ...here, mark: stored?.value ?? next, next });
  await database.write(async (manager) => {
    await manager.save(Setting, { key: MARK, value: next });
    if (isCopy) await manager.save(Setting, { key: HELD, value: 'yes' });
  });
  writeBeside(folder, { ...here, mark: next });
  return isMailHeld(database.read);
}

/** Whether this is a copy that sends nothing until somebody says so. */
export function isMailHeld(manager: EntityManager): Promise<boolean> {
  return manager.existsBy(Setting, { key: HELD });
}

/**
 * Ends the holding.
 *
 * @param how `send`: what waits is sent. `drop`: what waits is ended; what is written from now on is sent.
 * @returns how many letters wait, or were dropped
 */
export function endHolding(database: Database, how: 'send' | 'drop'): Promise<number> {
  return database.write(async (manager) => {
    const waiting = await manager.countBy(Mail, { state: 'waiting' });
    if (how === 'drop') await manager.update(Mail, { state: 'waiting' }, { state: 'ended' });
    await manager.delete(Setting, { key: HELD });
    return waiting;
  });
}
