import { chmodSync, mkdirSync } from 'node:fs';

/** For the process: what it makes can be read and changed by its own user alone. */
const OWN_ONLY = 0o077;

/** The folder of all data, open to nobody else of this machine, whatever was made in it before. */
export function privateFolder(folder: string): void {
  process.umask(OWN_ONLY);
  mkdirSync(folder, { recursive: true });
  chmodSync(folder, 0o700);
}
