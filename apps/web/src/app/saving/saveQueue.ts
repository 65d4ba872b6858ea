import type { Problem } from '@salt-circle/contracts';

/** One thing that is saved as it is typed: an answer, a note, a draft, a plan. */
export interface PendingSave {
  /** Starts with the person's id, so that nobody's unsent work is sent by the next one at the same browser. */
  readonly key: string;
  readonly method: 'PUT' | 'DELETE';
  readonly url: string;
  readonly body: Readonly<Record<string, unknown>>;
  /** The revision of the server's copy that the body is based on. */
  readonly revision: number;
}

export type Sent =
  | { readonly outcome: 'saved'; readonly revision: number }
  | { readonly outcome: 'conflict'; readonly problem: Problem }
  | { readonly outcome: 'refused'; readonly problem: Problem }
  | { readonly outcome: 'signed-out' }
  | { readonly outcome: 'offline' }
  /** Something answered, but it was not our server, or it could not do it now. */
  | { readonly outcome: 'unanswered' };

export type QueueState =
  | { readonly state: 'unsaved' | 'saving' | 'offline' | 'unanswered' | 'signed-out' }
  | { readonly state: 'saved'; readonly at: number }
  | { readonly state: 'refused' | 'conflict'; readonly problem: Problem };

/** What the queue needs from the world around it. */
export interface QueueSurroundings {
  readonly send: (save: PendingSave) => Promise<Sent>;
  readonly store: {
    readonly set: (save: PendingSave) => Promise<void>;
    readonly remove: (key: string) => Promise<void>;
    /** What no open tab goes on with; it is this tab's from now on. */
    readonly all: () => Promise<PendingSave[]>;
  };
  readonly onState: (key: string, state: QueueState) => void;
  readonly now: () => number;
}

/** Waits for a pause in typing this long, in milliseconds. */
export const PAUSE = 500;
/** After a failure, tries again after these many milliseconds, the last one over and over. */
export const RETRIES = [1_000, 3_000, 10_000, 30_000] as const;

interface Entry {
  save: PendingSave;
  timer: ReturnType<typeof setTimeout> | null;
  sending: Promise<void> | null;
  failures: number;
  /** Waits for a person: refused, in conflict, or signed out. */
  held: boolean;
}

/**
 * Sends what is typed, keeps a copy in the browser until the server has confirmed it, tries again when the
 * connection is back, and stops at a conflict: nothing is overwritten without somebody having chosen.
 */
export class SaveQueue {
  readonly #entries = new Map<string, Entry>();
  readonly #revisions = new Map<string, number>();

  constructor(private readonly world: QueueSurroundings) {}

