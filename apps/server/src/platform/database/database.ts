import { setTimeout as pause } from 'node:timers/promises';
import { AsyncLocalStorage } from 'node:async_hooks';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { DataSource, EntityManager } from 'typeorm';
import { Changes, type Change } from '../changes/changes.js';
import type { Clock } from '../clock/clock.js';
import { SettingsError, type MailSettings } from '../config/settings.js';
import { lockedByOthers, storeFull } from '../problems/storage.js';
import { Person } from '../../model/person.js';
import { Ids } from '../ids/ids.js';
import type { EventHandler } from '../events/event-handler.js';
import type { DomainEvent } from '../events/domain-event.js';
import { changesOf } from '../events/topics-of.js';
import { readerSource, writerSource } from './data-source.js';
import { MIGRATIONS } from './migrations/index.js';

/** What the database works with beside its files. */
export interface DatabaseSetting {
  readonly mail: MailSettings;
  /** Side concerns of what happens, in the order in which they run. */
  readonly handlers: readonly EventHandler[];
  /** Of what handlers write; random ones, where none are given. */
  readonly ids?: Ids;
}

const RANDOM = new Ids();

/** Milliseconds for which a transaction waits for somebody else's lock, from when it was asked for; and between two tries. */
const LONGEST_WAIT = 10_000;
const TRY_EVERY = 50;

const codeOf = (error: unknown) =>
  (error as { driverError?: { code?: string } } | null)?.driverError?.code ??
  (error as { code?: string } | null)?.code ??
  '';

/** Tries again while somebody else has locked the database, and lets the process go on meanwhile. Nothing has been done of what is tried again. */
async function untilFree<T>(work: () => Promise<T>, until = performance.now() + LONGEST_WAIT): Promise<T> {
  for (;;) {
    try {
      return await work();
    } catch (error) {
      const code = codeOf(error);
      if (code === 'SQLITE_FULL') throw storeFull(error);
      if (!code.startsWith('SQLITE_BUSY')) throw error;
      if (performance.now() >= until) throw lockedByOthers(error);
      await pause(TRY_EVERY);
    }
  }
}

/**
 * A folder that a newer version has changed is left alone: an older one would misread it, and clean up what it does not know.
 *
 * @throws SettingsError
 */
async function assertKnown(writer: DataSource): Promise<void> {
  const [table] = await writer.query<unknown[]>(
    "SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = 'migrations'",
  );
  if (table === undefined) return;
  const done = await writer.query<Array<{ name: string }>>('SELECT name FROM migrations');
  const known = new Set(MIGRATIONS.map(({ name }) => name));
  const unknown = done.filter(({ name }) => !known.has(name));
  if (unknown.length === 0) return;
  throw new SettingsError(
    `This data folder was used by a newer Salt Circle (${unknown.length === 1 ? '1 change' : `${unknown.length} changes`} of its database are not known here, the last one ${unknown.at(-1)?.name}). Start that version again, or restore a backup from before the upgrade.`,
  );
}

/** For commands that only add rows. */
const ALONE: DatabaseSetting = { mail: { publicUrl: 'http://localhost:4600', sendsMail: false }, handlers: [] };

/**
 * A transaction of SQLite takes the lock for writing with its first change. If a command beside the server has written since it
 * began to read, it is refused then and there, whatever it would wait; so the first statement changes nothing, and waits.
 */
async function takeLock(manager: EntityManager): Promise<void> {
  await manager.createQueryBuilder().delete().from(Person).where('0').execute();
}

/** Tells, within a transaction, what happened in it. */
export interface EmitEvent {
  (event: DomainEvent): void;
  /** For what pages show but nobody needs to know later: typed text that was saved, say. */
  readonly quietly: (change: Change) => void;
}

/**
 * The one place for transactions. Writing work runs one at a time: all of it shares the single writing
 * connection, on which two transactions at once would run into each other. Reading goes by a
 * connection of its own and is never blocked.
 */
@Injectable()
export class Database implements OnApplicationShutdown {
  readonly changes = new Changes();
  readonly #transaction = new AsyncLocalStorage<EntityManager>();
  #last: Promise<unknown> = Promise.resolve();
  #stamp = 0;
  #full = false;

  private constructor(
    private readonly writer: DataSource,
    private readonly reader: DataSource,
    private readonly clock: Clock,
    private readonly setting: DatabaseSetting,
  ) {}

  /** Opens the database in `folder`, creates and migrates it where needed. */
  static async open(folder: string, clock: Clock, setting: DatabaseSetting = ALONE): Promise<Database> {
    const writer = await untilFree(() => writerSource(folder).initialize());
    try {
      await assertKnown(writer);
      await untilFree(() => writer.runMigrations());
    } catch (error) {
      await writer.destroy();
      throw error;
    }
    const reader = await readerSource(folder).initialize();
    return new Database(writer, reader, clock, setting);
  }

  get mail(): MailSettings {
    return this.setting.mail;
  }

  /** For reading. Within a transaction it is that transaction's: what is decided on is what is changed. */
  get read(): EntityManager {
    return this.#transaction.getStore() ?? this.reader.manager;
  }

  /**
   * Runs `work` in one transaction: all of it is kept, or, when it throws, nothing.
   * What it reports through `happened` is handled in the same transaction, and pages hear of it once it is kept.
   *
   * @throws Error for a transaction within another one: it would wait for itself
   * @throws ProblemError `too-busy` when something beside the server holds the database for longer than ten seconds, `store-full` when the
   *   disk is full
   */
  write<T>(work: (manager: EntityManager, emit: EmitEvent) => Promise<T>): Promise<T> {
    if (this.#transaction.getStore() !== undefined) throw new Error('a transaction cannot wait for one within it');
    const until = performance.now() + LONGEST_WAIT;
    const run = this.#last.then(() => untilFree(() => this.#transact(work), until));
    this.#last = run.catch(() => undefined);
    return run;
  }

  /** Grows with every call, over restarts as well: of two answers, the one that was stamped later is the newer one. */
  stamp(): number {
    this.#stamp = Math.max(this.#stamp + 1, Date.now());
    return this.#stamp;
  }

  /** For what happened without changing anything else. */
  report(event: DomainEvent): Promise<void> {
    return this.write((_, emit) => Promise.resolve(emit(event)));
  }

  /** The last transaction failed because the disk was full. */
  get isFull(): boolean {
    return this.#full;
  }

  async #kept<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    try {
      const result = await this.writer.transaction(work);
      this.#full = false;
      return result;
    } catch (error) {
      this.#full ||= codeOf(error) === 'SQLITE_FULL';
      throw error;
    }
  }

  async #transact<T>(work: (manager: EntityManager, emit: EmitEvent) => Promise<T>): Promise<T> {
    const events: DomainEvent[] = [];
    const quiet: Change[] = [];
    const emit: EmitEvent = Object.assign((one: DomainEvent) => void events.push(one), {
      quietly: (change: Change) => void quiet.push(change),
    });
    const result = await this.#kept((manager) =>
      this.#transaction.run(manager, async () => {
        await takeLock(manager);
        const done = await work(manager, emit);
        const context = { now: this.clock.now(), mail: this.mail, ids: this.setting.ids ?? RANDOM };
        if (events.length > 0) {
          for (const handle of this.setting.handlers) await handle(events, manager, context);
        }
        return done;
      }),
    );
    this.changes.tell([...events.flatMap(changesOf), ...quiet]);
    return result;
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#last;
    await this.reader.destroy();
    await this.writer.destroy();
    // Node keeps every one that was ever used, and asks each of them at every promise, for as long as the process lives.
    this.#transaction.disable();
  }
}
