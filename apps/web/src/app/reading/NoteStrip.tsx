import type { NoteKind } from '@salt-circle/contracts';
import type { DraftLayout } from './DraftText.js';
import { KIND_FILL } from './noteKinds.js';

/** Ticks that show where in the draft the notes are. */
export function NoteStrip({
  notes,
  layout,
}: {
  readonly notes: ReadonlyArray<{ readonly id: string; readonly kind: NoteKind }>;
  readonly layout: DraftLayout | null;
}) {
  if (layout === null || layout.height === 0) return null;
  return (
    <div aria-hidden="true">
      {notes.map(({ id, kind }) => {
        const top = layout.tops.get(id);
        if (top === undefined) return null;
        return (
          <span
            key={id}
            className={`absolute right-0.5 left-0.5 h-[3px] ${KIND_FILL[kind]}`}
            style={{ top: `${Math.max(0, Math.min(99, (top / layout.height) * 100)).toFixed(2)}%` }}
          />
        );
      })}
    </div>
  );
}
