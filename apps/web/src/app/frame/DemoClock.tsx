import { resolveDates } from '@salt-circle/core';
import { useParams } from 'react-router';
import { Menu, type MenuItem } from '../../kit/index.js';
import { useExchangeQuery, useMoveClockMutation, useSessionQuery } from '../api.js';
import { toDates } from '../time/dates.js';
import { useNow } from '../time/useNow.js';
import { exactly } from '../time/words.js';

const HOUR = 3_600_000;

const GO_TO = [
  ['draftsOpen', 'Go to when drafts open'],
  ['draftsDue', 'Go to an hour before drafts are due'],
  ['reviewsOpen', 'Go to when reviewing opens'],
  ['reviewsDue', 'Go to when reviews are due'],
  ['release', 'Go to when feedback is released'],
  ['repliesDue', 'Go to when answers are over'],
  ['revisionDue', 'Go to an hour before revisions are due'],
] as const;

/** Moves the application's time, in the demo. In an exchange it offers that exchange's dates. */
export function DemoClock() {
  const { data: session } = useSessionQuery();
  const { exchangeId } = useParams();
  const { data: exchange } = useExchangeQuery(exchangeId ?? '', {
    skip: exchangeId === undefined || session?.person == null,
  });
  const [moveClock] = useMoveClockMutation();
  const now = useNow();
  const go = (at: number | null) => void moveClock(at === null ? null : new Date(at).toISOString());
  const steps: MenuItem[] = [
    { words: 'One hour on', onPick: () => go(now + HOUR) },
    { words: 'One day on', onPick: () => go(now + 24 * HOUR) },
    { words: 'One day back', onPick: () => go(now - 24 * HOUR) },
  ];
  const resolved = exchange === undefined ? null : resolveDates(toDates(exchange.dates));
  const dates: MenuItem[] = GO_TO.flatMap(([name, words]) => {
    const at = resolved?.[name];
    if (at == null) return [];
    return [{ words, onPick: () => go(at + (name === 'draftsDue' || name === 'revisionDue' ? -HOUR : 61_000)) }];
  });
  const back: MenuItem[] =
    session?.clockMoved === true ? [{ words: 'Back to the real time', onPick: () => go(null) }] : [];
  const zone = exchange?.course.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  const time = exactly(now, zone, now).replace(/ \S+$/, '');
  return (
    <Menu
      trigger={
        <button
          type="button"
          className="min-h-6 rounded border border-dashed border-edge px-2 py-0.5 text-xs whitespace-nowrap text-ink-soft"
          aria-label={`Demo, ${time}`}
          title="The demo’s time: it can be moved"
        >
          Demo<span className="hidden md:inline">, {time}</span>
        </button>
      }
      groups={[steps, dates, back].filter((group) => group.length > 0)}
    />
  );
}
