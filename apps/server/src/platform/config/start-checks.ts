import { accessSync, constants, readFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { privateFolder } from './private-folder.js';
import { SettingsError, type Settings } from './settings.js';

/** Files that a busy hour has open at once: connections, uploads, the database. */
const FEWEST_FILES = 1_024;

/** @throws SettingsError where the folder cannot be made or written */
export function assertWritable(folder: string): void {
  try {
    privateFolder(folder);
    accessSync(folder, constants.R_OK | constants.W_OK | constants.X_OK);
  } catch (error) {
    const { code = 'unknown' } = error as NodeJS.ErrnoException;
    throw new SettingsError(
      `The data folder ${folder} cannot be written (${code}). Make it writable for this user, or set SALT_CIRCLE_DATA to another folder.`,
    );
  }
}

/** @throws SettingsError where the system lets this process open too few files; passes where it does not tell */
export function assertEnoughFiles(limits: string | null = readLimits()): void {
  const soft = /^Max open files\s+(\d+)/m.exec(limits ?? '')?.[1];
  if (soft === undefined || Number(soft) >= FEWEST_FILES) return;
  throw new SettingsError(
    `This process may open only ${soft} files at once, and Salt Circle needs ${FEWEST_FILES}. Raise the limit ("ulimit -n 4096", or LimitNOFILE= of the service).`,
  );
}

function readLimits(): string | null {
  try {
    return readFileSync('/proc/self/limits', 'utf8');
  } catch {
    return null;
  }
}

/**
 * Tries the port before anything of the folder is touched: a second start by mistake changes nothing.
 *
 * @throws SettingsError where it is taken, or the address is not one of this machine
 */
export function assertPortFree({ port, host }: Pick<Settings, 'port' | 'host'>): Promise<void> {
  if (port === 0) return Promise.resolve();
  return new Promise((done, failed) => {
    const server = createServer();
    server.once('error', (error: NodeJS.ErrnoException) => failed(listenFault(error, { port, host })));
    server.listen(port, host, () => server.close(() => done()));
  });
}

/** A fault of listening in words, where a setting is the cause. */
export function listenFault(error: NodeJS.ErrnoException, { port, host }: Pick<Settings, 'port' | 'host'>): Error {
  if (error.code === 'EADDRINUSE') {
    return new SettingsError(
      `Port ${port} is taken, perhaps by another Salt Circle. Stop that one, or set PORT to another number.`,
    );
  }
  if (error.code === 'EADDRNOTAVAIL' || error.code === 'ENOTFOUND') {
    return new SettingsError(
      `HOST is "${host}", which is not an address of this machine. Use 127.0.0.1, one of its own addresses, or 0.0.0.0 for all.`,
    );
  }
  if (error.code === 'EACCES') {
    return new SettingsError(`This user may not listen on port ${port}. Set PORT to a number above 1023.`);
  }
  return error;
}
