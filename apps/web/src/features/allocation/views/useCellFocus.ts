import { useLayoutEffect, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { stepOf, within } from './steps.js';

export interface Cell {
  readonly row: number;
  readonly col: number;
}

export interface CellFocus {
  /** The one stop for Tab. */
  readonly active: Cell;
  readonly setActive: (cell: Cell) => void;
  readonly onKeyDown: (event: KeyboardEvent) => void;
  /** On the frame: whether the focus is in it. */
  readonly onFocus: () => void;
  readonly onBlur: () => void;
}

/**
 * Moves the focus through rows of cells by arrow keys. Cells carry `data-at="row:col"`. A row that is out of sight may have to be
 * drawn before it can have the focus; keys that are pressed meanwhile go on from where the focus is going, so none is lost.
 * Where the cell that has the focus goes away, whatever comes in its place gets it.
 *
 * @param columns how many cells a row has
 * @param onGo brings a row into sight
 */
export function useCellFocus(
  frame: RefObject<HTMLElement | null>,
  rows: number,
  columns: (row: number) => number,
  onGo: (row: number) => void,
): CellFocus {
  const [active, setActive] = useState<Cell>({ row: 0, col: 0 });
  const going = useRef<Cell | null>(null);
  const isInside = useRef(false);
  // After every drawing, because what is drawn is what could be missing.
  useLayoutEffect(() => {
    // React tells of no blur when it removes what has the focus; the browser then gives it to the page.
    if (isInside.current && document.activeElement === document.body && going.current === null) {
      const { row, col } = active;
      going.current = { row, col: within(col, columns(row)) };
    }
    if (going.current === null) return;
    const { row, col } = going.current;
    const element = frame.current?.querySelector<HTMLElement>(`[data-at="${row}:${col}"]`);
    if (element == null) return;
    going.current = null;
    element.focus();
  });
  return {
    active,
    setActive,
    onFocus: () => {
      isInside.current = true;
    },
    onBlur: () => {
      isInside.current = false;
    },
    onKeyDown: (event) => {
      const step = stepOf(event.key);
      const at = cellOf(event.target as HTMLElement);
      if (step === null || at === null) return;
      event.preventDefault();
      const from = going.current ?? at;
      const row = within(from.row + step.rows, rows);
      going.current = { row, col: within(from.col + step.columns, columns(row)) };
      setActive(going.current);
      onGo(row);
    },
  };
}

function cellOf({ dataset }: HTMLElement): Cell | null {
  const [row, col] = (dataset['at'] ?? '').split(':').map(Number);
  return row === undefined || col === undefined || Number.isNaN(row) ? null : { row, col };
}
