import type { OnApplicationShutdown } from '@nestjs/common';
import type { AllocationProgress } from '@salt-circle/core';
import { compiled, Threads } from '../../platform/jobs/threads.js';
import type { Solved, SolverTask } from './worker/solve.js';

/** Megabytes and milliseconds: far more than ten thousand people take, and an end all the same. */
const LIMITS = { memory: 4096, time: 15 * 60_000 };

/** Computes allocations in a thread of its own, one at a time. */
export class Solver implements OnApplicationShutdown {
  readonly #threads: Threads;

  /** @param worker path of a compiled file; tests give one that misbehaves */
  constructor(
    worker: string = compiled('features/allocation/worker/solve.js'),
    private readonly limits: typeof LIMITS = LIMITS,
  ) {
    this.#threads = new Threads(worker, limits);
  }

  /**
   * @param signal ends the thread at once
   * @throws the reason of the signal's abort as `AbortError`
   * @throws WorkStopped past the limits of time and memory
   */
  solve(task: SolverTask, watch: (progress: AllocationProgress) => void, signal?: AbortSignal): Promise<Solved> {
    const { time } = this.limits;
    return this.#threads.run<Solved, AllocationProgress>('solve', task, { time, watch, signal });
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#threads.end();
  }
}
