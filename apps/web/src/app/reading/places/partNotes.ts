import type { NoteKind, ShorthandEntry } from '@salt-circle/contracts';
import type { Selector } from '@salt-circle/core';
import type { PlacedNote } from '../useAnnotation.js';

/** What every way of showing a part with its notes has. */
export interface PartNotesProps {
  /** Those that stand on this part. */
  readonly notes: readonly PlacedNote[];
  readonly activeId: string | null;
  readonly onChoose: (id: string) => void;
  /** Absent: the draft is read, not annotated. */
  readonly onNote?: ((kind: NoteKind, selector: Selector, body?: string) => void) | undefined;
  /** Labels that leave a Fix note at one press. */
  readonly shorthand: readonly ShorthandEntry[];
}
