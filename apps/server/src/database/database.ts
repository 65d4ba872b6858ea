import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { DataSource, EntityManager } from 'typeorm';
import type { Clock } from '../clock/clock.js';
import { Ids } from '../ids/ids.js';
import type { MailSettings } from '../mail/queue-mail.js';
import { HAPPENING_HANDLERS } from '../record/handlers.js';
import type { Happening } from '../record/happening.js';
import { readerSource, writerSource } from './data-source.js';

/** For commands and tests that send no mail. */
const NO_MAIL: MailSettings = { publicUrl: 'http://localhost:4600', sendsMail: false };

export type Report = (happening: Happening) => void;

/**
 * The one place for transactions. Writing work runs one at a time: all of it shares the single writing
 * connection, on which two transactions at once would run into each other. Reading goes by a
 * connection of its own and is never blocked.
 */
@Injectable()
export class Database implements OnApplicationShutdown {
  readonly #ids = new Ids();
  #last: Promise<unknown> = Promise.resolve();

  private constructor(
    private readonly writer: DataSource,
    private readonly reader: DataSource,
    private readonly clock: Clock,
    readonly mail: MailSettings,
  ) {}

  /** Opens the database in `folder`, creates and migrates it where needed. */
  static async open(folder: string, clock: Clock, mail: MailSettings = NO_MAIL): Promise<Database> {
    const writer = await writerSource(folder).initialize();
    await writer.runMigrations();
    const reader = await readerSource(folder).initialize();
    return new Database(writer, reader, clock, mail);
  }

  get read(): EntityManager {
    return this.reader.manager;
  }

  /**
   * Runs `work` in one transaction: all of it is kept, or, when it throws, nothing.
   * What it reports through `happened` is handled in the same transaction.
   */
  write<T>(work: (manager: EntityManager, happened: Report) => Promise<T>): Promise<T> {
    const run = this.#last.then(() => this.#transact(work));
    this.#last = run.catch(() => undefined);
    return run;
  }

  /** For what happened without changing anything else. */
  report(happening: Happening): Promise<void> {
    return this.write((_, happened) => Promise.resolve(happened(happening)));
  }

  #transact<T>(work: (manager: EntityManager, happened: Report) => Promise<T>): Promise<T> {
    return this.writer.transaction(async (manager) => {
      const happenings: Happening[] = [];
      const result = await work(manager, (happening) => happenings.push(happening));
      if (happenings.length > 0) {
        const context = { now: this.clock.now(), mail: this.mail, ids: this.#ids };
        for (const handle of HAPPENING_HANDLERS) await handle(happenings, manager, context);
      }
      return result;
    });
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#last;
    await this.reader.destroy();
    await this.writer.destroy();
  }
}
