import type { NoteKind } from '@salt-circle/contracts';
import { Key } from '../../kit/index.js';
import { KINDS, KIND_TEXT } from './noteKinds.js';

export interface SelectionBarProps {
  /** The selected passage, in the window. */
  readonly at: DOMRect;
  readonly onPick: (kind: NoteKind) => void;
}

const HEIGHT = 44;

/** Over, or else under, the selected passage: the four kinds of notes with their keys. */
export function SelectionBar({ at, onPick }: SelectionBarProps) {
  const above = at.top > HEIGHT + 60;
  return (
    <div
      role="toolbar"
      aria-label="Leave a note on the selected passage"
      // Keeps the selection: a press would otherwise move the focus and clear it.
      onMouseDown={(event) => event.preventDefault()}
      className="fixed z-30 flex gap-1 rounded border border-line bg-paper p-1 shadow-lg"
      style={{
        top: above ? at.top - HEIGHT : at.bottom + 8,
        left: Math.max(8, Math.min(at.left, window.innerWidth - 360)),
      }}
    >
      {KINDS.map(({ kind, word, key, hint }) => (
        <button
          key={kind}
          type="button"
          title={hint}
          onClick={() => onPick(kind)}
          className={`flex items-center gap-1.5 rounded px-2 py-1 font-medium hover:bg-crust ${KIND_TEXT[kind]}`}
        >
          {word} <Key>{key}</Key>
        </button>
      ))}
    </div>
  );
}
