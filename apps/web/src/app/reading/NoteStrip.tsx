import type { PartView } from '@salt-circle/contracts';
import type { DraftLayout } from './DraftText.js';
import { KIND_FILL } from './noteKinds.js';
import { wayThrough } from './places/whereabouts.js';
import type { PlacedNote } from './useAnnotation.js';

interface NoteStripProps {
  readonly notes: readonly PlacedNote[];
  /** The part that is shown. */
  readonly part: PartView | undefined;
  readonly layout: DraftLayout | null;
}

/** Ticks that show where in the part the notes are: down its text, its pages or its picture, or along its time. */
export function NoteStrip({ notes, part, layout }: NoteStripProps) {
  if (part === undefined) return null;
  return (
    <div aria-hidden="true">
      {notes.map((note) => {
        const way = note.place.partId === part.id ? wayThrough(note, part, layout) : null;
        if (way === null) return null;
        return (
          <span
            key={note.id}
            className={`absolute right-0.5 left-0.5 h-[3px] ${KIND_FILL[note.kind]}`}
            style={{ top: `${Math.max(0, Math.min(99, way * 100)).toFixed(2)}%` }}
          />
        );
      })}
    </div>
  );
}
