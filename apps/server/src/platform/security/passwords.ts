import { hash, verify } from '@node-rs/argon2';
import type { LimitFunction } from 'p-limit';
import { ProblemError } from '../problems/problem-error.js';
import { say } from '../../words/security.js';

/** argon2id with the second recommended setting of RFC 9106, section 4: 64 MiB, 3 passes; one lane of work here. */
const SETTINGS = { memoryCost: 65_536, timeCost: 3, parallelism: 1 };

/** Digests at once: each takes a thread that files are read by as well, and 64 MiB. */
const AT_ONCE = 2;
/** Digests that wait for their turn, a tenth of a second each; whoever comes later is told to try again. */
const MOST_WAITING = 100;

let turns: Promise<LimitFunction> | null = null;

/** @throws ProblemError `too-busy` when too many wait */
async function inTurn<T>(work: () => Promise<T>): Promise<T> {
  turns ??= import('p-limit').then(({ default: pLimit }) => pLimit(AT_ONCE));
  const limit = await turns;
  if (limit.pendingCount >= MOST_WAITING) {
    throw new ProblemError({
      code: 'too-busy',
      sentence: say('manySigningIn'),
      whatToDo: say('waitTenSeconds'),
    });
  }
  return limit(work);
}

/** With a salt of its own; the outcome, in PHC string format, names its parameters. */
export function hashPassword(password: string): Promise<string> {
  return inTurn(() => hash(password.normalize('NFKC'), SETTINGS));
}

/** Compared with when there is no account, so that the answer takes as long as with one. Made when it is first wanted. */
let nobody: Promise<string> | null = null;

/** @param stored what {@link hashPassword} made, or null for nobody: that is never right, and takes as long to find out */
export async function passwordFits(stored: string | null, password: string): Promise<boolean> {
  const against = stored ?? (await (nobody ??= hash('nobody has this password', SETTINGS)));
  const fits = await inTurn(() => verify(against, password.normalize('NFKC')));
  return fits && stored !== null;
}
