export type SaveState = 'saved' | 'unsaved' | 'saving' | 'offline' | 'signed-out' | 'refused' | 'conflict';

export interface SaveMarkProps {
  readonly state: SaveState;
  /** Time of day at which the last save was confirmed, in words; null when nothing was saved yet. */
  readonly savedAt: string | null;
}

/** The saved state, always in words. */
export function SaveMark({ state, savedAt }: SaveMarkProps) {
  const [words, colour] = describe(state, savedAt);
  return (
    <span role="status" aria-live="polite" data-save-state={state} className={`text-sm ${colour}`}>
      {words}
    </span>
  );
}

function describe(state: SaveState, savedAt: string | null): readonly [string, string] {
  switch (state) {
    case 'saved':
      return [savedAt === null ? 'All saved' : `Saved ${savedAt}`, 'text-ink-soft'];
    case 'unsaved':
    case 'saving':
      return ['Saving…', 'text-ink-soft'];
    case 'offline':
      return ['No connection: kept in this browser, sent when it is back', 'text-copper'];
    case 'signed-out':
      return ['Signed out: kept in this browser until you sign in', 'text-copper'];
    case 'refused':
      return ['Not saved: see what is marked', 'text-madder'];
    case 'conflict':
      return ['Changed elsewhere: choose which to keep', 'text-madder'];
  }
}
