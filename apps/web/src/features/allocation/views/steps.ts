/** How far a key moves on the board. */
export interface Step {
  readonly rows: number;
  readonly columns: number;
}

const PAGE = 10;

const STEPS: Readonly<Record<string, Step>> = {
  ArrowUp: { rows: -1, columns: 0 },
  ArrowDown: { rows: 1, columns: 0 },
  ArrowLeft: { rows: 0, columns: -1 },
  ArrowRight: { rows: 0, columns: 1 },
  PageUp: { rows: -PAGE, columns: 0 },
  PageDown: { rows: PAGE, columns: 0 },
  Home: { rows: 0, columns: -Infinity },
  End: { rows: 0, columns: Infinity },
};

/** Null for a key that moves nothing. */
export function stepOf(key: string): Step | null {
  return STEPS[key] ?? null;
}

/** The place after a step, within `0` to `count - 1`. */
export function within(place: number, count: number): number {
  return Math.max(0, Math.min(count - 1, place));
}
