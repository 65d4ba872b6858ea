import type { PartView } from '@salt-circle/contracts';
import type { AnchorMatch } from '@salt-circle/core';
import { act, renderHook } from '@testing-library/react';
import type { DraftLayout } from './DraftText.js';
import { useAnnotation, type PlacedNote } from './useAnnotation.js';

const part = (id: string, show: PartView['show'], html: string | null) => ({ id, show, html }) as PartView;
const PARTS = [
  part('paper', 'pdf', null),
  part('text', 'html', '<p>The bed rose.</p>'),
  part('notes', 'html', '<p>Read at low water.</p>'),
];
const note = (id: string, partId: string): PlacedNote => ({
  id,
  kind: 'ask',
  place: {
    version: 1,
    partId,
    selector: {
      type: 'text',
      quote: { type: 'TextQuoteSelector', exact: 'x', prefix: '', suffix: '' },
      position: { type: 'TextPositionSelector', start: 0, end: 1 },
    },
  },
});
const NOTES = [note('one', 'text'), note('two', 'notes'), note('lost', 'gone')];
const found = { start: 0, end: 1, exact: true } as unknown as AnchorMatch;
const layout = (...ids: string[]) => ({ matches: new Map(ids.map((id) => [id, found])) }) as unknown as DraftLayout;
const open = (parts: readonly PartView[] = PARTS) => renderHook(() => useAnnotation({ parts }, NOTES)).result;

describe('a draft of several parts, with notes', () => {
  it('begins with the first text, or with what there is', () => {
    expect(open().current.partId).toBe('text');
    expect(open([PARTS[0] as PartView]).current.partId).toBe('paper');
    expect(open([]).current.partId).toBeNull();
  });

  it('shows the part of a note that is chosen, and stays where it is for one whose part is not there', () => {
    const annotation = open();
    act(() => annotation.current.choose('two'));
    expect([annotation.current.partId, annotation.current.activeId]).toEqual(['notes', 'two']);
    act(() => annotation.current.choose('lost'));
    expect([annotation.current.partId, annotation.current.activeId]).toEqual(['notes', 'lost']);
    act(() => annotation.current.release());
    expect([annotation.current.partId, annotation.current.activeId]).toEqual(['notes', null]);
  });

  it('knows how each text lies by itself: what one part is laid out as is nothing of another one', () => {
    const annotation = open();
    const [first, second] = [layout('one'), layout('two')];
    act(() => annotation.current.onLayout('text', first));
    expect(annotation.current.layout).toBe(first);
    act(() => annotation.current.show('notes'));
    expect(annotation.current.layout).toBeNull();
    act(() => annotation.current.onLayout('notes', second));
    expect(annotation.current.layout).toBe(second);
    act(() => annotation.current.show('paper'));
    expect(annotation.current.layout).toBeNull();
  });

  it('says how a passage was found in parts that were shown, and nothing of the others yet', () => {
    const annotation = open();
    act(() => annotation.current.onLayout('text', layout('one')));
    expect([annotation.current.match('one'), annotation.current.match('two')]).toEqual([found, undefined]);
    act(() => annotation.current.onLayout('notes', layout('two')));
    expect(annotation.current.match('two')).toBe(found);
    // Found in the part that is out of sight, too.
    act(() => annotation.current.show('paper'));
    expect(annotation.current.match('one')).toBe(found);
  });
});
