import type { GradeRow, GradesView } from '@salt-circle/contracts';
import { counted, listed, GRADING_WORKS, type GradingWork } from '@salt-circle/core';
import { useEffect, useState } from 'react';
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams, useSearchParams } from 'react-router';
import { useNameKey } from '../../app/boards/nameOrder.js';
import { Steps } from '../../app/boards/Steps.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { useDraftFeedbackQuery, useQueueQuery } from '../../app/check/checkApi.js';
import { labelWords, Person } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useMe } from '../../app/session/useMe.js';
import { useExchange } from '../../app/useExchange.js';
import { Empty, Loading, Select } from '../../kit/index.js';
import { MarkDraft } from './MarkDraft.js';
import { MarkReviewing } from './MarkReviewing.js';
import { TheGrade } from './TheGrade.js';
import { useAssignGraderMutation, useGradesQuery, usePresentMutation } from './gradesApi.js';
import { asked, gradedOf, GRADED_WORDS, isOf, ordered, ORDERS, workWords, type Graded, type Order } from './work.js';

/** One person after the other: the work on one side, the marks and the grade on the other. */
export function GradingDesk() {
  const exchange = useExchange();
  const { data, error } = useGradesQuery(exchange.id, {
    refetchOnMountOrArgChange: true,
    pollingInterval: usePolling(30_000),
  });
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what="the grades" />;
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
      <Empty title="There is nobody like that in this exchange any more.">
        <Link to={`/exchanges/${exchange.id}/grades`} className="text-dusk underline">
          All grades
        </Link>
      </Empty>
    );
  }
  return (
    <>
      <Head view={view} rows={rows} row={row} />
      <div className="grid flex-1 grid-cols-1 border-t border-line lg:grid-cols-[3fr_2fr]" key={row.id}>
        <div className="min-w-0">
          <Beside row={row} />
          <Outlet context={exchange} />
        </div>
        <aside
          aria-label="Marks and grade"
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

interface HeadProps {
  readonly view: GradesView;
  /** In the order in which one goes through them. */
  readonly rows: readonly GradeRow[];
  readonly row: GradeRow;
}

function Head({ view, rows, row }: HeadProps) {
  const exchange = useExchange();
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const works = asked(view);
  const counts = (state: Graded) => rows.filter((one) => gradedOf(one, works) === state).length;
  const base = `/exchanges/${exchange.id}/grades`;
  const change = (name: string, value: string) => {
    const next = new URLSearchParams(params);
    next.set(name, value);
    setParams(next, { replace: true });
  };
  const shared = view.rows.some((one) => GRADING_WORKS.some((work) => one.work[work].grader !== null));
  const search = params.size === 0 ? '' : `?${params.toString()}`;
  return (
    <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-2 px-5 py-3">
      <div>
        <h2 className="text-xl font-semibold">
          <Person label={row.person} />
        </h2>
        <p className="text-sm text-ink-soft">
          <Link to={base} className="text-dusk underline">
            All grades
          </Link>
          , {rows.findIndex(({ id }) => id === row.id) + 1} of {rows.length}:{' '}
          {(['graded', 'half', 'open'] as const).map((state) => `${counts(state)} ${GRADED_WORDS[state]}`).join(', ')}
        </p>
        <Company row={row} />
      </div>
      <div className="flex flex-wrap items-end gap-3">
        <div className="w-48">
          <Select
            label="Order"
            labelHidden
            value={params.get('order') ?? 'name'}
            options={Object.entries(ORDERS)}
            onChange={(order) => change('order', order)}
          />
        </div>
        {shared && (
          <div className="w-40">
            <Select
              label="Whose"
              labelHidden
              value={params.get('whose') ?? 'all'}
              options={[
                ['all', 'everybody'],
                ['mine', 'mine to grade'],
              ]}
              onChange={(whose) => change('whose', whose)}
            />
          </div>
        )}
        <div className="flex gap-1">
          <Steps rows={rows} id={row.id} onShow={(id) => void navigate(`${base}/${id}${search}`)} />
        </div>
      </div>
    </div>
  );
}

/** Milliseconds between two words that one is here; three times as much and one is forgotten. */
const PRESENT = 15_000;

/** Two who grade the same person at once are told. */
function Company({ row }: { readonly row: GradeRow }) {
  const exchange = useExchange();
  const [present] = usePresentMutation();
  const [others, setOthers] = useState<readonly string[]>([]);
  useEffect(() => {
    let over = false;
    const say = async () => {
      const { data } = await present({ exchangeId: exchange.id, participantId: row.id });
      if (!over && data !== undefined) setOthers(data.others);
    };
    void say();
    const timer = setInterval(() => void say(), PRESENT);
    return () => {
      over = true;
      clearInterval(timer);
    };
  }, [present, exchange.id, row.id]);
  return (
    <p role="status" className="text-sm text-copper">
      {others.length > 0 &&
        `${listed(others)} ${others.length === 1 ? 'is' : 'are'} grading this person as well, at the moment.`}
    </p>
  );
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
    <nav aria-label="Work of this person" className="no-print flex flex-wrap gap-x-5 border-b border-line px-6">
      <NavLink to={`${base}${search}`} end className={look}>
        Draft
      </NavLink>
      {row.reviewIds.map((id, index) => (
        <NavLink key={id} to={`${base}/given/${id}${search}`} className={look}>
          {authors.has(id) ? `Review of ${authors.get(id)}` : `Review ${index + 1}`}
        </NavLink>
      ))}
      {row.draftId !== null && exchange.dates.revisionDue !== null && (
        <NavLink to={`${base}/revision/${row.draftId}${search}`} className={look}>
          Revision
        </NavLink>
      )}
    </nav>
  );
}

