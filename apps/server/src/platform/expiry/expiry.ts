import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { Database } from '../database/database.js';
import { Rounds } from '../jobs/rounds.js';

const HOUR = 3_600_000;

/** Removes what has run out: a session or link that lets nobody in any more is not kept. */
@Injectable()
export class Expiry implements OnApplicationBootstrap, OnApplicationShutdown {
  readonly #logger = new Logger('expiry');
  readonly #removers: Array<(manager: EntityManager) => Promise<unknown>> = [];
  readonly #rounds = new Rounds(
    () => this.remove(),
    (error) => this.#logger.error(error.stack ?? 'what has run out could not be removed'),
  );

  constructor(private readonly database: Database) {}

  /** Each service that makes what runs out says how it is removed. */
  add(remove: (manager: EntityManager) => Promise<unknown>): void {
    this.#removers.push(remove);
  }

  onApplicationBootstrap(): void {
    this.#rounds.begin(HOUR);
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#rounds.end();
  }

  /** All of it, in one transaction. */
  async remove(): Promise<void> {
    await this.database.write(async (manager) => {
      for (const remove of this.#removers) await remove(manager);
    });
  }
}
