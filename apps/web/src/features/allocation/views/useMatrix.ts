import type { Pair } from '@salt-circle/core';
import { useState, type KeyboardEvent, type PointerEvent, type RefObject } from 'react';
import type { BoardProps } from './ListView.js';
import type { Geometry } from './matrixGeometry.js';
import { stepOf } from './steps.js';
import type { Cell } from './useCellFocus.js';

/** The one cell that is looked at, and what can be done with it. */
export interface ChosenCell {
  readonly at: Cell;
  readonly pair: Pair;
  /** A pair that is being moved by keys. */
  readonly carried: Pair | null;
  readonly pairAt: (cell: Cell) => Pair;
  readonly go: (cell: Cell) => void;
  readonly toggle: () => void;
  readonly carry: () => void;
  readonly putDown: () => void;
}

/** @param onGo brings a cell into sight */
export function useChosenCell({ model, manual }: BoardProps, onGo: (cell: Cell) => void): ChosenCell {
  const { reviewers, drafts } = model.view;
  const [at, setAt] = useState<Cell>({ row: 0, col: Math.min(1, Math.max(0, drafts.length - 1)) });
  const [carried, setCarried] = useState<Pair | null>(null);
  const pairAt = ({ row, col }: Cell): Pair => ({
    reviewerId: reviewers[row]?.id ?? '',
    draftId: drafts[col]?.id ?? '',
  });
  const pair = pairAt(at);
  const given = model.meeting(pair) === 'given';
  return {
    at,
    pair,
    carried,
    pairAt,
    go: (cell) => {
      setAt(cell);
      onGo(cell);
    },
    toggle: () => (given ? manual.remove(pair) : manual.add(pair)),
    carry: () => {
      if (carried !== null) manual.move(carried, pair);
      setCarried(carried === null && given ? pair : null);
    },
    putDown: () => setCarried(null),
  };
}

/** Arrows move; letters act on the chosen cell. */
export function matrixKeys(
  { model, manual, preview }: BoardProps,
  { at, pair, go, toggle, carry, putDown }: ChosenCell,
  geometry: Geometry,
) {
  const acts: Readonly<Record<string, () => void>> = preview
    ? { k: () => manual.keepApart(pair) }
    : {
        Enter: toggle,
        ' ': toggle,
        m: carry,
        h: () => model.meeting(pair) === 'given' && manual.hold(pair),
        k: () => manual.keepApart(pair),
        Escape: putDown,
      };
  return (event: KeyboardEvent) => {
    const step = stepOf(event.key);
    const act = acts[event.key];
    if (step === null && act === undefined) return;
    event.preventDefault();
    if (step !== null) go(geometry.after(at, step));
    else if (!manual.busy) act?.();
  };
}

interface Drag {
  readonly from: Cell;
  readonly moved: boolean;
}

/** A mark is dragged to another cell; a press without moving only chooses. */
export function useMatrixDrag(
  { model, manual, preview }: BoardProps,
  { at, pairAt, go, toggle }: ChosenCell,
  geometry: Geometry,
  frame: RefObject<HTMLElement | null>,
) {
  const [dragged, setDragged] = useState<Drag | null>(null);
  const cellUnder = ({ clientX, clientY }: PointerEvent): Cell | null => {
    if (frame.current === null) return null;
    const { left, top } = frame.current.getBoundingClientRect();
    const { scrollLeft, scrollTop } = frame.current;
    return geometry.cellAt(clientX, clientY, { left, top, scrollLeft, scrollTop });
  };
  return {
    dragging: dragged?.moved === true,
    handlers: {
      onPointerDown: (event: PointerEvent) => {
        const cell = cellUnder(event);
        if (cell === null || event.button !== 0) return;
        go(cell);
        if (!preview && model.meeting(pairAt(cell)) === 'given') setDragged({ from: cell, moved: false });
      },
      onPointerMove: (event: PointerEvent) => {
        if (dragged === null) return;
        const cell = cellUnder(event);
        if (cell === null || (cell.row === at.row && cell.col === at.col)) return;
        go(cell);
        setDragged({ ...dragged, moved: true });
      },
      onPointerUp: (event: PointerEvent) => {
        const cell = cellUnder(event);
        if (dragged?.moved === true && cell !== null) {
          manual.move(pairAt(dragged.from), pairAt(cell));
          go(cell);
        }
        setDragged(null);
      },
      onPointerLeave: () => setDragged(null),
      onDoubleClick: () => !preview && toggle(),
    },
  };
}
