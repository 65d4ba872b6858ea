/** Work that is done again and again, one round at a time. A round that fails is told of; the next one is made all the same. */
export class Rounds<Result = void> {
  #timer: NodeJS.Timeout | null = null;
  #last: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly work: () => Promise<Result>,
    private readonly onFault: (error: Error) => void,
  ) {}

  /** @param every milliseconds; the first round is made after as many */
  begin(every: number): void {
    this.#timer = setInterval(() => void this.make(), every);
    // What is done now and then keeps no process alive.
    this.#timer.unref();
  }

  /** Makes a round now, after the one that is going on. Rejects as the work does. */
  make(): Promise<Result> {
    const round = this.#last.then(() => this.work());
    this.#last = round.catch((error: Error) => this.onFault(error));
    return round;
  }

  /** Waits for the round that is going on; no other one follows by itself. */
  async end(): Promise<void> {
    if (this.#timer !== null) clearInterval(this.#timer);
    await this.#last;
  }
}
