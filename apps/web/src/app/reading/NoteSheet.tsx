import { X } from 'lucide-react';
import { useEffect, useRef, type ReactNode } from 'react';
import { say } from '../../words/app.js';

interface NoteSheetProps {
  /** The note that was pressed; null for none. */
  readonly noteId: string | null;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A note at the bottom of the window, over the draft that stays in sight: where there is no margin to show it in. */
export function NoteSheet({ noteId, onClose, children }: NoteSheetProps) {
  const frame = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (noteId !== null) frame.current?.focus({ preventScroll: true });
  }, [noteId]);
  if (noteId === null) return null;
  return (
    <div
      ref={frame}
      role="dialog"
      aria-label={say('noteOnThisPassage')}
      tabIndex={-1}
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
      className="fixed inset-x-0 bottom-0 z-30 max-h-[50dvh] overflow-y-auto border-t border-edge bg-paper px-4 pt-2 pb-5 shadow-lg"
    >
      <button
        type="button"
        aria-label={say('closeNote')}
        title={say('closeNoteEsc')}
        onClick={onClose}
        className="float-right rounded p-1.5 text-ink-soft hover:bg-crust hover:text-ink"
      >
        <X size={18} strokeWidth={1.75} aria-hidden="true" />
      </button>
      {children}
    </div>
  );
}
