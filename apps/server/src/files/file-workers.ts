import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { fileURLToPath } from 'node:url';
import type { OnApplicationShutdown } from '@nestjs/common';
import type { IdentityFind } from '@salt-circle/core';
import { Piscina } from 'piscina';
import type { Converted } from './worker/converted.js';
import type { Inspected } from './worker/inspect.js';
import type { Answer, ConvertTask, InspectTask, NamesTask } from './worker/worker.js';

/** The compiled worker: threads load plain JavaScript, in tests as well. */
const WORKER = fileURLToPath(new URL('../../dist/files/worker/worker.js', import.meta.url));

export interface WorkLimits {
  /** Milliseconds. */
  readonly inspect: number;
  readonly convert: number;
  /** Megabytes of the thread's own memory. */
  readonly memory: number;
}

export const WORK_LIMITS: WorkLimits = { inspect: 60_000, convert: 240_000, memory: 768 };

/** Work that took too long or too much memory. The thread has been ended, and the server goes on. */
export class WorkStopped extends Error {
  override readonly name = 'WorkStopped';
}

/**
 * Looks into files in threads of their own. Whatever a file makes a reader do, it can at most end its thread: the
 * server goes on answering. Looking at what has just been uploaded does not wait behind long conversions.
 */
export class FileWorkers implements OnApplicationShutdown {
  readonly #inspecting: Piscina;
  readonly #converting: Piscina;
  readonly #searching: Piscina;

  /** Tests give other limits, and workers that misbehave. */
  constructor(
    private readonly limits: WorkLimits = WORK_LIMITS,
    worker: string = WORKER,
  ) {
    this.#inspecting = pool(limits, worker);
    this.#converting = pool(limits, worker);
    this.#searching = pool(limits, worker);
  }

  inspect(task: InspectTask): Promise<Answer<Inspected>> {
    return this.#run(this.#inspecting, 'inspectFile', task, this.limits.inspect);
  }

  takePicture(task: { readonly path: string; readonly to: string }): Promise<Answer<null>> {
    return this.#run(this.#inspecting, 'takePicture', task, this.limits.inspect);
  }

  /** Looks for people in texts, which takes seconds in a book. @returns the finds of each text */
  findNames(task: NamesTask): Promise<IdentityFind[][]> {
    return this.#run(this.#searching, 'findNames', task, this.limits.inspect);
  }

  async convert(task: Omit<ConvertTask, 'port'>, tell: (share: number) => void): Promise<Answer<Converted>> {
    const { port1, port2 } = new MessageChannel();
    port1.on('message', tell);
    try {
      return await this.#run(this.#converting, 'convertFile', { ...task, port: port2 }, this.limits.convert, [port2]);
    } finally {
      port1.close();
    }
  }

  async #run<T>(
    threads: Piscina,
    name: string,
    task: object,
    limit: number,
    transferList: MessagePort[] = [],
  ): Promise<T> {
    const end = new AbortController();
    const timer = setTimeout(() => end.abort(), limit);
    try {
      return (await threads.run(task, { name, signal: end.signal, transferList: transferList as never })) as T;
    } catch (error) {
      const { code, name: kind } = error as { code?: string; name?: string };
      if (end.signal.aborted || kind === 'AbortError' || code === 'ERR_WORKER_OUT_OF_MEMORY') {
        throw new WorkStopped('the work was stopped', { cause: error });
      }
      throw error;
    } finally {
      clearTimeout(timer);
    }
  }

  async onApplicationShutdown(): Promise<void> {
    await Promise.all([this.#inspecting, this.#converting, this.#searching].map((threads) => threads.destroy()));
  }
}

function pool({ memory }: WorkLimits, worker: string): Piscina {
  return new Piscina({
    filename: worker,
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: 30_000,
    resourceLimits: { maxOldGenerationSizeMb: memory },
  });
}
