import type { DeskView } from '@salt-circle/contracts';
import type { Selector } from '@salt-circle/core';
import { memo, type ReactNode, type Ref } from 'react';
import { AnnotatedDraft, type AnnotatedDraftProps } from '../../app/reading/AnnotatedDraft.js';
import type { Annotation } from '../../app/reading/useAnnotation.js';
import type { Notes } from './notes/useNotes.js';
import { say } from '../../words/desk.js';

export interface DeskDraftProps {
  readonly desk: Pick<DeskView, 'draft' | 'exchange' | 'editable' | 'shorthand' | 'files'>;
  readonly notes: Notes;
  readonly annotation: Annotation;
  readonly margin: Ref<HTMLElement>;
  readonly card: (id: string, quoted: boolean) => ReactNode;
  readonly onChoose: (id: string) => void;
  /** Beside the title. */
  readonly tools: ReactNode;
}

/**
 * Drawn anew only when its notes, or which of them is chosen, have changed: what is typed into the form beside it is none of its
 * business, and a long draft with many notes takes longer than a frame. The functions that it is given do the same as long as
 * these are the same.
 */
const StillDraft = memo(DraftOf, (before, now) => {
  const [one, two] = [before.annotation, now.annotation];
  return (
    before.reading === now.reading &&
    before.notes === now.notes &&
    before.files === now.files &&
    (before.onNote === undefined) === (now.onNote === undefined) &&
    one.partId === two.partId &&
    one.activeId === two.activeId &&
    one.layout === two.layout
  );
});

/** @param files that its notes show */
function DraftOf({ files: _, ...draft }: AnnotatedDraftProps & Pick<DeskView, 'files'>) {
  return <AnnotatedDraft {...draft} />;
}

/** The draft with its notes; while the review is open, notes can be left on every text of it. */
export function DeskDraft({ desk, notes, annotation, margin, card, onChoose, tools }: DeskDraftProps) {
  const { draft, exchange, editable } = desk;
  const writing = editable
    ? {
        onNote: (...note: Parameters<Notes['add']>) => onChoose(notes.add(...note)),
        shorthand: desk.shorthand,
        onMove: (id: string, selector: Selector) => {
          const note = notes.list.find((one) => one.id === id);
          if (note !== undefined) notes.change(id, { place: { ...note.place, selector } });
        },
      }
    : {};
  return (
    <div className="@container relative h-full overflow-y-auto px-6 py-5" data-scroll="draft">
      <div className="mb-4 flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1">
        <h2 className="font-serif text-2xl font-semibold">{draft.title}</h2>
        <div className="flex gap-1">{tools}</div>
      </div>
      <StillDraft
        files={desk.files}
        reading={draft}
        exchangeId={exchange.id}
        notes={notes.list}
        annotation={annotation}
        render={(id) => card(id, false)}
        marginLabel={say('notesBesideDraft')}
        marginRef={margin}
        onChoose={onChoose}
        {...writing}
      />
    </div>
  );
}
