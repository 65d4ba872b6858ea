import { useEffect } from 'react';

/** The longest time a timer of the browser can wait, in milliseconds. */
const LONGEST = 2 ** 31 - 1;
/** The clocks of server and browser differ by a little. */
const AFTER = 1_000;

/**
 * Does something when the application's time has come to an instant: nobody tells of what changes with time alone.
 * @param at in ISO 8601, or null for never
 * @param now the application's time, in milliseconds
 */
export function useAt(at: string | null, now: number, work: () => unknown): void {
  const left = at === null ? Infinity : Date.parse(at) - now;
  useEffect(() => {
    if (left < 0 || left + AFTER > LONGEST) return;
    const timer = setTimeout(work, left + AFTER);
    return () => clearTimeout(timer);
  }, [left, work]);
}
