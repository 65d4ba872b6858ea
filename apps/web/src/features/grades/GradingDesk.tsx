import type { GradeRow, GradesView } from '@salt-circle/contracts';
import { useState } from 'react';
import { Link, NavLink, Outlet, useLocation, useParams, useSearchParams } from 'react-router';
import { useNameKey } from '../../app/boards/nameOrder.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { useQueueQuery } from '../../app/moderation/checkApi.js';
import { labelWords } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useMe } from '../../app/session/useMe.js';
import { useExchange } from '../../app/useExchange.js';
import { Empty, Loading } from '../../kit/index.js';
import { DeskHead } from './DeskHead.js';
import { useGradesQuery } from './gradesApi.js';
import { Marking } from './Marking.js';
import { TheGrade } from './TheGrade.js';
import { asked, isOf, ordered, type Order } from './work.js';
import { say } from '../../words/grades.js';

/** One person after the other: the work on one side, the marks and the grade on the other. */
export function GradingDesk() {
  const exchange = useExchange();
  const { data, error } = useGradesQuery(exchange.id, {
    refetchOnMountOrArgChange: true,
    pollingInterval: usePolling(30_000),
  });
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('grades')} />;
  return <Desk view={data} />;
}

function Desk({ view }: { readonly view: GradesView }) {
  const exchange = useExchange();
  const { participantId = '' } = useParams();
  const [params] = useSearchParams();
  const me = useMe();
  const nameKey = useNameKey();
  const { data: queue } = useQueueQuery(exchange.id);
  const works = asked(view);
  const order = (params.get('order') ?? 'name') as Order;
  const mine = params.get('whose') === 'mine';
  const listed = () => {
    const byName = view.rows.toSorted((a, b) => nameKey(a.person).localeCompare(nameKey(b.person)));
    const sorted = ordered(byName, order, works, queue);
    // Whoever is in view stays, whose ever that is.
    return mine ? sorted.filter((one) => one.id === participantId || isOf(one, works, me.id)) : sorted;
  };
  const rows = useStanding(view.rows, `${order} ${mine} ${queue === undefined}`, listed);
  const row = view.rows.find(({ id }) => id === participantId);
  if (row === undefined) {
    return (
      <Empty title={say('thereIsNobodyLikeThat')}>
        <Link to={`/exchanges/${exchange.id}/grades`} className="text-dusk underline">
          {say('allGrades')}
        </Link>
      </Empty>
    );
  }
  return (
    <>
      <DeskHead view={view} rows={rows} row={row} />
      <div className="grid flex-1 grid-cols-1 border-t border-line lg:grid-cols-[3fr_2fr]" key={row.id}>
        <div className="min-w-0">
          <Beside row={row} />
          <Outlet context={exchange} />
        </div>
        <aside
          aria-label={say('marksAndGrade')}
          className="min-w-0 space-y-6 border-l border-line bg-crust px-5 py-4 lg:sticky lg:top-0 lg:max-h-dvh lg:overflow-y-auto"
        >
          <Marking view={view} row={row} />
          <TheGrade view={view} row={row} />
        </aside>
      </div>
    </>
  );
}

/**
 * In an order that stands while one goes along: whoever is graded keeps the place, and the next one is the next.
 *
 * @param chosen the order is made anew once this is something else
 */
function useStanding(rows: readonly GradeRow[], chosen: string, list: () => readonly GradeRow[]): readonly GradeRow[] {
  const [standing, setStanding] = useState<{ readonly chosen: string; readonly ids: readonly string[] } | null>(null);
  let ids = standing?.ids ?? [];
  if (standing?.chosen !== chosen) {
    ids = list().map(({ id }) => id);
    setStanding({ chosen, ids });
  }
  const known = new Map(rows.map((row) => [row.id, row]));
  return ids.flatMap((id) => known.get(id) ?? []);
}

/** What of this person’s work is beside the marks. */
function Beside({ row }: { readonly row: GradeRow }) {
  const exchange = useExchange();
  const { search } = useLocation();
  const { data: queue } = useQueueQuery(exchange.id);
  const authors = new Map(queue?.rows.map(({ reviewId, author }) => [reviewId, labelWords(author)]));
  const look =
    '-mb-px border-b-2 border-transparent py-2 text-ink-soft no-underline aria-[current=page]:border-iodine aria-[current=page]:font-semibold aria-[current=page]:text-ink';
  const base = `/exchanges/${exchange.id}/grades/${row.id}`;
  return (
    <nav aria-label={say('workOfThisPerson')} className="no-print flex flex-wrap gap-x-5 border-b border-line px-6">
      <NavLink to={`${base}${search}`} end className={look}>
        {say('draftLabel')}
      </NavLink>
      {row.reviewIds.map((id, index) => (
        <NavLink key={id} to={`${base}/given/${id}${search}`} className={look}>
          {authors.has(id) ? say('reviewOf', { get: authors.get(id) }) : say('reviewOf2', { index: index + 1 })}
        </NavLink>
      ))}
      {row.draftId !== null && exchange.dates.revisionDue !== null && (
        <NavLink to={`${base}/revision/${row.draftId}${search}`} className={look}>
          {say('revision')}
        </NavLink>
      )}
    </nav>
  );
}
