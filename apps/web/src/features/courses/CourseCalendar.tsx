import type { CourseView, ExchangeCard } from '@salt-circle/contracts';
import { localTime, segments, wordsBy, dayOf } from '@salt-circle/core';
import { Link } from 'react-router';
import { useNow } from '../../app/time/useNow.js';
import { toDates } from '../../app/time/dates.js';
import { say } from '../../words/courses.js';

const DAY = 24 * 3_600_000;
const FILLS = {
  drafts: 'bg-kelp/25',
  reviews: 'bg-iodine/25',
  check: 'bg-saffron/25',
  replies: 'bg-dusk/25',
  revision: 'bg-copper/25',
  after: 'bg-dusk/15',
} as const;
const WORDS = wordsBy(say, {
  drafts: 'drafts',
  reviews: 'reviews',
  check: 'check',
  replies: 'answers',
  revision: 'revision',
  after: 'feedback',
});
/** How long the open-ended last stretch is drawn. */
const AFTER = 3 * DAY;

/** All exchanges of a course on one axis of time, so that overlapping deadlines show. */
export function CourseCalendar({
  exchanges,
  holidays,
  timeZone,
}: {
  readonly exchanges: readonly ExchangeCard[];
  readonly holidays: CourseView['holidays'];
  readonly timeZone: string;
}) {
  const now = useNow();
  const rows = exchanges
    .map((exchange) => ({ exchange, parts: segments(toDates(exchange.dates)) }))
    .filter(({ parts }) => parts.length > 0);
  if (rows.length === 0) return null;
  const ends = rows.flatMap(({ parts }) => parts.flatMap(({ from, until }) => [from, until ?? from + AFTER]));
  const first = Math.min(...ends, now) - DAY;
  const last = Math.max(...ends, now) + DAY;
  const share = (at: number) => `${(((at - first) / (last - first)) * 100).toFixed(2)}%`;
  return (
    <figure className="mb-9 hidden overflow-x-clip md:block" aria-label={say('exchangesOnOneCalendar')}>
      <div className="relative">
        {weeks(first, last).map((at, index, all) => (
          <span
            key={at}
            className="absolute top-0 bottom-0 border-l border-line pl-1 text-xs whitespace-nowrap text-ink-soft"
            style={{ left: share(at) }}
          >
            {dayOf(at, timeZone)}
            {yearOf(at, timeZone) !== yearOf(all[index - 1] ?? now, timeZone) && ` ${yearOf(at, timeZone)}`}
          </span>
        ))}
        {holidays.map(({ title, from, to }) => {
          const begins = Math.max(Date.parse(from), first);
          const ends = Math.min(Date.parse(to) + DAY, last);
          if (ends <= begins) return null;
          return (
            <span
              key={title + from}
              title={title}
              className="absolute top-5 bottom-0 overflow-hidden border-x border-dashed border-saffron bg-saffron-ground px-1 text-xs whitespace-nowrap text-saffron"
              style={{ left: share(begins), width: `${(((ends - begins) / (last - first)) * 100).toFixed(2)}%` }}
            >
              {title}
            </span>
          );
        })}
        <span
          className="absolute top-6 bottom-0 z-10 flex items-end border-l border-madder text-xs text-madder"
          style={{ left: share(now) }}
        >
          <span className="translate-y-full pl-1">{say('now')}</span>
        </span>
        <ul className="space-y-1 pt-7 pb-2">
          {rows.map(({ exchange, parts }) => (
            <li key={exchange.id}>
              <Link
                to={`/exchanges/${exchange.id}`}
                className="block text-ink no-underline hover:underline"
                aria-label={exchange.title}
              >
                {/* Above its bars, whatever their length: of a short one only the first letter would be left. */}
                <span
                  className="relative z-10 block truncate text-xs font-semibold"
                  style={{ paddingLeft: `min(${share(parts[0]?.from ?? first)}, 70%)` }}
                >
                  {exchange.title}
                </span>
                <span className="relative block h-6">
                  {parts.map(({ key, from, until }) => (
                    <span
                      key={key}
                      className={`absolute top-0 bottom-0 overflow-hidden border-l-2 border-salt px-1 text-xs leading-6 text-ink ${FILLS[key]}`}
                      style={{
                        left: share(from),
                        width: `${((((until ?? from + AFTER) - from) / (last - first)) * 100).toFixed(2)}%`,
                      }}
                    >
                      {WORDS[key]}
                    </span>
                  ))}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </div>
    </figure>
  );
}

function yearOf(at: number, timeZone: string): number {
  return localTime(at, timeZone).year;
}

/** Every seventh day of the axis; at most a dozen marks. */
function weeks(first: number, last: number): number[] {
  const step = Math.ceil((last - first) / DAY / 84) * 7 * DAY;
  const marks: number[] = [];
  for (let at = Math.ceil(first / DAY) * DAY; at < last - 5 * DAY; at += step) marks.push(at);
  return marks;
}
