import { resolveDates, exactly } from '@salt-circle/core';
import { useParams } from 'react-router';
import { Menu, type MenuItem } from '../../kit/index.js';
import { useExchangeQuery, useMoveClockMutation, useSessionQuery } from '../api.js';
import { toDates } from '../time/dates.js';
import { useNow } from '../time/useNow.js';
import { say } from '../../words/app.js';

const HOUR = 3_600_000;

const goToTimes = () =>
  [
    ['draftsOpen', say('goToWhenDraftsOpen')],
    ['draftsDue', say('goToHourBeforeDrafts')],
    ['reviewsOpen', say('goToWhenReviewingOpens')],
    ['reviewsDue', say('goToWhenReviewsAre')],
    ['release', say('goToWhenFeedbackIs')],
    ['repliesDue', say('goToWhenAnswersAre')],
    ['revisionDue', say('goToHourBeforeRevisions')],
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
    { words: say('oneHourOn'), onPick: () => go(now + HOUR) },
    { words: say('oneDayOn'), onPick: () => go(now + 24 * HOUR) },
    { words: say('oneDayBack'), onPick: () => go(now - 24 * HOUR) },
  ];
  const resolved = exchange === undefined ? null : resolveDates(toDates(exchange.dates));
  const dates: MenuItem[] = goToTimes().flatMap(([name, words]) => {
    const at = resolved?.[name];
    if (at == null) return [];
    return [{ words, onPick: () => go(at + (name === 'draftsDue' || name === 'revisionDue' ? -HOUR : 61_000)) }];
  });
  const back: MenuItem[] =
    session?.clockMoved === true ? [{ words: say('backToRealTime'), onPick: () => go(null) }] : [];
  const zone = exchange?.course.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  const time = exactly(now, zone, now).replace(/ \S+$/, '');
  return (
    <Menu
      trigger={
        <button
          type="button"
          className="min-h-6 rounded border border-dashed border-edge px-2 py-0.5 text-xs whitespace-nowrap text-ink-soft"
          aria-label={say('demo', { time })}
          title={say('demosTimeItCanBe')}
        >
          {say('demoOf', { time, span: (words) => <span className="hidden md:inline">{words}</span> })}
        </button>
      }
      groups={[steps, dates, back].filter((group) => group.length > 0)}
    />
  );
}
