import { say } from '../../words/problems.js';
import { ProblemError } from '../problems/problem-error.js';

/** Of one person: tasks that wait beside the one that runs. Whoever asks for more is told to wait. */
const MOST_WAITING = 2;

interface Waiting {
  readonly by: string | null;
  readonly begin: () => void;
}

/** Who may begin: as many at once as there are threads, and of one person one at a time, each person before anybody has a second turn. */
export class Turns {
  readonly #waiting: Waiting[] = [];
  /** Tasks that run, by person; the server's own are under null. */
  readonly #running = new Map<string | null, number>();
  /** When somebody last had a turn: a count that only grows. */
  readonly #last = new Map<string, number>();
  #turn = 0;

  constructor(private readonly atOnce: number) {}

  /**
   * Waits for a turn.
   *
   * @param by null for the server's own work, which is not bounded
   * @returns what gives the turn back
   * @throws the signal's reason when it is aborted first
   * @throws ProblemError `too-busy`
   */
  take(by: string | null, off: AbortSignal): Promise<() => void> {
    if (off.aborted) return Promise.reject(off.reason as Error);
    if (by !== null && this.#waiting.filter((one) => one.by === by).length >= MOST_WAITING) {
      const problem = { code: 'too-busy', sentence: say('ownWorkRunning'), whatToDo: say('ownWorkRunningWhatToDo') };
      return Promise.reject(new ProblemError(problem as ConstructorParameters<typeof ProblemError>[0]));
    }
    return new Promise((done, failed) => {
      const waiting: Waiting = {
        by,
        begin: () => {
          off.removeEventListener('abort', leave);
          done(() => this.#give(by));
        },
      };
      const leave = () => {
        const at = this.#waiting.indexOf(waiting);
        if (at >= 0) this.#waiting.splice(at, 1);
        failed(off.reason as Error);
      };
      off.addEventListener('abort', leave, { once: true });
      this.#waiting.push(waiting);
      this.#next();
    });
  }

  #give(by: string | null): void {
    const left = (this.#running.get(by) ?? 1) - 1;
    if (left === 0) this.#running.delete(by);
    else this.#running.set(by, left);
    this.#next();
  }

  #next(): void {
    const busy = [...this.#running.values()].reduce((sum, count) => sum + count, 0);
    if (busy >= this.atOnce) return;
    const free = this.#waiting.filter(({ by }) => by === null || !this.#running.has(by));
    const turnOf = ({ by }: Waiting) => (by === null ? 0 : (this.#last.get(by) ?? 0));
    // The one whose last turn is longest ago; of several, who came first.
    const first = free.reduce<Waiting | null>((so, one) => (so === null || turnOf(one) < turnOf(so) ? one : so), null);
    if (first === null) return;
    this.#waiting.splice(this.#waiting.indexOf(first), 1);
    this.#running.set(first.by, (this.#running.get(first.by) ?? 0) + 1);
    if (first.by !== null) {
      this.#last.delete(first.by);
      this.#last.set(first.by, (this.#turn += 1));
      // Who had a turn long ago counts like somebody who had none.
      if (this.#last.size > 10_000) this.#last.delete(this.#last.keys().next().value as string);
    }
    first.begin();
    this.#next();
  }
}
