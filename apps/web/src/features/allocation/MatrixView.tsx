import { pairKey, type Pair } from '@salt-circle/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { Button, Key } from '../../kit/index.js';
import type { BoardProps } from './ListView.js';
import type { Model } from './model.js';
import { CellMark, MarkLegend } from './marks.js';
import { counted } from './sentences.js';
import { stepOf, within } from './steps.js';

interface Cell {
  readonly row: number;
  readonly col: number;
}

const LABEL = 172;
const HEAD = 128;

/** The more people, the smaller; never so small that a mark loses its shape. */
function cellSize(count: number): number {
  return count <= 30 ? 24 : count <= 60 ? 19 : 14;
}

/** Reviewers down, drafts across: every pair there is or could be. One cell at a time is looked at and acted on. */
export function MatrixView({ model, hands, preview }: BoardProps) {
  const { reviewers, drafts } = model.view;
  const scroller = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<Cell>({ row: 0, col: Math.min(1, Math.max(0, drafts.length - 1)) });
  const [carried, setCarried] = useState<Pair | null>(null);
  const [dragged, setDragged] = useState<{ readonly from: Cell; readonly moved: boolean } | null>(null);
  const size = cellSize(Math.max(reviewers.length, drafts.length));
  const rows = useVirtualizer({
    count: reviewers.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => size,
    overscan: 6,
    scrollPaddingStart: HEAD,
  });
  const columns = useVirtualizer({
    horizontal: true,
    count: drafts.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => size,
    overscan: 6,
    scrollPaddingStart: LABEL,
  });
  const colOf = new Map(drafts.map(({ id }, index) => [id, index]));
  const pairAt = ({ row, col }: Cell): Pair => ({
    reviewerId: reviewers[row]?.id ?? '',
    draftId: drafts[col]?.id ?? '',
  });
  const go = (cell: Cell) => {
    const row = within(cell.row, reviewers.length);
    const col = within(cell.col, drafts.length);
    setAt({ row, col });
    rows.scrollToIndex(row);
    columns.scrollToIndex(col);
  };
  // Where columns are narrow, every third name, and none so near to the chosen one that they would cover each other.
  const isNamed = (col: number) => size >= 19 || col === at.col || (col % 3 === 0 && Math.abs(col - at.col) > 1);
  const pair = pairAt(at);
  const given = model.meeting(pair) === 'given';
  const toggle = () => (given ? hands.remove(pair) : hands.add(pair));
  const carry = () => {
    if (carried === null) {
      if (given) setCarried(pair);
      return;
    }
    hands.move(carried, pair);
    setCarried(null);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = stepOf(event.key);
    const acts: Readonly<Record<string, () => void>> = preview
      ? { k: () => hands.keepApart(pair) }
      : {
          Enter: toggle,
          ' ': toggle,
          m: carry,
          h: () => given && hands.hold(pair),
          k: () => hands.keepApart(pair),
          Escape: () => setCarried(null),
        };
    const act = acts[event.key];
    if (step === null && act === undefined) return;
    event.preventDefault();
    if (step === null && hands.busy) return;
    if (step !== null) go({ row: at.row + step.rows, col: at.col + step.columns });
    else act?.();
  };
  const cellUnder = (event: PointerEvent): Cell | null => {
    const box = scroller.current?.getBoundingClientRect();
    if (box === undefined || scroller.current === null) return null;
    const x = event.clientX - box.left + scroller.current.scrollLeft - LABEL;
    const y = event.clientY - box.top + scroller.current.scrollTop - HEAD;
    const inLabels = event.clientX - box.left < LABEL || event.clientY - box.top < HEAD;
    const cell = { row: Math.floor(y / size), col: Math.floor(x / size) };
    const inside = cell.row >= 0 && cell.row < reviewers.length && cell.col >= 0 && cell.col < drafts.length;
    return inLabels || !inside ? null : cell;
  };
  const release = (event: PointerEvent) => {
    const cell = cellUnder(event);
    if (dragged !== null && dragged.moved && cell !== null) {
      hands.move(pairAt(dragged.from), pairAt(cell));
      setAt(cell);
    }
    setDragged(null);
  };
  return (
    <>
      <CellBar
        model={model}
        pair={pair}
        carried={carried}
        preview={preview}
        onToggle={toggle}
        onCarry={carry}
        onHold={() => hands.hold(pair)}
        onApart={() => hands.keepApart(pair)}
      />
      <div
        ref={scroller}
        role="application"
        aria-label="Matrix of reviewers and drafts. Arrow keys move, Enter adds or takes away."
        aria-describedby="matrix-cell"
        tabIndex={0}
        onKeyDown={onKeyDown}
        onPointerDown={(event) => {
          const cell = cellUnder(event);
          if (cell === null || event.button !== 0) return;
          setAt(cell);
          if (!preview && model.meeting(pairAt(cell)) === 'given') setDragged({ from: cell, moved: false });
        }}
        onPointerMove={(event) => {
          if (dragged === null) return;
          const cell = cellUnder(event);
          if (cell === null || (cell.row === at.row && cell.col === at.col)) return;
          setAt(cell);
          setDragged({ ...dragged, moved: true });
        }}
        onPointerUp={release}
        onPointerLeave={() => setDragged(null)}
        onDoubleClick={() => !preview && toggle()}
        className={`relative h-[calc(100dvh-20rem)] min-h-80 touch-pan-x touch-pan-y overflow-auto border border-line bg-paper select-none ${dragged?.moved === true ? 'cursor-grabbing' : ''}`}
      >
        <div
          className="relative"
          style={{ width: LABEL + drafts.length * size + 60, height: HEAD + reviewers.length * size }}
        >
          <div
            className="pointer-events-none absolute bg-crust"
            style={{ top: HEAD + at.row * size, left: 0, height: size, width: LABEL + drafts.length * size }}
          />
          <div
            className="pointer-events-none absolute bg-crust"
            style={{ left: LABEL + at.col * size, top: 0, width: size, height: HEAD + reviewers.length * size }}
          />
          {rows.getVirtualItems().map(({ index }) => (
            <MatrixRow
              key={reviewers[index]?.id}
              model={model}
              row={index}
              size={size}
              colOf={colOf}
              active={index === at.row}
              from={columns.range?.startIndex ?? 0}
              until={columns.range?.endIndex ?? drafts.length}
            />
          ))}
          <div
            className="pointer-events-none absolute z-10 outline-2 outline-iodine outline-solid"
            style={{ top: HEAD + at.row * size, left: LABEL + at.col * size, width: size, height: size }}
          />
          <div className="sticky top-0 z-20 bg-paper" style={{ height: HEAD, marginBottom: -HEAD }}>
            {columns.getVirtualItems().map(({ index }) => (
              <span
                key={drafts[index]?.id}
                className={`absolute bottom-1 origin-bottom-left -rotate-60 text-xs whitespace-nowrap ${index === at.col ? 'font-semibold text-iodine' : 'text-ink-soft'}`}
                style={{ left: LABEL + index * size + size * 0.7 }}
              >
                {isNamed(index) ? model.authorName(drafts[index]?.id ?? '') : ''}
              </span>
            ))}
            <div
              className="sticky left-0 flex h-full items-end justify-between border-b border-line bg-paper px-2 pb-1 text-xs text-ink-soft"
              style={{ width: LABEL }}
            >
              <span>reviewers ↓</span>
              <span>drafts →</span>
            </div>
          </div>
        </div>
      </div>
      <MarkLegend />
    </>
  );
}

