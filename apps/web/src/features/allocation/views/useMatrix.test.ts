import type { Pair } from '@salt-circle/core';
import { act, renderHook } from '@testing-library/react';
import type { KeyboardEvent, PointerEvent } from 'react';
import { Model } from '../model.js';
import { Geometry, HEAD, LABEL } from './matrixGeometry.js';
import { ids, view } from '../testing/board.js';
import type { ManualChanges } from '../useManualChanges.js';
import { matrixKeys, useChosenCell, useMatrixDrag } from './useMatrix.js';

const pair = (reviewerId: string, author: string): Pair => ({ reviewerId, draftId: `d-${author}` });
/** Everybody reviews the next one: rows and columns are in the order of the names. */
const pairs = ids.map((id, at) => ({
  ...pair(id, ids[(at + 1) % ids.length] as string),
  reviewId: id,
  state: 'not-begun' as const,
  locked: false,
  self: false,
  answered: 0,
  required: 2,
  notes: 0,
}));

function board(part: { readonly preview?: boolean; readonly busy?: boolean } = {}) {
  const done: unknown[] = [];
  const act =
    (name: string) =>
    (...given: unknown[]) =>
      void done.push([name, ...given]);
  const manual = {
    busy: part.busy === true,
    add: act('add'),
    remove: act('remove'),
    move: act('move'),
    hold: act('hold'),
    keepApart: act('keepApart'),
  } as unknown as ManualChanges;
  const props = { model: new Model(view({ pairs }), null), manual, preview: part.preview === true };
  return { props, done };
}

/** The matrix with a frame at the page's corner, its cells as large as they are drawn. */
function matrix(part: Parameters<typeof board>[0] = {}) {
  const { props, done } = board(part);
  const geometry = new Geometry(ids.length, ids.length);
  const frame = {
    current: {
      scrollLeft: 0,
      scrollTop: 0,
      getBoundingClientRect: () => ({ left: 0, top: 0 }),
    } as unknown as HTMLElement,
  };
  const seen: unknown[] = [];
  const { result } = renderHook(() => {
    const chosen = useChosenCell(props, (cell) => seen.push(cell));
    return {
      chosen,
      press: matrixKeys(props, chosen, geometry),
      drag: useMatrixDrag(props, chosen, geometry, frame),
    };
  });
  const key = (name: string) =>
    act(() => result.current.press({ key: name, preventDefault: () => {} } as unknown as KeyboardEvent));
  const point = (row: number, col: number) =>
    ({
      clientX: LABEL + (col + 0.5) * geometry.size,
      clientY: HEAD + (row + 0.5) * geometry.size,
      button: 0,
    }) as PointerEvent;
  const mouse = (what: 'onPointerDown' | 'onPointerMove' | 'onPointerUp', row: number, col: number) =>
    act(() => result.current.drag.handlers[what](point(row, col)));
  return { result, done, seen, key, mouse };
}

describe('the matrix by keys', () => {
  it('begins beside the own draft, goes to the edges and no further, and brings each cell into sight', () => {
    const { result, key, seen } = matrix();
    expect(result.current.chosen.at).toEqual({ row: 0, col: 1 });
    key('ArrowUp');
    key('ArrowDown');
    key('End');
    key('ArrowRight');
    expect(result.current.chosen.at).toEqual({ row: 1, col: 3 });
    expect(seen).toHaveLength(4);
  });

  it('fills an empty cell and empties a full one; letters hold and keep apart', () => {
    const { key, done } = matrix();
    key('Enter');
    key('h');
    key('ArrowRight');
    key(' ');
    key('h');
    key('k');
    expect(done).toEqual([
      ['remove', pair('ann', 'ben')],
      ['hold', pair('ann', 'ben')],
      ['add', pair('ann', 'cho')],
      // Nothing is allocated there that could be held.
      ['keepApart', pair('ann', 'cho')],
    ]);
  });

  it('carries a pair to another cell, or puts it down again', () => {
    const { result, key, done } = matrix();
    key('m');
    expect(result.current.chosen.carried).toEqual(pair('ann', 'ben'));
    key('Escape');
    key('ArrowRight');
    key('m');
    expect([result.current.chosen.carried, done]).toEqual([null, []]);
    key('ArrowLeft');
    key('m');
    key('ArrowDown');
    key('ArrowDown');
    key('m');
    expect([result.current.chosen.carried, done]).toEqual([null, [['move', pair('ann', 'ben'), pair('cho', 'ben')]]]);
  });

  it('does nothing while the last act is on its way, and in a preview only keeps apart', () => {
    const busy = matrix({ busy: true });
    busy.key('Enter');
    busy.key('ArrowRight');
    expect([busy.done, busy.result.current.chosen.at.col]).toEqual([[], 2]);
    const preview = matrix({ preview: true });
    for (const name of ['Enter', 'm', 'h', 'k']) preview.key(name);
    expect(preview.done).toEqual([['keepApart', pair('ann', 'ben')]]);
  });
});

describe('the matrix by mouse', () => {
  it('drags a mark to another cell', () => {
    const { result, mouse, done } = matrix();
    mouse('onPointerDown', 0, 1);
    expect(result.current.drag.dragging).toBe(false);
    mouse('onPointerMove', 1, 1);
    mouse('onPointerMove', 2, 1);
    expect(result.current.drag.dragging).toBe(true);
    mouse('onPointerUp', 2, 1);
    expect([result.current.drag.dragging, done]).toEqual([false, [['move', pair('ann', 'ben'), pair('cho', 'ben')]]]);
  });

  it('only chooses when nothing was moved, or there was no mark', () => {
    const { result, mouse, done } = matrix();
    mouse('onPointerDown', 1, 2);
    mouse('onPointerUp', 1, 2);
    mouse('onPointerDown', 1, 3);
    mouse('onPointerMove', 2, 2);
    mouse('onPointerUp', 2, 2);
    expect([done, result.current.chosen.at]).toEqual([[], { row: 1, col: 3 }]);
  });
});
