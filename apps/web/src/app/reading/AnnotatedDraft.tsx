import type { DraftReading, NoteKind, PartView } from '@salt-circle/contracts';
import type { Place, TextAnchor } from '@salt-circle/core';
import { useCallback, useMemo, type ReactNode, type Ref } from 'react';
import { ReadingParts } from '../viewing/ReadingParts.js';
import { DraftText, type DraftLayout } from './DraftText.js';
import { MarginNotes } from './MarginNotes.js';
import type { Passage } from './passages.js';
import type { Annotation, PlacedNote } from './useAnnotation.js';

export interface AnnotatedDraftProps {
  readonly reading: DraftReading;
  readonly exchangeId: string;
  readonly notes: readonly PlacedNote[];
  readonly annotation: Annotation;
  /** A note beside its passage. */
  readonly render: (id: string) => ReactNode;
  readonly marginLabel: string;
  readonly marginRef?: Ref<HTMLElement>;
  /** A passage was pressed. */
  readonly onChoose: (id: string) => void;
  /** Absent: the draft is read, not annotated. */
  readonly onNote?: (kind: NoteKind, place: Place) => void;
}

/** A draft, a part at a time; every text with the notes that stand on it. */
export function AnnotatedDraft({ reading, exchangeId, notes, annotation, ...shared }: AnnotatedDraftProps) {
  const count = (id: string) => notes.filter(({ place }) => place.partId === id).length;
  return (
    <ReadingParts
      reading={reading}
      exchangeId={exchangeId}
      partId={annotation.partId}
      onPart={annotation.show}
      remark={({ id }) => {
        const here = count(id);
        return here === 0 ? '' : here === 1 ? '1 note' : `${here} notes`;
      }}
      renderText={(html, part) => (
        <AnnotatedText html={html} part={part} notes={notes} annotation={annotation} {...shared} />
      )}
      tall
    />
  );
}

type AnnotatedTextProps = Omit<AnnotatedDraftProps, 'reading' | 'exchangeId'> & {
  readonly html: string;
  readonly part: PartView;
};

function AnnotatedText({ html, part, notes, annotation, render, onNote, ...rest }: AnnotatedTextProps) {
  const { marginLabel, marginRef, onChoose } = rest;
  const { onLayout, activeId, layout } = annotation;
  const { id } = part;
  const passages = useMemo(
    () =>
      notes.flatMap(({ id: noteId, kind, place: { partId, selector } }): Passage[] =>
        partId === id && selector.type === 'text' ? [{ id: noteId, kind, anchor: selector }] : [],
      ),
    [notes, id],
  );
  const measured = useCallback((next: DraftLayout) => onLayout(id, next), [onLayout, id]);
  const leave =
    onNote === undefined
      ? {}
      : {
          onNote: (kind: NoteKind, anchor: TextAnchor) =>
            onNote(kind, { partId: id, selector: { type: 'text', ...anchor } }),
        };
  return (
    <div className="@2xl:grid @2xl:grid-cols-[minmax(0,1fr)_12.5rem] @2xl:gap-6">
      <DraftText
        html={html}
        passages={passages}
        activeId={activeId}
        onActivate={onChoose}
        onLayout={measured}
        {...leave}
      />
      <aside ref={marginRef} aria-label={marginLabel} className="hidden @2xl:block">
        <MarginNotes ids={passages.map((one) => one.id)} layout={layout} activeId={activeId} render={render} />
      </aside>
    </div>
  );
}
