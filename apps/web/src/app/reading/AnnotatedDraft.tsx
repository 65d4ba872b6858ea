import type { DraftReading, NoteKind, PartView, ShorthandEntry } from '@salt-circle/contracts';
import { type Place, type Selector, type TextAnchor } from '@salt-circle/core';
import { lazy, Suspense, useCallback, useMemo, useState, type ReactNode, type Ref } from 'react';
import { Loading } from '../../kit/index.js';
import { PartViewer } from '../viewing/PartViewer.js';
import { ReadingParts } from '../viewing/ReadingParts.js';
import { DraftText, type DraftLayout } from './DraftText.js';
import { MarginNotes } from './MarginNotes.js';
import type { Passage } from './passages.js';
import { BesidePart } from './places/BesidePart.js';
import { MediaNotes } from './places/MediaNotes.js';
import { PictureNotes } from './places/PictureNotes.js';
import { WholeNoteBar, WholeNoteList } from './places/WholeNotes.js';
import { isText, type Annotation, type PlacedNote } from './useAnnotation.js';
import { say } from '../../words/app.js';

/** The reader of PDFs is heavy, so it comes when one is first shown. */
const PageNotes = lazy(async () => ({ default: (await import('./places/PageNotes.js')).PageNotes }));

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
  readonly onNote?: (kind: NoteKind, place: Place, body?: string) => void;
  /** Labels that leave a Fix note at one press. */
  readonly shorthand?: readonly ShorthandEntry[];
  /** A note is to stand elsewhere on its part. */
  readonly onMove?: (id: string, selector: Selector) => void;
}

/** A draft, a part at a time, of whatever kind; each with the notes that stand on it. */
export function AnnotatedDraft({ reading, exchangeId, notes, annotation, ...shared }: AnnotatedDraftProps) {
  const { parts } = reading;
  const { render, onNote } = shared;
  const [page, setPage] = useState(1);
  const count = (id: string) => notes.filter(({ place }) => place.partId === id).length;
  const part = parts.find(({ id }) => id === annotation.partId) ?? parts[0];
  const onDraft = notes.filter(({ place }) => place.partId === null).map(({ id }) => id);
  return (
    <>
      <WholeNoteList ids={onDraft} label={say('onWholeDraft')} render={render} />
      <ReadingParts
        reading={reading}
        exchangeId={exchangeId}
        partId={annotation.partId}
        onPart={(id) => {
          setPage(1);
          annotation.show(id);
        }}
        remark={({ id }) => {
          const here = count(id);
          return here === 0 ? '' : say('notes', { here });
        }}
        above={
          part !== undefined &&
          onNote !== undefined && (
            <WholeNoteBar
              key={`bar ${part.id}`}
              part={part}
              only={parts.length === 1}
              page={part.show === 'pdf' ? page : null}
              onNote={onNote}
            />
          )
        }
        renderPart={(one, address) => (
          <AnnotatedPart
            part={one}
            address={address}
            notes={notes}
            annotation={annotation}
            onPage={setPage}
            {...shared}
          />
        )}
        tall
      />
    </>
  );
}

type AnnotatedPartProps = Omit<AnnotatedDraftProps, 'reading' | 'exchangeId'> & {
  readonly part: PartView;
  readonly address: string;
  readonly onPage: (page: number) => void;
};