interface MatrixRowProps {
  readonly model: Model;
  readonly row: number;
  readonly size: number;
  readonly colOf: ReadonlyMap<string, number>;
  readonly active: boolean;
  /** Columns in sight. */
  readonly from: number;
  readonly until: number;
}

function MatrixRow({ model, row, size, colOf, active, from, until }: MatrixRowProps) {
  const reviewer = model.view.reviewers[row];
  if (reviewer === undefined) return null;
  const { id: reviewerId } = reviewer;
  const inSight = (col: number | undefined): col is number => col !== undefined && col >= from - 4 && col <= until + 4;
  const own = model.ownOf.get(reviewerId);
  const drafts = new Set([
    ...(model.draftsOf.get(reviewerId) ?? []),
    ...(model.apartOf.get(reviewerId) ?? []),
    ...(model.metOf.get(reviewerId) ?? []),
    ...(own === undefined ? [] : [own.id]),
  ]);
  return (
    <div
      className={`absolute inset-x-0 ${row % 5 === 4 ? 'border-b border-line' : ''}`}
      style={{ top: HEAD + row * size, height: size }}
    >
      <span
        className={`sticky left-0 z-10 flex items-center justify-between gap-2 truncate bg-paper px-2 text-xs leading-none ${active ? 'font-semibold text-iodine' : reviewer.leftOut === null ? '' : 'text-ink-soft line-through'}`}
        style={{ width: LABEL, height: size }}
      >
        <span className="truncate">{model.reviewerName(reviewerId)}</span>
        <span className={model.given(reviewerId) === reviewer.capacity ? 'text-ink-soft' : 'text-copper'}>
          {model.given(reviewerId)}
        </span>
      </span>
      {[...drafts].map((draftId) => {
        const col = colOf.get(draftId);
        if (!inSight(col)) return null;
        const pair = { reviewerId, draftId };
        return (
          <span
            key={draftId}
            className="pointer-events-none absolute top-0 flex items-center justify-center"
            style={{ left: LABEL + col * size, width: size, height: size }}
          >
            <CellMark
              meeting={model.meeting(pair)}
              applied={model.applied.get(pairKey(pair))}
              met={model.times.has(pairKey(pair))}
              size={size - 5}
            />
          </span>
        );
      })}
    </div>
  );
}

