import { createHash } from 'node:crypto';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { Adjusted, Rating } from '@salt-circle/core';
import { compiled, Threads } from '../../platform/jobs/threads.js';

/** Megabytes and milliseconds: what ten thousand people take, and an end all the same. */
const LIMITS = { memory: 4096, time: 15 * 60_000 };

/** Exchanges whose adjusted scores are kept in memory. */
const KEPT = 50;

/** Scores with severity taken out, worked out in a thread when ratings have changed since, and kept. */
@Injectable()
export class Adjusting implements OnApplicationShutdown {
  readonly #threads = new Threads(compiled('features/grades/worker/adjust.js'), LIMITS);
  readonly #kept = new Map<string, { readonly stamp: string; readonly adjusted: Promise<Adjusted> }>();

  async of(exchangeId: string, ratings: readonly Rating[]): Promise<Adjusted> {
    const stamp = createHash('sha256').update(JSON.stringify(ratings)).digest('base64url');
    const known = this.#kept.get(exchangeId);
    if (known?.stamp === stamp) return known.adjusted;
    const adjusted = this.#threads.run<Adjusted, never>('adjust', ratings, { time: LIMITS.time });
    this.#kept.delete(exchangeId);
    this.#kept.set(exchangeId, { stamp, adjusted });
    for (const [oldest] of this.#kept) if (this.#kept.size > KEPT) this.#kept.delete(oldest);
    try {
      return await adjusted;
    } catch (error) {
      // What failed is tried again the next time.
      this.#kept.delete(exchangeId);
      throw error;
    }
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#threads.end();
  }
}
