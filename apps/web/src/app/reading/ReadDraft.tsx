import type { DraftReading, NoteView, PersonLabel } from '@salt-circle/contracts';
import { comparePlaces } from '@salt-circle/core';
import { useRef, useState, type ReactNode } from 'react';
import { AnnotatedDraft } from './AnnotatedDraft.js';
import { NoteSheet } from './NoteSheet.js';
import { NoteText } from './NoteText.js';
import { focusPassage, noteDomId } from './passages.js';
import { placeWords } from './places/whereabouts.js';
import { useAnnotation, type Annotation } from './useAnnotation.js';

/** A note, and who left it. */
export interface ReadNote extends NoteView {
  readonly by: PersonLabel;
}

/** Notes of several reviews, in the order of their places in the draft. */
export function inPlace<Note extends NoteView>(parts: DraftReading['parts'], notes: readonly Note[]): readonly Note[] {
  const byPlace = comparePlaces(parts.map(({ id }) => id));
  return notes.toSorted((a, b) => byPlace(a.place, b.place) || (a.id < b.id ? -1 : 1));
}

export interface ReadNotes<Note extends ReadNote> {
  readonly annotation: Annotation;
  /** A note to read; in a list with its passage, by pressing which the passage is gone to. */
  readonly show: (note: Note, quoted: boolean) => ReactNode;
  /** The same over the foot of the draft, where there is no room beside it. */
  readonly over: (note: Note) => ReactNode;
}

/**
 * Notes on a draft that is read, not written on.
 *
 * @param attached what stands below a note; `alone` in a list and over the foot, where there is room
 */
export function useReadNotes<Note extends ReadNote>(
  draft: DraftReading,
  notes: readonly Note[],
  attached: (note: Note, alone: boolean) => ReactNode = () => undefined,
): ReadNotes<Note> {
  const annotation = useAnnotation(draft, notes);
  const toPassage = (id: string) => {
    annotation.choose(id);
    // Its part may have to be shown first.
    requestAnimationFrame(() => focusPassage(id));
  };
  return {
    annotation,
    show: (note, quoted) => (
      <NoteText
        note={note}
        by={note.by}
        match={annotation.match(note.id)}
        active={note.id === annotation.activeId}
        quoted={quoted}
        where={placeWords(note.place, quoted ? draft.parts : [])}
        attached={attached(note, quoted)}
        domId={quoted ? undefined : noteDomId(note.id)}
        onActivate={() => toPassage(note.id)}
      />
    ),
    over: (note) => (
      <NoteText
        note={note}
        by={note.by}
        match={annotation.match(note.id)}
        where={placeWords(note.place, draft.parts)}
        attached={attached(note, true)}
        quoted
      />
    ),
  };
}

export interface ReadDraftProps<Note extends ReadNote> {
  readonly draft: DraftReading;
  readonly exchangeId: string;
  readonly notes: readonly Note[];
  readonly reading: ReadNotes<Note>;
  readonly label: string;
  readonly marginLabel: string;
  readonly children?: ReactNode;
}

/** A draft with its notes beside it; where it has no room for a margin, a pressed note comes up over its foot. */
export function ReadDraft<Note extends ReadNote>({
  draft,
  exchangeId,
  notes,
  reading,
  label,
  marginLabel,
  children,
}: ReadDraftProps<Note>) {
  const { annotation, show, over } = reading;
  const margin = useRef<HTMLElement>(null);
  const [sheet, setSheet] = useState<string | null>(null);
  const noteOf = (id: string | null) => notes.find((one) => one.id === id);
  const inSheet = noteOf(sheet);
  return (
    <>
      <section aria-label={label} className="@container px-6 py-5">
        {children}
        <AnnotatedDraft
          reading={draft}
          exchangeId={exchangeId}
          notes={notes}
          annotation={annotation}
          marginLabel={marginLabel}
          marginRef={margin}
          onChoose={(id) => {
            annotation.choose(id);
            if (margin.current === null || margin.current.offsetParent === null) setSheet(id);
          }}
          render={(id) => {
            const note = noteOf(id);
            return note === undefined ? null : show(note, false);
          }}
        />
      </section>
      <NoteSheet
        noteId={sheet}
        onClose={() => {
          if (sheet !== null) focusPassage(sheet);
          setSheet(null);
        }}
      >
        {inSheet !== undefined && over(inSheet)}
      </NoteSheet>
    </>
  );
}
