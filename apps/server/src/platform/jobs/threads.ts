import { fileURLToPath } from 'node:url';
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { asking } from './asking.js';
import { Turns } from './turns.js';

/** Work that took too long or too much memory. Its thread has been ended, and the server goes on. */
export class WorkStopped extends Error {
  override readonly name = 'WorkStopped';
}

export interface ThreadLimits {
  /** Megabytes of the thread's own memory. */
  readonly memory: number;
  /** Threads at once; further tasks wait. 1 unless said otherwise. */
  readonly atOnce?: number;
  /**
   * For what somebody waits for: taken in turn by person, one at a time of each and two waiting, and called off when the person goes
   * away. What is done in the background is not.
   */
  readonly inTurn?: boolean;
}

export interface Run<Progress> {
  /** Milliseconds after which the task is ended; they begin when it does. Waiting for others is not charged to it. */
  readonly time: number;
  /** Hears of progress; the worker gets a port for it as `task.port`. */
  readonly watch?: (progress: Progress) => void;
  /** Ends the task at once. */
  readonly signal?: AbortSignal | undefined;
}

/** An idle thread is kept for so long, in milliseconds: its readers need not be loaded again. */
const IDLE = 30_000;

/** Where a worker's compiled file lies, whoever asks: threads load plain JavaScript, in tests as well. */
export function compiled(path: string): string {
  return fileURLToPath(new URL(`../../../dist/${path}`, import.meta.url));
}

/** Pools that outlive whoever made them, by worker and limits; null where each is ended with its maker. */
let kept: Map<string, Piscina> | null = null;

/** For tests, which make one application after the other: loading a worker's readers takes longer than most of what is tested. */
export function keepThreads(): void {
  kept ??= new Map();
}

/** Ends the threads that were kept. */
export async function endKeptThreads(): Promise<void> {
  const pools = [...(kept?.values() ?? [])];
  kept = null;
  await Promise.all(pools.map((pool) => pool.destroy()));
}

function poolFor(worker: string, limits: ThreadLimits): Piscina {
  const { memory, atOnce = 1 } = limits;
  const key = `${worker} ${memory} ${atOnce}`;
  const known = kept?.get(key);
  if (known !== undefined) return known;
  const pool = new Piscina({
    filename: worker,
    minThreads: 0,
    maxThreads: atOnce,
    idleTimeout: IDLE,
    resourceLimits: { maxOldGenerationSizeMb: memory },
  });
  kept?.set(key, pool);
  return pool;
}

/** Runs the exported functions of a worker's file in threads of their own, so that the server goes on answering. */
export class Threads {
  readonly #pool: Piscina;
  readonly #turns: Turns;
  readonly #inTurn: boolean;

  /** @param worker path of a compiled file */
  constructor(worker: string, limits: ThreadLimits) {
    this.#pool = poolFor(worker, limits);
    this.#turns = new Turns(limits.atOnce ?? 1);
    this.#inTurn = limits.inTurn === true;
  }

  /**
   * @param name of the exported function
   * @throws WorkStopped when the task took too long or too much memory
   * @throws the signal's `AbortError` when it was called off
   * @throws ProblemError `too-busy` for somebody who has one running and two waiting already
   */
  async run<Result, Progress = never>(
    name: string,
    task: object,
    { time, watch, signal }: Run<Progress>,
  ): Promise<Result> {
    const asked = this.#inTurn ? asking.getStore() : undefined;
    const off = [signal, asked?.gone].filter((one) => one !== undefined);
    const release = await this.#turns.take(asked?.by ?? null, AbortSignal.any(off));
    const late = AbortSignal.timeout(time);
    const end = AbortSignal.any([late, ...off]);
    const { port1, port2 } = new MessageChannel();
    if (watch !== undefined) port1.on('message', watch);
    const ports = watch === undefined ? [] : [port2];
    try {
      const given = watch === undefined ? task : { ...task, port: port2 };
      return (await this.#pool.run(given, { name, signal: end, transferList: ports as never })) as Result;
    } catch (error) {
      const { code, name: kind } = error as { code?: string; name?: string };
      if (off.some(({ aborted }) => aborted)) throw error;
      if (late.aborted || kind === 'AbortError' || code === 'ERR_WORKER_OUT_OF_MEMORY') {
        throw new WorkStopped('the work was stopped', { cause: error });
      }
      throw error;
    } finally {
      release();
      port1.close();
    }
  }

  async end(): Promise<void> {
    if (![...(kept?.values() ?? [])].includes(this.#pool)) await this.#pool.destroy();
  }
}