  /** Takes up what an earlier visit of the same person could not send. */
  async load(personId: string): Promise<void> {
    for (const save of await this.world.store.all()) {
      if (!save.key.startsWith(`${personId}:`) || this.#entries.has(save.key)) continue;
      this.#entries.set(save.key, { save, timer: null, sending: null, failures: 0, held: false });
      this.world.onState(save.key, { state: 'unsaved' });
      this.#schedule(save.key, 0);
    }
  }

  /** Unsent work under a key, to be shown instead of the server's copy. */
  pending(key: string): PendingSave | null {
    return this.#entries.get(key)?.save ?? null;
  }

  pendingWithPrefix(prefix: string): PendingSave[] {
    return [...this.#entries.values()].map(({ save }) => save).filter(({ key }) => key.startsWith(prefix));
  }

  /** What the server was last known to hold; the newer of what was read and what was saved since. */
  revision(key: string, read: number): number {
    return Math.max(read, this.#revisions.get(key) ?? 0);
  }

  put(save: PendingSave): void {
    const { key } = save;
    const known = this.#entries.get(key);
    const entry = known ?? { save, timer: null, sending: null, failures: 0, held: false };
    // While a conflict waits for a choice, typing goes on but is not sent: its base stays the old one.
    const base =
      known === undefined
        ? this.revision(key, save.revision)
        : Math.max(known.save.revision, this.#revisions.get(key) ?? 0);
    entry.save = { ...save, revision: base };
    this.#entries.set(key, entry);
    void this.world.store.set(entry.save);
    if (entry.held && this.#inConflict.has(key)) return;
    entry.held = false;
    this.world.onState(key, { state: 'unsaved' });
    this.#schedule(key, PAUSE);
  }

  readonly #inConflict = new Set<string>();

  /** Sends everything under the prefix now. @returns whether all of it has been confirmed */
  async flush(prefix: string): Promise<boolean> {
    const keys = [...this.#entries.keys()].filter((key) => key.startsWith(prefix));
    for (const key of keys) await this.#sendUntilQuiet(key);
    return !keys.some((key) => this.#entries.has(key));
  }

  /** Keeps this browser's text over the server's: sends it again on top of what the server holds. */
  keepMine(key: string, serverRevision: number): void {
    const entry = this.#entries.get(key);
    if (entry === undefined) return;
    this.#inConflict.delete(key);
    this.#revisions.set(key, serverRevision);
    entry.save = { ...entry.save, revision: serverRevision };
    entry.held = false;
    void this.world.store.set(entry.save);
    this.world.onState(key, { state: 'unsaved' });
    this.#schedule(key, 0);
  }

  /** Gives up this browser's text for the server's. */
  takeTheirs(key: string, serverRevision: number): void {
    const entry = this.#entries.get(key);
    if (entry?.timer != null) clearTimeout(entry.timer);
    this.#inConflict.delete(key);
    this.#entries.delete(key);
    this.#revisions.set(key, serverRevision);
    void this.world.store.remove(key);
    this.world.onState(key, { state: 'saved', at: this.world.now() });
  }

  /** After signing in again, or when the connection is back. */
  retryAll(): void {
    for (const [key, entry] of this.#entries) {
      if (this.#inConflict.has(key)) continue;
      entry.held = false;
      entry.failures = 0;
      this.#schedule(key, 0);
    }
  }

  /** Lets go of everything, for somebody who signs out. */
  clear(): void {
    for (const { timer } of this.#entries.values()) if (timer !== null) clearTimeout(timer);
    this.#entries.clear();
    this.#revisions.clear();
    this.#inConflict.clear();
  }

  get hasUnsent(): boolean {
    return this.#entries.size > 0;
  }

  #schedule(key: string, delay: number): void {
    const entry = this.#entries.get(key);
    if (entry === undefined || entry.held) return;
    if (entry.timer !== null) clearTimeout(entry.timer);
    entry.timer = setTimeout(() => void this.#sendUntilQuiet(key), delay);
  }

  /** One request at a time per key; what was typed meanwhile goes out right after. */
  async #sendUntilQuiet(key: string): Promise<void> {
    const entry = this.#entries.get(key);
    if (entry === undefined || entry.held) return;
    if (entry.timer !== null) clearTimeout(entry.timer);
    entry.timer = null;
    if (entry.sending !== null) await entry.sending;
    if (!this.#entries.has(key)) return;
    entry.sending ??= this.#sendOnce(entry).finally(() => (entry.sending = null));
    await entry.sending;
    if (this.#entries.get(key) === entry && entry.failures === 0 && !entry.held) await this.#sendUntilQuiet(key);
  }

  async #sendOnce(entry: Entry): Promise<void> {
    const sent = entry.save;
    const { key } = sent;
    this.world.onState(key, { state: 'saving' });
    // A fault of our own must not leave it at "saving" for good.
    const result = await this.world.send(sent).catch((): Sent => ({ outcome: 'unanswered' }));
    switch (result.outcome) {
      case 'saved':
        return this.#confirmed(entry, sent, result.revision);
      case 'offline':
      case 'unanswered':
        this.world.onState(key, { state: result.outcome });
        entry.failures += 1;
        this.#schedule(key, RETRIES[Math.min(entry.failures, RETRIES.length) - 1] as number);
        return;
      case 'signed-out':
        entry.held = true;
        this.world.onState(key, { state: 'signed-out' });
        return;
      default:
        entry.held = true;
        if (result.outcome === 'conflict') this.#inConflict.add(key);
        this.world.onState(key, { state: result.outcome, problem: result.problem });
    }
  }

  #confirmed(entry: Entry, sent: PendingSave, revision: number): void {
    const { key } = sent;
    entry.failures = 0;
    this.#revisions.set(key, revision);
    if (entry.save !== sent) {
      entry.save = { ...entry.save, revision };
      void this.world.store.set(entry.save);
      return;
    }
    this.#entries.delete(key);
    void this.world.store.remove(key);
    this.world.onState(key, { state: 'saved', at: this.world.now() });
  }
}
