import type { NoteKind, PartView } from '@salt-circle/contracts';
import type { Box, RunPiece, Selector } from '@salt-circle/core';
import { useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { PdfPart } from '../../viewing/PdfPart.js';
import type { DrawnPage } from '../../viewing/PdfPage.js';
import type { PdfTexts } from '../../viewing/pdfText.js';
import { BarButton } from '../../viewing/ViewerBar.js';
import { pickedBy, SelectionBar } from '../SelectionBar.js';
import type { PlacedNote } from '../useAnnotation.js';
import { BoxMarks, boxedAt, nextOf, type BoxedNote } from './BoxMarks.js';
import { boxOf, findPassage, selectedPassage } from './pagePassages.js';
import type { PartNotesProps } from './partNotes.js';
import { RegionDraw } from './RegionDraw.js';
import { say } from '../../../words/app.js';

export interface PageNotesProps extends PartNotesProps {
  readonly part: PartView;
  /** Where its reading copy is. */
  readonly address: string;
  readonly onPage: (page: number) => void;
}

/** Pages with the notes on their words and regions; words are selected, regions drawn. */
export function PageNotes({ part, address, notes, activeId, onChoose, onNote, shorthand, onPage }: PageNotesProps) {
  const drawn = useRef(new Map<number, DrawnPage>());
  const texts = useRef<PdfTexts | null>(null);
  const [page, setPage] = useState(1);
  const [drawing, setDrawing] = useState<'no' | 'by-hand' | 'by-keys'>('no');
  const selection = usePageSelection(drawn, onNote !== undefined);
  const target = useMemo(() => targetOf(notes.find(({ id }) => id === activeId)), [notes, activeId]);
  const drew = useCallback((number: number, is: DrawnPage | null) => {
    if (is === null) drawn.current.delete(number);
    else drawn.current.set(number, is);
  }, []);
  const leave = async (kind: NoteKind, body?: string) => {
    const { range } = selection;
    if (range === null || texts.current === null || onNote === undefined) return;
    const selector = await selectedPassage(texts.current, drawn.current, range);
    document.getSelection()?.removeAllRanges();
    if (selector !== null) onNote(kind, selector, body);
  };
  return (
    <>
      <PdfPart
        address={address}
        name={part.name}
        target={target}
        onPage={(number) => {
          setPage(number);
          onPage(number);
        }}
        onKey={(event) => {
          const picked = pickedBy(event, shorthand);
          if (picked === null || selection.current() === null) return;
          event.preventDefault();
          void leave(...picked);
        }}
        tools={
          onNote !== undefined && (
            <BarButton
              words={say('markRegion')}
              pressed={drawing !== 'no'}
              onPress={(byKey) => setDrawing(drawing !== 'no' ? 'no' : byKey ? 'by-keys' : 'by-hand')}
            />
          )
        }
        over={(sheet, read) => (
          <PageMarks page={sheet} texts={read} notes={notes} activeId={activeId} onChoose={onChoose} onDrawn={drew}>
            <KeepTexts texts={read} into={texts} />
            {drawing !== 'no' && onNote !== undefined && (
              <RegionDraw
                label={say('markRegionOnPage', { page: sheet.number })}
                byKeys={drawing === 'by-keys' && sheet.number === page}
                onPick={(kind, box) => onNote(kind, { type: 'region', page: sheet.number, ...box })}
                onCancel={() => setDrawing('no')}
              />
            )}
          </PageMarks>
        )}
      />
      {selection.rect !== null && (
        <SelectionBar at={selection.rect} shorthand={shorthand} onPick={(kind, body) => void leave(kind, body)} />
      )}
    </>
  );
}

function KeepTexts({ texts, into }: { readonly texts: PdfTexts; readonly into: { current: PdfTexts | null } }) {
  useEffect(() => {
    into.current = texts;
  }, [texts, into]);
  return null;
}

/** Words that are selected on the pages, and where they are in the window. */
function usePageSelection(drawn: { readonly current: ReadonlyMap<number, DrawnPage> }, open: boolean) {
  const [rect, setRect] = useState<DOMRect | null>(null);
  const current = useCallback((): Range | null => {
    const selection = document.getSelection();
    if (selection === null || selection.rangeCount === 0 || selection.isCollapsed) return null;
    const range = selection.getRangeAt(0);
    const on = [...drawn.current.values()].some(({ sheet }) => range.intersectsNode(sheet));
    return on ? range : null;
  }, [drawn]);
  useEffect(() => {
    if (!open) return;
    const look = () => setRect(current()?.getBoundingClientRect() ?? null);
    document.addEventListener('selectionchange', look);
    window.addEventListener('scroll', look, true);
    return () => {
      document.removeEventListener('selectionchange', look);
      window.removeEventListener('scroll', look, true);
    };
  }, [current, open]);
  return {
    rect,
    current,
    get range() {
      return current();
    },
  };
}

function targetOf(note: PlacedNote | undefined): { readonly page: number; readonly y: number } | null {
  const selector = note?.place.selector;
  switch (selector?.type) {
    case 'page':
      return { page: selector.page, y: 0 };
    case 'passage':
      return { page: selector.page, y: Math.min(0.9, selector.position.start / 3_500) };
    case 'region':
      return selector.page === null ? null : { page: selector.page, y: selector.y };
    default:
      return null;
  }
}

interface PageMarksProps extends Pick<PageNotesProps, 'notes' | 'activeId' | 'onChoose'> {
  readonly page: DrawnPage;
  readonly texts: PdfTexts;
  readonly onDrawn: (number: number, page: DrawnPage | null) => void;
  readonly children: ReactNode;
}

/** How many pages before this one a passage may have begun. */
const RUNS_OVER = 8;

function PageMarks({ page, texts, notes, activeId, onChoose, onDrawn, children }: PageMarksProps) {
  const { number, sheet, spans } = page;
  useEffect(() => {
    onDrawn(number, { number, sheet, spans });
    return () => onDrawn(number, null);
  }, [number, sheet, spans, onDrawn]);
  const words = useWordBoxes(page, texts, notes);
  const boxed = notes.flatMap((note): BoxedNote[] => {
    const boxes = boxesOn(number, note.place.selector, words.get(note.id) ?? []);
    if (boxes.length === 0) return [];
    const { id, kind } = note;
    const { type } = note.place.selector;
    return [{ id, kind, boxes, words: type === 'passage', where: say('onPageNumber', { number }) }];
  });
  const pressed = useRef<(event: MouseEvent) => void>(() => undefined);
  useEffect(() => {
    pressed.current = (event) => {
      if (document.getSelection()?.isCollapsed === false) return;
      const around = sheet.getBoundingClientRect();
      const at = {
        x: (event.clientX - around.left) / around.width,
        y: (event.clientY - around.top) / around.height,
      };
      const id = nextOf(boxedAt(boxed, at), activeId);
      if (id !== undefined) onChoose(id);
    };
  });
  useEffect(() => {
    const press = (event: MouseEvent) => {
      // A mark that was chosen by a key has told so itself.
      if (!(event.target as Element).closest('[data-place]')) pressed.current(event);
    };
    sheet.addEventListener('click', press);
    return () => sheet.removeEventListener('click', press);
  }, [sheet]);
  return (
    <>
      <BoxMarks notes={boxed} activeId={activeId} onChoose={onChoose} />
      {children}
    </>
  );
}

/** The whole page is framed along its left edge; regions are where they are, passages where their words are. */
function boxesOn(number: number, selector: Selector, words: readonly Box[]): readonly Box[] {
  if (selector.type === 'passage') return words;
  if (selector.type === 'page') return selector.page === number ? [{ x: 0, y: 0, width: 0.02, height: 1 }] : [];
  return selector.type === 'region' && selector.page === number ? [selector] : [];
}

/** Boxes of passages on a page, by note, once its words are drawn. */
function useWordBoxes(
  { number, sheet, spans }: DrawnPage,
  texts: PdfTexts,
  notes: PageNotesProps['notes'],
): ReadonlyMap<string, readonly Box[]> {
  const [boxes, setBoxes] = useState<ReadonlyMap<string, readonly Box[]>>(new Map());
  useEffect(() => {
    if (spans === null) return;
    let over = false;
    const place = async () => {
      const found = new Map<string, readonly Box[]>();
      for (const { id, place } of notes) {
        const { selector } = place;
        if (selector.type !== 'passage' || selector.page > number || selector.page < number - RUNS_OVER) continue;
        const pieces: RunPiece[] = await findPassage(texts, selector);
        if (over) return;
        const here = pieces
          .filter((piece) => piece.page === number)
          .flatMap((piece) => boxOf({ number, sheet, spans }, piece) ?? []);
        if (here.length > 0) found.set(id, here);
      }
      setBoxes(found);
    };
    // A page that cannot be read has no words to mark; the page itself says so.
    place().catch(() => undefined);
    return () => {
      over = true;
    };
  }, [number, sheet, spans, texts, notes]);
  return boxes;
}
