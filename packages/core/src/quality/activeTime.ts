/** Milliseconds after something was done for which somebody is taken to be still at it, reading say. */
export const AT_WORK = 60_000;

/**
 * How long somebody has been at work on a page: while it was in sight, and something was done within a minute. A page left open
 * over lunch counts a minute of it. Times are milliseconds of one clock that does not go back.
 */
export class ActiveTime {
  #visible: boolean;
  /** Until when what was done counts; null before anything was. */
  #until: number | null = null;
  /** Up to when time has been counted. */
  #counted: number;
  #total = 0;

  constructor(now: number, visible: boolean) {
    this.#counted = now;
    this.#visible = visible;
  }

  /** Something was done: a key, a press, a scroll. */
  done(now: number): void {
    this.#count(now);
    if (this.#visible) this.#until = now + AT_WORK;
  }

  /** The page came into sight, or went out of it; who looks away is not at work. */
  seen(visible: boolean, now: number): void {
    this.#count(now);
    this.#visible = visible;
    if (!visible) this.#until = null;
  }

  /** @returns whole seconds since they were last taken; what is left of one is kept */
  take(now: number): number {
    this.#count(now);
    const seconds = Math.floor(this.#total / 1_000);
    this.#total -= seconds * 1_000;
    return seconds;
  }

  #count(now: number): void {
    if (this.#visible && this.#until !== null) {
      this.#total += Math.max(0, Math.min(now, this.#until) - this.#counted);
    }
    this.#counted = Math.max(this.#counted, now);
  }
}