/** The form for what is beside it: of the draft, or of the reviewing. */
function Marking({ view, row }: { readonly view: GradesView; readonly row: GradeRow }) {
  const { reviewId } = useParams();
  const { pathname } = useLocation();
  const work: GradingWork = pathname.includes(`/${row.id}/given/`) ? 'reviewing' : 'draft';
  return (
    <div>
      <Grader view={view} row={row} work={work} />
      {work === 'draft' ? (
        <DraftMarks row={row} />
      ) : (
        <MarkReviewing
          key={view.reviewingEach ? reviewId : row.id}
          view={view}
          row={row}
          reviewId={view.reviewingEach ? reviewId : undefined}
        />
      )}
    </div>
  );
}

function DraftMarks({ row }: { readonly row: GradeRow }) {
  const exchange = useExchange();
  const target = { exchangeId: exchange.id, draftId: row.draftId ?? '' };
  const { data, error } = useDraftFeedbackQuery(target, { skip: row.draftId === null });
  if (row.draftId === null) return null;
  if (error !== undefined) return <ProblemNotice error={error} />;
  return data === undefined ? <Loading what="the marks" /> : <MarkDraft feedback={data} draftId={row.draftId} />;
}

interface GraderProps {
  readonly view: GradesView;
  readonly row: GradeRow;
  readonly work: GradingWork;
}

/** Whose this is, and how far it is. */
function Grader({ view, row, work }: GraderProps) {
  const exchange = useExchange();
  const [assign, { error }] = useAssignGraderMutation();
  const { grader } = row.work[work];
  if (row.work[work].state === 'none') {
    return (
      <p className="pb-3 text-ink-soft">
        {work === 'draft' ? 'Nothing was handed in.' : 'No review of this person has been submitted.'}
      </p>
    );
  }
  return (
    <div className="flex flex-wrap items-center justify-between gap-3 pb-3">
      <p className="text-ink-soft">
        {work === 'draft' ? 'Draft' : 'Reviewing'}: {workWords({ ...row.work[work], grader: null })}
      </p>
      {view.graders.length > 1 && (
        <div className="w-52">
          <Select
            label="Who grades this"
            labelHidden
            value={grader?.id ?? ''}
            options={[['', 'anybody grades this'], ...view.graders.map(({ id, name }) => [id, name] as const)]}
            onChange={(id) =>
              void assign({
                ...{ exchangeId: exchange.id, participantId: row.id, work },
                graderId: id === '' ? null : id,
              })
            }
          />
        </div>
      )}
      {error !== undefined && <ProblemNotice error={error} />}
    </div>
  );
}

/** For the board: how many are how far. */
export function progressWords(rows: readonly GradeRow[], works: readonly GradingWork[]): string {
  const counts = (state: Graded) => rows.filter((one) => gradedOf(one, works) === state).length;
  const [graded, half, open] = [counts('graded'), counts('half'), counts('open')];
  return `${graded} graded, ${half} half graded, ${counted(open, '1 to grade', '# to grade')}`;
}
