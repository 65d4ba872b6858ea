/** A source of numbers in [0, 1). Passed in, so that the same seed gives the same outcome. */
export type Random = () => number;

/**
 * The small generator mulberry32 (public domain, Tommy Ettinger): one 32-bit state, period 2^32,
 * enough for shuffling some thousand people; not for secrets.
 */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** Fisher–Yates; returns a new array. */
export function shuffled<T>(list: readonly T[], random: Random): T[] {
  const result = [...list];
  for (let last = result.length - 1; last > 0; last -= 1) {
    const pick = Math.floor(random() * (last + 1));
    [result[last], result[pick]] = [result[pick] as T, result[last] as T];
  }
  return result;
}