interface CellBarProps {
  readonly model: Model;
  readonly pair: Pair;
  readonly carried: Pair | null;
  readonly preview: boolean;
  readonly onToggle: () => void;
  readonly onCarry: () => void;
  readonly onHold: () => void;
  readonly onApart: () => void;
}

/** What the cell is, and what can be done with it. */
function CellBar({ model, pair, carried, preview, onToggle, onCarry, onHold, onApart }: CellBarProps) {
  const meeting = model.meeting(pair);
  const applied = model.applied.get(pairKey(pair));
  const given = meeting === 'given';
  const times = model.times.get(pairKey(pair)) ?? 0;
  const apart = model.isApart(pair);
  const words = {
    own: 'own draft',
    given: applied === undefined ? 'in this preview' : `allocated${applied.locked ? ', held' : ''}`,
    apart: 'kept apart',
    free: 'not allocated',
  }[meeting];
  return (
    <div className="mb-2 flex min-h-9 flex-wrap items-center gap-x-3 gap-y-1">
      <p id="matrix-cell" aria-live="polite" className="min-w-64 flex-1">
        <strong>{model.reviewerName(pair.reviewerId)}</strong> and the draft by{' '}
        <strong>{model.authorName(pair.draftId)}</strong>: {words}
        {times > 0 && `, met ${times === 1 ? 'once' : `${times} times`} before`}.{' '}
        <span className="text-ink-soft">
          Writes {counted(model.given(pair.reviewerId), 'review', 'reviews')}; the draft gets {model.load(pair.draftId)}
          .
        </span>
        {carried !== null && (
          <span className="text-copper">
            {' '}
            Carrying {model.reviewerName(carried.reviewerId)} with {model.authorName(carried.draftId)}; M puts it here.
          </span>
        )}
      </p>
      {meeting !== 'own' && (
        <span className="flex flex-wrap gap-1.5">
          {!preview && (given || meeting === 'free') && (
            <Button small onClick={onToggle}>
              {given ? 'Take away' : 'Add'} <Key>Enter</Key>
            </Button>
          )}
          {!preview && (given || carried !== null) && (
            <Button small onClick={onCarry}>
              {carried === null ? 'Move' : 'Put here'} <Key>M</Key>
            </Button>
          )}
          {!preview && given && (
            <Button small onClick={onHold}>
              {applied?.locked === true ? 'Let go' : 'Hold'} <Key>H</Key>
            </Button>
          )}
          <Button small onClick={onApart}>
            {apart ? 'Allow again' : 'Keep apart'} <Key>K</Key>
          </Button>
        </span>
      )}
    </div>
  );
}
