import { describeTextAnchor, type AnchorMatch, type TextAnchor } from '@salt-circle/core';
import type { NoteKind, ShorthandEntry } from '@salt-circle/contracts';
import { useCallback, useEffect, useLayoutEffect, useRef, useState, type KeyboardEvent } from 'react';
import { followAnchor, safeHtml } from '../../kit/index.js';
import { readDom } from './domText.js';
import { ByParagraph } from './ByParagraph.js';
import { activate, markPassages, notesAt, topsOf, type Passage } from './passages.js';
import { pickedBy, SelectionBar } from './SelectionBar.js';
import { stepSentence } from './sentences.js';
import { say } from '../../words/app.js';

export interface DraftLayout {
  /** Distance from the top of the text, by note id; passages that are gone have none. */
  readonly tops: ReadonlyMap<string, number>;
  readonly matches: ReadonlyMap<string, AnchorMatch>;
  /** Of the whole text, in CSS pixels. */
  readonly height: number;
}

export interface DraftTextProps {
  readonly html: string;
  readonly passages: readonly Passage[];
  readonly activeId: string | null;
  readonly onActivate: (id: string) => void;
  readonly onLayout: (layout: DraftLayout) => void;
  /** Absent: the draft is read, not annotated. */
  readonly onNote?: (kind: NoteKind, anchor: TextAnchor, body?: string) => void;
  readonly shorthand?: readonly ShorthandEntry[];
}

const NO_SHORTHAND: readonly ShorthandEntry[] = [];

/** A rendered draft with the passages of notes marked in it, in which a passage can be selected by mouse and by keys. */
export function DraftText({
  html,
  passages,
  activeId,
  onActivate,
  onLayout,
  onNote,
  shorthand = NO_SHORTHAND,
}: DraftTextProps) {
  const root = useRef<HTMLDivElement>(null);
  const [selected, setSelected] = useState<DOMRect | null>(null);

  useLayoutEffect(() => {
    if (root.current !== null) root.current.innerHTML = safeHtml(html);
  }, [html]);

  useLayoutEffect(() => {
    const element = root.current;
    if (element === null) return;
    const matches = markPassages(element, passages);
    const measure = () => onLayout({ tops: topsOf(element), matches, height: element.offsetHeight });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    void document.fonts.ready.then(measure);
    return () => observer.disconnect();
  }, [html, passages, onLayout]);

  useLayoutEffect(() => {
    if (root.current !== null) activate(root.current, activeId);
  }, [activeId, passages, html]);

  const currentRange = useCallback((): Range | null => {
    const selection = document.getSelection();
    if (root.current === null || selection === null || selection.rangeCount === 0 || selection.isCollapsed) return null;
    const range = selection.getRangeAt(0);
    return root.current.contains(range.commonAncestorContainer) ? range : null;
  }, []);

  const leave = useCallback(
    (kind: NoteKind, body?: string) => {
      const range = currentRange();
      if (range === null || root.current === null || onNote === undefined) return;
      const dom = readDom(root.current);
      const place = dom.toText(range);
      if (place === null) return;
      document.getSelection()?.removeAllRanges();
      setSelected(null);
      onNote(kind, describeTextAnchor(dom.text, place), body);
    },
    [currentRange, onNote],
  );

  useEffect(() => {
    if (onNote === undefined) return;
    const look = () => setSelected(currentRange()?.getBoundingClientRect() ?? null);
    document.addEventListener('selectionchange', look);
    window.addEventListener('scroll', look, true);
    return () => {
      document.removeEventListener('selectionchange', look);
      window.removeEventListener('scroll', look, true);
    };
  }, [currentRange, onNote]);

  /** Where several lie over one another, each press goes on to the next. */
  const choose = (target: EventTarget | null): boolean => {
    const ids = notesAt(target);
    const id = ids[(ids.indexOf(activeId ?? '') + 1) % ids.length];
    if (id !== undefined) onActivate(id);
    return id !== undefined;
  };
  const press = (event: KeyboardEvent) => {
    if (root.current === null) return;
    if ((event.key === 'Enter' || event.key === ' ') && choose(event.target)) {
      event.preventDefault();
      return;
    }
    const picked = pickedBy(event, shorthand);
    // What is selected now: the event that tells of it may come after a quick key.
    if (picked !== null && onNote !== undefined && currentRange() !== null) {
      event.preventDefault();
      leave(...picked);
    } else if (event.key === 'Escape') {
      document.getSelection()?.removeAllRanges();
    } else if ((event.key === 'ArrowDown' || event.key === 'ArrowUp') && onNote !== undefined) {
      event.preventDefault();
      stepSentence(root.current, event.key === 'ArrowDown' ? 1 : -1, event.shiftKey);
    }
  };

  return (
    <>
      {onNote !== undefined && (
        <ByParagraph
          textOf={() => (root.current === null ? '' : readDom(root.current).text)}
          onNote={(kind, text, range) => onNote(kind, describeTextAnchor(text, range))}
        />
      )}
      <div
        ref={root}
        role="document"
        tabIndex={0}
        aria-label={onNote === undefined ? say('draft') : say('draftArrowUpAndDown')}
        className="prose prose-reading focus-visible:outline-offset-4"
        onKeyDown={press}
        onClick={(event) => {
          followAnchor(event);
          if (currentRange() === null) choose(event.target);
        }}
      />
      {onNote !== undefined && selected !== null && <SelectionBar at={selected} shorthand={shorthand} onPick={leave} />}
    </>
  );
}
