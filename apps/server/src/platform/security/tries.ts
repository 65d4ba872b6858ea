import { Injectable } from '@nestjs/common';
import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible';
import { ProblemError } from '../problems/problem-error.js';
import { say } from '../../words/security.js';

const MINUTE = 60;

/**
 * How many tries that come to nothing are taken. Seconds. From one address of the network come all students of a university, and
 * somebody's account may be tried from everywhere, to keep the person out; so both have room, and together they have little.
 */
const BOUNDS = {
  network: { points: 200, duration: 5 * MINUTE },
  account: { points: 50, duration: 15 * MINUTE },
  both: { points: 10, duration: 5 * MINUTE },
  browser: { points: 10, duration: 5 * MINUTE },
} as const;
type Bound = keyof typeof BOUNDS;

/** Who tries: an address of the network, and an account by the address that was typed. */
export interface Trying {
  readonly network: string;
  readonly account: string;
  /** A browser that has signed in with this account before: counted by itself alone. */
  readonly browser?: string | null;
}

/** Counts tries in memory: a wrong password costs no turn of the database. */
@Injectable()
export class Tries {
  readonly #limiters = Object.fromEntries(
    Object.entries(BOUNDS).map(([name, bound]) => [name, new RateLimiterMemory(bound)]),
  ) as Record<Bound, RateLimiterMemory>;

  /** Takes a try before it is looked at, so that many at once count as many. @throws ProblemError `too-many-tries` */
  async take(trying: Trying): Promise<void> {
    for (const [bound, key] of keysOf(trying)) {
      await this.#limiters[bound].consume(key).catch((refused: unknown) => {
        if (refused instanceof Error) throw refused;
        throw tooMany(refused as RateLimiterRes);
      });
    }
  }

  /** Somebody has shown by other means whose account it is. */
  async forgive(account: string): Promise<void> {
    await this.#limiters.account.delete(account);
  }

  /** It was right: gives the try back, and those before it. */
  async right(trying: Trying): Promise<void> {
    for (const [bound, key] of keysOf(trying)) {
      if (bound === 'network') await this.#limiters.network.reward(key);
      else await this.#limiters[bound].delete(key);
    }
  }
}

/**
 * In this order: the one with the fewest keys bounds how many of the others there can be, and what one network is refused counts no more
 * against the account.
 */
function keysOf({ network, account, browser }: Trying): ReadonlyArray<readonly [Bound, string]> {
  const plain = account.trim().toLowerCase();
  if (browser != null) return [['browser', `${browser} ${plain}`]];
  return [
    ['network', network],
    ['both', `${network} ${plain}`],
    ['account', plain],
  ];
}

function tooMany({ msBeforeNext }: RateLimiterRes): ProblemError {
  const minutes = Math.max(1, Math.ceil(msBeforeNext / 60_000));
  return new ProblemError({
    code: 'too-many-tries',
    sentence: say('thereWereTooManyTries'),
    whatToDo: say('waitMinutesThenTryAgain', { minutes }),
  });
}
