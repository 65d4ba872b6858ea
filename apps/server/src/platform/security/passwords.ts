import { hash, verify } from '@node-rs/argon2';

/** argon2id with the second recommended setting of RFC 9106, section 4: 64 MiB, 3 passes; one lane of work here. */
const SETTINGS = { memoryCost: 65_536, timeCost: 3, parallelism: 1 };

/** With a salt of its own; the outcome, in PHC string format, names its parameters. */
export function hashPassword(password: string): Promise<string> {
  return hash(password.normalize('NFKC'), SETTINGS);
}

/** Compared with when there is no account, so that the answer takes as long as with one. */
const NOBODY = hashPassword('nobody has this password');

/** @param stored what {@link hashPassword} made, or null for nobody: that is never right, and takes as long to find out */
export async function passwordFits(stored: string | null, password: string): Promise<boolean> {
  const fits = await verify(stored ?? (await NOBODY), password.normalize('NFKC'));
  return fits && stored !== null;
}
