import type { OnApplicationShutdown } from '@nestjs/common';
import type { IdentityFind } from '@salt-circle/core';
import type { Answer } from '../bytes/answered.js';
import { compiled, Threads } from '../jobs/threads.js';
import type { Converted } from './worker/converted.js';
import type { Inspected } from './worker/inspect.js';
import type { ConvertTask, InspectTask, NamesTask } from './worker/worker.js';

export interface WorkLimits {
  /** Milliseconds. */
  readonly inspect: number;
  readonly convert: number;
  /** Megabytes of the thread's own memory. */
  readonly memory: number;
}

export const WORK_LIMITS: WorkLimits = { inspect: 60_000, convert: 240_000, memory: 768 };

/**
 * Looks into files in threads of their own. Whatever a file makes a reader do, it can at most end its thread: the
 * server goes on answering. Looking at what has just been uploaded does not wait behind long conversions.
 */
export class FileWorkers implements OnApplicationShutdown {
  readonly #inspecting: Threads;
  readonly #converting: Threads;
  readonly #searching: Threads;

  /** Tests give other limits, and workers that misbehave. */
  constructor(
    private readonly limits: WorkLimits = WORK_LIMITS,
    worker: string = compiled('platform/files/worker/worker.js'),
  ) {
    this.#inspecting = new Threads(worker, limits);
    this.#converting = new Threads(worker, { memory: limits.memory, atOnce: 2 });
    this.#searching = new Threads(worker, { memory: limits.memory, atOnce: 2, inTurn: true });
  }

  inspect(task: InspectTask): Promise<Answer<Inspected>> {
    return this.#inspecting.run('inspectFile', task, { time: this.limits.inspect });
  }

  takePicture(task: { readonly path: string; readonly to: string }): Promise<Answer<null>> {
    return this.#inspecting.run('takePicture', task, { time: this.limits.inspect });
  }

  /** Looks for people in texts, which takes seconds in a book. @returns the finds of each text */
  findNames(task: NamesTask): Promise<IdentityFind[][]> {
    return this.#searching.run('findNames', task, { time: this.limits.inspect });
  }

  /** @param watch hears how far it is, 0 to 1 */
  convert(task: Omit<ConvertTask, 'port'>, watch: (share: number) => void): Promise<Answer<Converted>> {
    return this.#converting.run<Answer<Converted>, number>('convertFile', task, { time: this.limits.convert, watch });
  }

  async onApplicationShutdown(): Promise<void> {
    await Promise.all([this.#inspecting, this.#converting, this.#searching].map((threads) => threads.end()));
  }
}
