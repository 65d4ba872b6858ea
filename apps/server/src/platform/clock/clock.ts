import { Injectable } from '@nestjs/common';

/**
 * The application's time. Everything that a date of an exchange decides asks this and nothing else.
 * Demo and tests move it; sessions and rate limits follow `real()`, so that moving the time signs nobody out.
 */
@Injectable()
export class Clock {
  #offset = 0;

  /** Milliseconds since 1970-01-01T00:00Z. */
  now(): number {
    return Date.now() + this.#offset;
  }

  real(): number {
    return Date.now();
  }

  get offset(): number {
    return this.#offset;
  }

  /** @param offset milliseconds added to the real time; whole ones, as the database keeps them */
  move(offset: number): void {
    this.#offset = Math.round(offset);
  }
}
