/** Work that is done again and again, one round at a time. A round that fails is told of; the next one is made all the same. */
export class Rounds<Result = void> {
  #timer: NodeJS.Timeout | null = null;
  #last: Promise<unknown> = Promise.resolve();
  #open = 0;
  readonly #end = new AbortController();

  /** @param work hears by the signal that the server ends, and stops at the next point at which nothing is half done */
  constructor(
    private readonly work: (ending: AbortSignal) => Promise<Result>,
    private readonly onFault: (error: Error) => void,
  ) {}

  /** @param every milliseconds; the first round is made after as many; none while one is going on */
  begin(every: number): void {
    this.#timer = setInterval(() => {
      if (this.#open === 0) void this.make().catch(() => undefined);
    }, every);
    // What is done now and then keeps no process alive.
    this.#timer.unref();
  }

  /** Makes a round now, after the one that is going on. Rejects as the work does. */
  make(): Promise<Result> {
    this.#open += 1;
    const round = this.#last.then(() => {
      this.#end.signal.throwIfAborted();
      return this.work(this.#end.signal);
    });
    this.#last = round
      .catch((error: Error) => {
        if (!this.#end.signal.aborted) this.onFault(error);
      })
      .finally(() => (this.#open -= 1));
    return round;
  }

  /** Tells the round that is going on to stop, and waits for it; no other one follows. */
  async end(): Promise<void> {
    if (this.#timer !== null) clearInterval(this.#timer);
    this.#end.abort(new DOMException('the server ends', 'AbortError'));
    await this.#last;
  }
}
