import type { DatesView } from '@salt-circle/contracts';
import { OPTIONAL_DATES, resolveDates, type DateName } from '@salt-circle/core';
import { useId } from 'react';
import { toDates } from '../../app/time/dates.js';
import { useNow } from '../../app/time/useNow.js';
import { exactly, inWords } from '../../app/time/words.js';
import { fromLocal, toLocal } from './localDate.js';
import { SettingsGroup } from './SettingsGroup.js';

const ROWS: ReadonlyArray<readonly [DateName, string, string]> = [
  ['draftsOpen', 'Drafts open', 'from then on authors can write and hand in'],
  ['draftsDue', 'Drafts due', ''],
  ['reviewsOpen', 'Reviews open', 'blank: when drafts are due'],
  ['reviewsDue', 'Reviews due', ''],
  ['release', 'Release feedback', 'blank: when reviews are due'],
];

export interface DateRowsProps {
  readonly dates: DatesView;
  readonly timeZone: string;
  readonly problemAt: (path: string) => string | undefined;
  readonly onChange: (dates: DatesView) => void;
  readonly startOpen: boolean;
}

export function DateRows({ dates, timeZone, problemAt, onChange, startOpen }: DateRowsProps) {
  const now = useNow();
  const resolved = resolveDates(toDates(dates));
  const summary =
    resolved === null
      ? 'Some dates are missing'
      : `Drafts until ${exactly(resolved.draftsDue, timeZone, now)}; reviews until ${exactly(resolved.reviewsDue, timeZone, now)}`;
  return (
    <SettingsGroup title="When" summary={summary} startOpen={startOpen}>
      <p className="text-sm text-ink-soft">All times in {timeZone.replaceAll('_', ' ')}, the course’s time zone.</p>
      {ROWS.map(([name, words, hint]) => (
        <DateRow
          key={name}
          words={words}
          hint={
            dates[name] === null
              ? OPTIONAL_DATES.has(name)
                ? hint
                : 'not set'
              : inWords(Date.parse(dates[name]), timeZone, now)
          }
          problem={problemAt(`dates.${name}`)}
          value={toLocal(dates[name], timeZone)}
          onChange={(local) => onChange({ ...dates, [name]: fromLocal(local, timeZone) })}
        />
      ))}
    </SettingsGroup>
  );
}

interface RowProps {
  readonly words: string;
  readonly hint: string;
  readonly problem: string | undefined;
  readonly value: string;
  readonly onChange: (local: string) => void;
}

function DateRow({ words, hint, problem, value, onChange }: RowProps) {
  const id = useId();
  return (
    <div className="grid grid-cols-1 items-center gap-x-4 gap-y-1 sm:grid-cols-[9rem_14rem_1fr]">
      <label htmlFor={id}>{words}</label>
      <input
        id={id}
        type="datetime-local"
        max="2099-12-31T23:59"
        value={value}
        onChange={(event) => onChange(event.target.value)}
        aria-invalid={problem !== undefined || undefined}
        aria-describedby={`${id}-about`}
        className={`rounded border bg-paper px-2.5 py-1.5 ${problem === undefined ? 'border-edge' : 'border-madder'}`}
      />
      <p
        id={`${id}-about`}
        role={problem === undefined ? undefined : 'alert'}
        className={`text-sm ${problem === undefined ? 'text-ink-soft' : 'text-madder'}`}
      >
        {problem ?? hint}
      </p>
    </div>
  );
}
