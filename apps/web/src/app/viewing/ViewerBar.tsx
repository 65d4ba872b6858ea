import type { ReactNode } from 'react';

/** The strip of commands above a page, a picture or a film. */
export function ViewerBar({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  return (
    <div
      role="toolbar"
      aria-label={label}
      className="flex flex-wrap items-center gap-1 border-b border-line bg-paper px-2 py-1"
    >
      {children}
    </div>
  );
}

export interface BarButtonProps {
  readonly words: string;
  readonly disabled?: boolean;
  readonly pressed?: boolean;
  /** @param byKey it was pressed by a key, not by a pointer */
  readonly onPress: (byKey: boolean) => void;
}

export function BarButton({ words, disabled = false, pressed, onPress }: BarButtonProps) {
  return (
    <button
      type="button"
      disabled={disabled}
      aria-pressed={pressed}
      onClick={({ detail }) => onPress(detail === 0)}
      className="rounded px-2 py-0.5 text-sm hover:bg-crust disabled:text-ink-soft aria-pressed:bg-crust aria-pressed:font-semibold"
    >
      {words}
    </button>
  );
}
