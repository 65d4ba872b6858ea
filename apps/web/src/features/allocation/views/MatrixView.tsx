import { pairKey } from '@salt-circle/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import { CellBar } from './CellBar.js';
import type { BoardProps } from './ListView.js';
import { CellMark, MarkLegend } from './marks.js';
import { Geometry, HEAD, LABEL } from './matrixGeometry.js';
import type { Model } from '../model.js';
import type { Cell } from './useCellFocus.js';
import { matrixKeys, useChosenCell, useMatrixDrag } from './useMatrix.js';
import { say } from '../../../words/allocation.js';

/** Reviewers down, drafts across: every pair there is or could be. One cell at a time is looked at and acted on. */
export function MatrixView(board: BoardProps) {
  const { model, manual, preview } = board;
  const { reviewers, drafts } = model.view;
  const scroller = useRef<HTMLDivElement>(null);
  const geometry = new Geometry(reviewers.length, drafts.length);
  const rows = useVirtualizer({
    count: reviewers.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => geometry.size,
    overscan: 6,
    scrollPaddingStart: HEAD,
  });
  const columns = useVirtualizer({
    horizontal: true,
    count: drafts.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => geometry.size,
    overscan: 6,
    scrollPaddingStart: LABEL,
  });
  const chosen = useChosenCell(board, ({ row, col }) => {
    rows.scrollToIndex(row);
    columns.scrollToIndex(col);
  });
  const drag = useMatrixDrag(board, chosen, geometry, scroller);
  const colOf = new Map(drafts.map(({ id }, index) => [id, index]));
  return (
    <>
      <CellBar
        model={model}
        pair={chosen.pair}
        carried={chosen.carried}
        preview={preview}
        onToggle={chosen.toggle}
        onCarry={chosen.carry}
        onHold={() => manual.hold(chosen.pair)}
        onApart={() => manual.keepApart(chosen.pair)}
      />
      <div
        ref={scroller}
        role="application"
        aria-label={say('matrixOfReviewersAndDrafts')}
        aria-describedby="matrix-cell"
        tabIndex={0}
        onKeyDown={matrixKeys(board, chosen, geometry)}
        {...drag.handlers}
        className={`relative h-[calc(100dvh-20rem)] min-h-80 touch-pan-x touch-pan-y overflow-auto border border-line bg-paper select-none ${drag.dragging ? 'cursor-grabbing' : ''}`}
      >
        <div className="relative" style={{ width: geometry.width + 60, height: geometry.height }}>
          <Crosshair at={chosen.at} geometry={geometry} />
          {rows.getVirtualItems().map(({ index }) => (
            <MatrixRow
              key={reviewers[index]?.id}
              model={model}
              row={index}
              geometry={geometry}
              colOf={colOf}
              active={index === chosen.at.row}
              from={columns.range?.startIndex ?? 0}
              until={columns.range?.endIndex ?? drafts.length}
            />
          ))}
          <div
            className="pointer-events-none absolute z-10 outline-2 outline-iodine outline-solid"
            style={{
              top: geometry.topOf(chosen.at.row),
              left: geometry.leftOf(chosen.at.col),
              width: geometry.size,
              height: geometry.size,
            }}
          />
          <Heads
            model={model}
            geometry={geometry}
            chosen={chosen.at.col}
            columns={columns.getVirtualItems().map(({ index }) => index)}
          />
        </div>
      </div>
      <MarkLegend />
    </>
  );
}

/** The row and the column of the chosen cell. */
function Crosshair({ at, geometry }: { readonly at: Cell; readonly geometry: Geometry }) {
  const { size, width, height } = geometry;
  return (
    <>
      <div
        className="pointer-events-none absolute bg-crust"
        style={{ top: geometry.topOf(at.row), left: 0, height: size, width }}
      />
      <div
        className="pointer-events-none absolute bg-crust"
        style={{ left: geometry.leftOf(at.col), top: 0, width: size, height }}
      />
    </>
  );
}

interface HeadsProps {
  readonly model: Model;
  readonly geometry: Geometry;
  /** Column of the chosen cell, and the columns in sight. */
  readonly chosen: number;
  readonly columns: readonly number[];
}

/** Names of the drafts' authors, over their columns. */
function Heads({ model, geometry, chosen, columns }: HeadsProps) {
  const { drafts } = model.view;
  return (
    <div className="sticky top-0 z-20 bg-paper" style={{ height: HEAD, marginBottom: -HEAD }}>
      {columns.map((index) => (
        <span
          key={drafts[index]?.id}
          className={`absolute bottom-1 origin-bottom-left -rotate-60 text-xs whitespace-nowrap ${index === chosen ? 'font-semibold text-iodine' : 'text-ink-soft'}`}
          style={{ left: geometry.leftOf(index) + geometry.size * 0.7 }}
        >
          {geometry.isNamed(index, chosen) ? model.authorName(drafts[index]?.id ?? '') : ''}
        </span>
      ))}
      <div
        className="sticky left-0 flex h-full items-end justify-between border-b border-line bg-paper px-2 pb-1 text-xs text-ink-soft"
        style={{ width: LABEL }}
      >
        <span>{say('reviewers')}</span>
        <span>{say('drafts')}</span>
      </div>
    </div>
  );
}

interface MatrixRowProps {
  readonly model: Model;
  readonly row: number;
  readonly geometry: Geometry;
  readonly colOf: ReadonlyMap<string, number>;
  readonly active: boolean;
  /** Columns in sight. */
  readonly from: number;
  readonly until: number;
}

function MatrixRow({ model, row, geometry, colOf, active, from, until }: MatrixRowProps) {
  const reviewer = model.view.reviewers[row];
  if (reviewer === undefined) return null;
  const { id: reviewerId } = reviewer;
  const { size } = geometry;
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
      style={{ top: geometry.topOf(row), height: size }}
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
            style={{ left: geometry.leftOf(col), width: size, height: size }}
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
