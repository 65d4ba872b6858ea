import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { ruleOf } from '../../queries/grade-rule.js';
import { Database } from '../../platform/database/database.js';
import { Evidence, type AllEvidence } from './evidence.service.js';
import type { Around } from './person-evidence.js';

const MINUTE = 60_000;
/** Exchanges whose evidence is kept. */
const KEPT = 20;

/**
 * What everybody did, worked out once for all who look at it: staff with the board open, and, when grades are released, a whole course at
 * once. Kept until something changes in the exchange, and no longer than the minute, since due times pass without anybody doing anything.
 */
@Injectable()
export class KeptEvidence implements OnApplicationShutdown {
  readonly #kept = new Map<string, { readonly minute: number; readonly evidence: Promise<AllEvidence> }>();
  readonly #stop: () => void;

  constructor(
    private readonly database: Database,
    private readonly evidence: Evidence,
  ) {
    this.#stop = this.database.changes.listen((changes) => {
      for (const { exchangeId } of changes) {
        // What concerns the whole course may concern any of its exchanges.
        if (exchangeId === null) this.#kept.clear();
        else this.#kept.delete(exchangeId);
      }
    });
  }

  of({ exchange, now }: Around): Promise<AllEvidence> {
    const minute = Math.floor(now / MINUTE);
    const known = this.#kept.get(exchange.id);
    if (known?.minute === minute) return known.evidence;
    const evidence = this.evidence.of(this.database.read, { exchange, now }, ruleOf(exchange));
    this.#kept.delete(exchange.id);
    this.#kept.set(exchange.id, { minute, evidence });
    for (const [oldest] of this.#kept) if (this.#kept.size > KEPT) this.#kept.delete(oldest);
    // What failed is tried again the next time.
    evidence.catch(() => this.#kept.delete(exchange.id));
    return evidence;
  }

  onApplicationShutdown(): void {
    this.#stop();
  }
}
