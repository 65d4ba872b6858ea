import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { fileURLToPath } from 'node:url';
import type { OnApplicationShutdown } from '@nestjs/common';
import type { AllocationProgress } from '@salt-circle/core';
import { Piscina } from 'piscina';
import type { Solved, SolverTask } from './worker/solve.js';

/** The compiled worker: threads load plain JavaScript, in tests as well. */
const WORKER = fileURLToPath(new URL('../../dist/allocation/worker/solve.js', import.meta.url));

/** Computes allocations in a thread of its own, so that the server goes on answering; one at a time. */
export class Solver implements OnApplicationShutdown {
  readonly #threads: Piscina;

  constructor(worker: string = WORKER) {
    this.#threads = new Piscina({ filename: worker, minThreads: 0, maxThreads: 1, idleTimeout: 30_000 });
  }

  /**
   * @param signal ends the thread at once
   * @throws the reason of the signal's abort as `AbortError`
   */
  async solve(task: SolverTask, watch: (progress: AllocationProgress) => void, signal?: AbortSignal): Promise<Solved> {
    const { port1, port2 } = new MessageChannel();
    port1.on('message', watch);
    try {
      const transferList = [port2] as MessagePort[];
      return (await this.#threads.run(
        { ...task, port: port2 },
        { name: 'solve', signal: signal ?? null, transferList: transferList as never },
      )) as Solved;
    } finally {
      port1.close();
    }
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#threads.destroy();
  }
}