function AnnotatedPart({ part, address, notes, annotation, onPage, ...rest }: AnnotatedPartProps) {
  const { render, marginLabel, marginRef, onChoose, onNote, onMove } = rest;
  const { id } = part;
  const { activeId } = annotation;
  const here = useMemo(() => notes.filter(({ place }) => place.partId === id), [notes, id]);
  if (isText(part)) {
    const whole = here.filter(({ place }) => place.selector.type === 'whole');
    return (
      <>
        <WholeNoteList ids={whole.map((one) => one.id)} label={say('onThisPartAsWhole')} render={render} />
        <AnnotatedText part={part} notes={here} annotation={annotation} {...rest} />
      </>
    );
  }
  const shared = {
    notes: here,
    activeId,
    onChoose,
    shorthand: rest.shorthand ?? [],
    onNote:
      onNote && ((kind: NoteKind, selector: Selector, body?: string) => onNote(kind, { partId: id, selector }, body)),
  };
  return (
    <BesidePart
      label={marginLabel}
      marginRef={marginRef}
      ids={here.map((one) => one.id)}
      activeId={activeId}
      render={render}
    >
      {viewOf()}
    </BesidePart>
  );

  function viewOf() {
    const ready = part.copy?.state === 'ready';
    if (ready && part.show === 'pdf') {
      return (
        <Suspense fallback={<Loading what={say('pages')} />}>
          <PageNotes part={part} address={`${address}/copy`} onPage={onPage} {...shared} />
        </Suspense>
      );
    }
    if (ready && part.show === 'picture') return <PictureNotes part={part} address={`${address}/copy`} {...shared} />;
    if (ready && (part.show === 'video' || part.show === 'sound')) {
      return <MediaNotes part={part} address={address} onMove={onMove} {...shared} />;
    }
    return <PartViewer part={part} address={address} />;
  }
}

/** With what is proposed beside what is there, or one of them alone. */
type Reads = 'both' | 'written' | 'proposed';

const waysToRead = (): ReadonlyArray<readonly [Reads, string]> => [
  ['both', say('withBoth')],
  ['written', say('asWritten')],
  ['proposed', say('asProposed')],
];

interface ReadsSwitchProps {
  readonly edits: number;
  readonly reads: Reads;
  readonly onReads: (reads: Reads) => void;
}

function ReadsSwitch({ edits, reads, onReads }: ReadsSwitchProps) {
  return (
    <div role="group" aria-label={say('howTextIsShown')} className="mb-3 flex flex-wrap items-center gap-2 text-sm">
      <span className="text-ink-soft">{say('editsAreProposedShowText', { edits })}</span>
      {waysToRead().map(([one, words]) => (
        <button
          key={one}
          type="button"
          aria-pressed={one === reads}
          onClick={() => onReads(one)}
          className="min-h-6 rounded border border-edge bg-paper px-2 aria-pressed:border-iodine aria-pressed:bg-crust aria-pressed:font-semibold"
        >
          {words}
        </button>
      ))}
    </div>
  );
}

type AnnotatedTextProps = Omit<AnnotatedPartProps, 'address' | 'onPage'>;

function AnnotatedText({ part, notes, annotation, render, onNote, shorthand = [], ...rest }: AnnotatedTextProps) {
  const { marginLabel, marginRef, onChoose } = rest;
  const { onLayout, activeId, layout } = annotation;
  const { id, html } = part;
  const passages = useMemo(
    () =>
      notes.flatMap(({ id: noteId, kind, edit = null, place: { selector } }): Passage[] =>
        selector.type === 'text' ? [{ id: noteId, kind, anchor: selector, edit }] : [],
      ),
    [notes],
  );
  const [reads, setReads] = useState<Reads>('both');
  const edits = passages.filter(({ edit }) => edit != null).length;
  const measured = useCallback((next: DraftLayout) => onLayout(id, next), [onLayout, id]);
  const leave =
    onNote === undefined
      ? {}
      : {
          onNote: (kind: NoteKind, anchor: TextAnchor, body?: string) =>
            onNote(kind, { partId: id, selector: { type: 'text', ...anchor } }, body),
          shorthand,
        };
  return (
    <>
      {edits > 0 && <ReadsSwitch edits={edits} reads={reads} onReads={setReads} />}
      <div className="@2xl:grid @2xl:grid-cols-[minmax(0,1fr)_12.5rem] @2xl:gap-6" data-reads={reads}>
        <DraftText
          html={html ?? ''}
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
    </>
  );
}
