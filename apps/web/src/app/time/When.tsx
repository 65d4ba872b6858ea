import { exactly } from '@salt-circle/core';
import { exactFirst, inWords } from './words.js';
import { useNow } from './useNow.js';
import { say } from '../../words/app.js';

const OWN_ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone;

export interface WhenProps {
  readonly at: string;
  readonly timeZone: string;
  /** The exact time first: behind "until", which no "in 2 days" can follow. */
  readonly exact?: boolean;
}

/** Relative and exact time together, in the time zone of the course; elsewhere, one's own in addition. */
export function When({ at, timeZone, exact = false }: WhenProps) {
  const now = useNow();
  const time = Date.parse(at);
  const words = (exact ? exactFirst : inWords)(time, timeZone, now);
  const elsewhere = offsetAt(time, OWN_ZONE) !== offsetAt(time, timeZone);
  return (
    <time dateTime={at}>
      {elsewhere
        ? say('whereYouAre', {
            time: words,
            when: exactly(time, OWN_ZONE, now),
            own: (also) => <span className="text-ink-soft">{also}</span>,
          })
        : words}
    </time>
  );
}

function offsetAt(at: number, timeZone: string): string {
  const parts = new Intl.DateTimeFormat('en', { timeZone, timeZoneName: 'longOffset' }).formatToParts(at);
  return parts.find(({ type }) => type === 'timeZoneName')?.value ?? '';
}
