import { hash, verify } from '@node-rs/argon2';

/** argon2id with the second recommended setting of RFC 9106, section 4: 64 MiB, 3 passes; one lane of work here. */
const SETTINGS = { memoryCost: 65_536, timeCost: 3, parallelism: 1 };

export function hashPassword(password: string): Promise<string> {
  return hash(password.normalize('NFKC'), SETTINGS);
}

/** Compared with when there is no account, so that the answer takes as long as with one. */
const NOBODY = hashPassword('nobody has this password');

export async function passwordFits(stored: string | null, password: string): Promise<boolean> {
  const fits = await verify(stored ?? (await NOBODY), password.normalize('NFKC'));
  return fits && stored !== null;
}
