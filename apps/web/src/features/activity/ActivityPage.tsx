import type { AuditRow } from '@salt-circle/contracts';
import { exactly, listed, PART_WORDS, type GradePartName } from '@salt-circle/core';
import { useMemo, useState } from 'react';
import { api, problemOf } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { percent } from '../../app/percent.js';
import { useNow } from '../../app/time/useNow.js';
import { useExchange } from '../../app/useExchange.js';
import {
  BoardTable,
  Empty,
  Loading,
  Select,
  sortedRows,
  TextField,
  type BoardColumn,
  type BoardSort,
} from '../../kit/index.js';
import { say } from '../../words/activity.js';
import {
  ACTIVITY_KINDS,
  activityWords,
  DATE_WORDS,
  KIND_WORDS,
  kindOf,
  sectionsOf,
  type ActivityKind,
} from './acts.js';

const { useActivityQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    activity: build.query<AuditRow[], string>({ query: (id) => `/exchanges/${id}/activity` }),
  }),
});

/** Who did what to whom, from what to what, and why. */
export function ActivityPage() {
  const exchange = useExchange();
  const { data, error } = useActivityQuery(exchange.id, { refetchOnMountOrArgChange: true });
  const [wanted, setWanted] = useState('');
  const [person, setPerson] = useState('');
  const [kind, setKind] = useState<ActivityKind | ''>('');
  const [sort, setSort] = useState<BoardSort>({ key: 'when', down: true });
  const people = useMemo(
    () => [...new Set(data?.flatMap(({ actor, about }) => [actor, ...about]))].sort((a, b) => a.localeCompare(b)),
    [data],
  );
  const columns = useColumns(exchange.course.timeZone);
  if (error !== undefined) return <ProblemNotice error={problemOf(error)} />;
  if (data === undefined) return <Loading what={say('loading')} />;
  const rows = data.filter((row) => isShown(row, { wanted, person, kind }));
  return (
    <div className="min-w-0 px-5 py-5">
      <div className="mb-3 flex flex-wrap items-end justify-between gap-3">
        <h2 className="text-xl font-semibold">
          {say('title')}{' '}
          <span className="text-base font-normal text-ink-soft">
            {say('entries', {
              shown: rows.length,
              total: data.length,
              all: rows.length === data.length ? 'yes' : 'no',
            })}
          </span>
        </h2>
        <a href={`/api/exchanges/${exchange.id}/activity.csv`} download>
          {say('exportCsv')}
        </a>
      </div>
      <div className="mb-3 flex flex-wrap gap-3">
        <div className="w-64 max-w-full">
          <TextField label={say('find')} value={wanted} onChange={({ target }) => setWanted(target.value)} />
        </div>
        <div className="w-56 max-w-full">
          <Select
            label={say('filterPerson')}
            value={person}
            options={[['', say('everyone')], ...people.map((name) => [name, name] as const)]}
            onChange={setPerson}
          />
        </div>
        <div className="w-56 max-w-full">
          <Select
            label={say('filterKind')}
            value={kind}
            options={[['', say('everything')], ...ACTIVITY_KINDS.map((one) => [one, KIND_WORDS[one]] as const)]}
            onChange={(next) => setKind(next as ActivityKind | '')}
          />
        </div>
      </div>
      {rows.length === 0 ? (
        <Empty title={say('empty')} />
      ) : (
        <BoardTable
          label={say('tableLabel')}
          columns={columns}
          rows={sortedRows(rows, columns, sort)}
          rowKey={({ id }) => String(id)}
          sort={sort}
          onSort={setSort}
        />
      )}
    </div>
  );
}

interface Wanted {
  readonly wanted: string;
  readonly person: string;
  readonly kind: ActivityKind | '';
}

function isShown(row: AuditRow, { wanted, person, kind }: Wanted): boolean {
  if (kind !== '' && kindOf(row.action) !== kind) return false;
  if (person !== '' && row.actor !== person && !row.about.includes(person)) return false;
  const text = [activityWords(row), ...row.about, row.reason ?? '', ...sectionsOf(row.changed)].join(' ').toLowerCase();
  return wanted
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

function useColumns(timeZone: string): ReadonlyArray<BoardColumn<AuditRow>> {
  const now = useNow();
  return [
    {
      key: 'when',
      head: say('when'),
      sort: ({ id }) => id,
      cell: ({ at }) => (
        <time dateTime={at} className="whitespace-nowrap text-ink-soft">
          {exactly(Date.parse(at), timeZone, now)}
        </time>
      ),
    },
    { key: 'what', head: say('what'), cell: (row) => <What row={row} timeZone={timeZone} now={now} /> },
  ];
}

interface WhatProps {
  readonly row: AuditRow;
  readonly timeZone: string;
  readonly now: number;
}

function What({ row, timeZone, now }: WhatProps) {
  const { moved, grade, changed, reason } = row;
  const sections = sectionsOf(changed);
  const at = (time: string | null) => (time === null ? say('notSet') : exactly(Date.parse(time), timeZone, now));
  const share = (value: number | null) => (value === null ? say('computed') : percent(value));
  const lines = [
    ...moved.map(({ date, from, to }) => say('moved', { date: DATE_WORDS[date], from: at(from), to: at(to) })),
    ...(grade === null
      ? []
      : [say('override', { part: partWords(grade.part), from: share(grade.from), to: share(grade.to) })]),
    ...(sections.length > 0 ? [say('settings', { sections: listed(sections) })] : []),
    ...(reason === null ? [] : [say('reason', { reason })]),
  ];
  return (
    <>
      {activityWords(row)}
      {lines.map((line) => (
        <span key={line} className="text-ink-soft">
          {' · '}
          {line}
        </span>
      ))}
    </>
  );
}

function partWords(part: string): string {
  return part === 'whole' ? say('finalGrade') : PART_WORDS[part as GradePartName];
}
