import { within, type Step } from './steps.js';
import type { Cell } from './useCellFocus.js';

/** Pixels that the names take: of reviewers at the left, of drafts at the top. */
export const LABEL = 172;
export const HEAD = 128;

/** Where the matrix is scrolled to and lies in the window, in CSS pixels. */
export interface Frame {
  readonly left: number;
  readonly top: number;
  readonly scrollLeft: number;
  readonly scrollTop: number;
}

/** How large a matrix is, and what lies where in it. */
export class Geometry {
  /** Of a cell, in pixels: the more people, the smaller; never so small that a mark loses its shape. */
  readonly size: number;

  constructor(
    readonly rows: number,
    readonly columns: number,
  ) {
    const count = Math.max(rows, columns);
    this.size = count <= 30 ? 24 : count <= 60 ? 19 : 14;
  }

  get width(): number {
    return LABEL + this.columns * this.size;
  }

  get height(): number {
    return HEAD + this.rows * this.size;
  }

  leftOf(col: number): number {
    return LABEL + col * this.size;
  }

  topOf(row: number): number {
    return HEAD + row * this.size;
  }

  /** The cell at a point of the window; null over the names and past the edges. */
  cellAt(x: number, y: number, frame: Frame): Cell | null {
    if (x - frame.left < LABEL || y - frame.top < HEAD) return null;
    const col = Math.floor((x - frame.left + frame.scrollLeft - LABEL) / this.size);
    const row = Math.floor((y - frame.top + frame.scrollTop - HEAD) / this.size);
    return row >= 0 && row < this.rows && col >= 0 && col < this.columns ? { row, col } : null;
  }

  after({ row, col }: Cell, step: Step): Cell {
    return { row: within(row + step.rows, this.rows), col: within(col + step.columns, this.columns) };
  }

  /** Where columns are narrow, every third has its name, and none so near to the chosen one that they would cover each other. */
  isNamed(col: number, chosen: number): boolean {
    return this.size >= 19 || col === chosen || (col % 3 === 0 && Math.abs(col - chosen) > 1);
  }
}
