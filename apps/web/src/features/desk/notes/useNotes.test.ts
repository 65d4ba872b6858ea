/** The queue and the store live for the whole page; here each test has a fresh one. */
import type { NoteView, PartView } from '@salt-circle/contracts';
import type { TextAnchor } from '@salt-circle/core';
import { act, renderHook } from '@testing-library/react';
import type { PendingSave } from '../../../app/saving/saveQueue.js';

const pending: PendingSave[] = [];
const put = jest.fn<void, [PendingSave]>();
jest.mock('../../../app/store.js', () => ({
  saveQueue: {
    put: (save: PendingSave) => put(save),
    pending: (key: string) => pending.find((save) => save.key === key) ?? null,
    revision: (_: string, read: number) => read,
    pendingWithPrefix: (prefix: string) => pending.filter(({ key }) => key.startsWith(prefix)),
  },
}));

import { useNotes } from './useNotes.js';

const PREFIX = 'ann:review:r:note:';
const anchor = (start: number): TextAnchor => ({
  quote: { type: 'TextQuoteSelector', exact: 'bed', prefix: '', suffix: '' },
  position: { type: 'TextPositionSelector', start, end: start + 3 },
});
const place = (start: number, partId = 'first'): NoteView['place'] => ({
  version: 2,
  partId,
  selector: { type: 'text', ...anchor(start) },
});
const part = (id: string) => ({ id, show: 'html', html: '<p>The bed rose.</p>' }) as PartView;
const DRAFT = { version: 2, parts: [part('first'), part('second')] };
const note = (id: string, start: number, part: Partial<NoteView> = {}): NoteView => ({
  id,
  kind: 'ask',
  body: id,
  place: place(start),
  edit: null,
  itemId: null,
  revision: 1,
  ...part,
});
const open = (saved: NoteView[]) => renderHook(() => useNotes(saved, 'r', PREFIX, DRAFT));

describe('useNotes', () => {
  beforeEach(() => {
    pending.length = 0;
    put.mockReset();
  });

  it('shows what another tab has saved since, and nothing over what is typed here and not sent', () => {
    const { result, rerender } = renderHook(({ saved }) => useNotes(saved, 'r', PREFIX, DRAFT), {
      initialProps: { saved: [note('a', 5), note('b', 9), note('c', 20)] },
    });
    act(() => void result.current.add('keep', { partId: 'first', selector: place(30).selector }));
    const own = result.current.list.at(-1)?.id ?? '';
    pending.push({ key: `${PREFIX}b`, url: '', method: 'PUT', body: {}, revision: 1 });
    // Elsewhere: a was changed, b too, c removed, d written. Of the note that was just left here it tells nothing yet.
    const since = [
      note('a', 5, { body: 'theirs', revision: 2 }),
      note('b', 9, { body: 'theirs', revision: 2 }),
      note('d', 1),
    ];
    rerender({ saved: since });
    expect(result.current.list.map(({ id, body }) => [id, body])).toEqual([
      ['d', 'd'],
      ['a', 'theirs'],
      ['b', 'b'],
      [own, ''],
    ]);
  });

  it('keeps notes in the order of their places, part by part', () => {
    const { result } = open([note('c', 1, { place: place(1, 'second') }), note('b', 20), note('a', 5)]);
    expect(result.current.list.map(({ id }) => id)).toEqual(['a', 'b', 'c']);
    act(() => void result.current.add('keep', { partId: 'first', selector: place(10).selector }));
    const starts = result.current.list.map(({ place: { partId, selector } }) => [
      partId,
      selector.type === 'text' ? selector.position.start : null,
    ]);
    expect(starts).toEqual([
      ['first', 5],
      ['first', 10],
      ['first', 20],
      ['second', 1],
    ]);
    expect(put.mock.lastCall?.[0].body).toMatchObject({ place: { version: 2, partId: 'first' } });
  });

  it('sends again, with a place, what an older page kept of a note', () => {
    const body = { kind: 'fix', body: 'kept for long', anchor: anchor(5) };
    pending.push({ key: `${PREFIX}a`, method: 'PUT', url: '/x', revision: 3, body });
    const { result } = open([]);
    expect(result.current.list).toMatchObject([
      { id: 'a', body: 'kept for long', place: { partId: 'first', version: 2 } },
    ]);
    expect(put).toHaveBeenCalledTimes(1);
    expect(put.mock.lastCall?.[0]).toMatchObject({
      key: `${PREFIX}a`,
      revision: 3,
      body: { place: { partId: 'first' } },
    });
    expect(put.mock.lastCall?.[0].body).not.toHaveProperty('anchor');
  });

  it('brings back what an earlier visit could not send: new, changed and removed notes', () => {
    const base = { method: 'PUT' as const, url: '/x', revision: 1 };
    pending.push(
      { ...base, key: `${PREFIX}a`, body: { kind: 'fix', body: 'changed offline', place: place(5) } },
      { ...base, key: `${PREFIX}b`, method: 'DELETE', body: {} },
      { ...base, key: `${PREFIX}c`, body: { kind: 'keep', body: 'new offline', place: place(1) }, revision: 0 },
      { ...base, key: 'ann:review:other:note:d', body: { kind: 'keep', body: 'of another review', place: place(1) } },
    );
    const { result } = open([note('a', 5), note('b', 20)]);
    expect(result.current.list.map(({ id, body }) => [id, body])).toEqual([
      ['c', 'new offline'],
      ['a', 'changed offline'],
    ]);
  });

  it('saves each change under the key of the note, with the revision it is based on', () => {
    const { result } = open([note('a', 5, { revision: 4 })]);
    act(() => result.current.change('a', { body: 'clearer' }));
    expect(put).toHaveBeenLastCalledWith(
      expect.objectContaining({ key: `${PREFIX}a`, method: 'PUT', revision: 4, url: '/api/reviews/r/notes/a' }),
    );
    expect(put.mock.lastCall?.[0].body).toEqual({
      kind: 'ask',
      body: 'clearer',
      place: place(5),
      edit: null,
      itemId: null,
    });
    act(() => result.current.change('nowhere', { body: 'x' }));
    expect(put).toHaveBeenCalledTimes(1);
  });

  it('removes a note, and brings it back as a new one', () => {
    const { result } = open([note('a', 5, { revision: 4 })]);
    act(() => result.current.remove('a'));
    expect(put).toHaveBeenLastCalledWith(expect.objectContaining({ key: `${PREFIX}a`, method: 'DELETE' }));
    expect([result.current.list, result.current.removed?.id]).toEqual([[], 'a']);
    act(() => result.current.bringBack());
    expect(result.current.list.map(({ id, body }) => [id, body])).toEqual([['a', 'a']]);
    expect(put).toHaveBeenLastCalledWith(expect.objectContaining({ key: `${PREFIX}a`, method: 'PUT', revision: 0 }));
    expect(result.current.removed).toBeNull();
  });

  it('takes over what another tab has', () => {
    const { result } = open([note('a', 5), note('b', 9)]);
    act(() => result.current.replace('a', note('a', 5, { body: 'from the other tab' })));
    act(() => result.current.replace('b', null));
    expect(result.current.list.map(({ id, body }) => [id, body])).toEqual([['a', 'from the other tab']]);
    expect(put).not.toHaveBeenCalled();
  });
});
