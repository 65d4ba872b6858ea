import { useEffect, useRef, useState } from 'react';
import { say } from '../words/kit.js';

export type SaveState =
  'saved' | 'unsaved' | 'saving' | 'offline' | 'unanswered' | 'signed-out' | 'refused' | 'conflict';

export interface SaveMarkProps {
  readonly state: SaveState;
  /** Time of day at which the last save was confirmed, in words; null when nothing was saved yet. */
  readonly savedAt: string | null;
}

/** Who types on is told of a save once, and again after a pause so long; milliseconds. */
const QUIET = 30_000;

/** The saved state, always in words. Trouble is spoken at once, a save only after a pause: saves follow each other all the time. */
export function SaveMark({ state, savedAt }: SaveMarkProps) {
  const [words, colour] = describe(state, savedAt);
  const last = useRef(-Infinity);
  const [due, setDue] = useState(true);
  useEffect(() => {
    if (state === 'unsaved') setDue(performance.now() - last.current > QUIET);
    if (state === 'saved') last.current = performance.now();
  }, [state]);
  const quiet = state === 'unsaved' || state === 'saving' || (state === 'saved' && !due);
  return (
    <span role="status" aria-live={quiet ? 'off' : 'polite'} data-save-state={state} className={`text-sm ${colour}`}>
      {words}
    </span>
  );
}

function describe(state: SaveState, savedAt: string | null): readonly [string, string] {
  switch (state) {
    case 'saved':
      return [savedAt === null ? say('allSaved') : say('saved', { savedAt }), 'text-ink-soft'];
    case 'unsaved':
    case 'saving':
      return [say('saving'), 'text-ink-soft'];
    case 'offline':
      return [say('noConnectionKeptInThis'), 'text-copper'];
    case 'unanswered':
      return [say('notSavedYet'), 'text-copper'];
    case 'signed-out':
      return [say('signedOutKeptInThis'), 'text-copper'];
    case 'refused':
      return [say('notSavedSeeWhatIs'), 'text-madder'];
    case 'conflict':
      return [say('changedElsewhereChooseWhichTo'), 'text-madder'];
  }
}
