/** A part of a page or picture in shares of its width and height, 0 to 1, from its left upper corner. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** Shares under which a drag is taken for a press: a hand is never wholly still. */
const STILL = 0.008;
/** Digits kept: a ten-thousandth of a page is less than a pixel. */
const DIGITS = 4;

/** What was marked by going from one point to another; a point, without width and height, when they are the same. */
export function boxBetween(from: Point, to: Point): Box {
  const [a, b] = [within(from), within(to)];
  const width = Math.abs(a.x - b.x);
  const height = Math.abs(a.y - b.y);
  if (width < STILL && height < STILL) return rounded({ ...b, width: 0, height: 0 });
  return rounded({ x: Math.min(a.x, b.x), y: Math.min(a.y, b.y), width, height });
}

/** The box moved by shares of the page; it stays on the page and keeps its size. */
export function movedBox({ x, y, width, height }: Box, by: Point): Box {
  return rounded({ x: clamp(x + by.x, 1 - width), y: clamp(y + by.y, 1 - height), width, height });
}

/** The box with its right lower corner moved; it stays on the page, and shrinks to a point at most. */
export function grownBox({ x, y, width, height }: Box, by: Point): Box {
  return rounded({ x, y, width: clamp(width + by.x, 1 - x), height: clamp(height + by.y, 1 - y) });
}

/** Quarter turns clockwise by which a picture is shown. */
export type Turn = 0 | 1 | 2 | 3;

/** A point of a picture that is shown turned, as a point of the picture as it is. */
export function unturned({ x, y }: Point, turn: Turn): Point {
  switch (turn) {
    case 0:
      return { x, y };
    case 1:
      return { x: y, y: 1 - x };
    case 2:
      return { x: 1 - x, y: 1 - y };
    case 3:
      return { x: 1 - y, y: x };
  }
}

/** Whether a point is in the box; a box without a size is hit from a little way off. */
export function hits({ x, y, width, height }: Box, at: Point, reach: number): boolean {
  const near = width === 0 || height === 0 ? reach : 0;
  return at.x >= x - near && at.x <= x + width + near && at.y >= y - near && at.y <= y + height + near;
}

function within({ x, y }: Point): Point {
  return { x: clamp(x, 1), y: clamp(y, 1) };
}

function clamp(value: number, most: number): number {
  return Math.min(Math.max(value, 0), Math.max(most, 0));
}

/** Corners are rounded, not sizes, so that no box sticks out by a ten-thousandth. */
function rounded({ x, y, width, height }: Box): Box {
  const cut = (share: number) => Number(share.toFixed(DIGITS));
  const [left, top] = [cut(x), cut(y)];
  return { x: left, y: top, width: cut(cut(x + width) - left), height: cut(cut(y + height) - top) };
}
