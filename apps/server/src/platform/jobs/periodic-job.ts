import { Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { Settings } from '../config/settings.js';
import { Rounds } from './rounds.js';

interface Manner {
  /** By which the log knows it. */
  readonly name: string;
  /** Milliseconds between two rounds. */
  readonly every: number;
  /** What the log says of a fault that says nothing of itself. */
  readonly fault: string;
}

/** A service that looks now and then whether there is something to do, one round at a time; in tests, when it is asked to. */
export abstract class PeriodicJob implements OnApplicationBootstrap, OnApplicationShutdown {
  protected readonly logger: Logger;
  readonly #rounds: Rounds;

  protected constructor(
    private readonly manner: Manner,
    private readonly mode: Settings['mode'],
  ) {
    this.logger = new Logger(manner.name);
    this.#rounds = new Rounds(
      (ending) => this.round(ending),
      (error) => this.logger.error(error.stack ?? manner.fault),
    );
  }

  onApplicationBootstrap(): void {
    if (this.mode !== 'test') this.#rounds.begin(this.manner.every);
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#rounds.end();
  }

  /** Does what is to be done by now. */
  look(): Promise<void> {
    return this.#rounds.make();
  }

  protected abstract round(ending: AbortSignal): Promise<void>;
}
