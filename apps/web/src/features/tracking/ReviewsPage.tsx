import type { ProgressReview, ProgressRow } from '@salt-circle/contracts';
import { useState } from 'react';
import { Link } from 'react-router';
import { Button, Empty, Loading, StateMark } from '../../kit/index.js';
import { labelWords } from '../../app/People.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useProgressQuery } from '../../app/progressApi.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';

type Filter = 'all' | 'not-begun' | 'unfinished' | 'thin';

/** Of a submitted review with fewer words than this, notes included, somebody should take a look. */
const THIN_WORDS = 60;

function submitted(row: ProgressRow): number {
  return row.reviews.filter(({ state }) => state === 'submitted').length;
}

const FILTERS: Readonly<
  Record<Exclude<Filter, 'all'>, { readonly words: string; readonly holds: (row: ProgressRow) => boolean }>
> = {
  'not-begun': {
    words: 'None begun',
    holds: (row) => row.reviews.length > 0 && row.reviews.every(({ state }) => state === 'not-begun'),
  },
  unfinished: { words: 'Unfinished', holds: (row) => submitted(row) < row.reviews.length },
  thin: {
    words: 'Thin',
    holds: (row) => row.reviews.some(({ state, words }) => state === 'submitted' && words < THIN_WORDS),
  },
};

/** Who has reviewed, and who has been reviewed: one row per student. */
export function ReviewsPage() {
  const exchange = useExchange();
  const { data, error } = useProgressQuery(exchange.id, {
    refetchOnMountOrArgChange: true,
    pollingInterval: usePolling(20_000),
  });
  const [filter, setFilter] = useState<Filter>('all');
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what="the reviews" />;
  const rows = filter === 'all' ? data.rows : data.rows.filter(FILTERS[filter].holds);
  const columns = Math.max(0, ...data.rows.map(({ reviews }) => reviews.length));
  const { reviewsDue } = exchange.dates;
  const figures = exchange.figures;
  return (
    <div className="px-5 py-5">
      <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl font-semibold">
          Reviews{' '}
          <span className="text-base font-normal text-ink-soft">
            {figures?.students} people, {figures?.allocated} reviews
            {reviewsDue !== null && (
              <>
                , due <When at={reviewsDue} timeZone={exchange.course.timeZone} />
              </>
            )}
          </span>
        </h2>
        <div className="flex gap-2" role="group" aria-label="Show only">
          {(Object.keys(FILTERS) as Array<keyof typeof FILTERS>).map((key) => (
            <Button
              key={key}
              aria-pressed={filter === key}
              className="aria-pressed:border-iodine aria-pressed:bg-crust"
              onClick={() => setFilter(filter === key ? 'all' : key)}
            >
              {FILTERS[key].words} {data.rows.filter(FILTERS[key].holds).length}
            </Button>
          ))}
        </div>
      </div>
      {columns === 0 ? (
        <Empty title="No reviews have been allocated yet.">
          <p>
            Drafts are dealt out on the{' '}
            <Link to="../allocation" className="text-dusk underline">
              Allocation
            </Link>{' '}
            page; then each review shows here.
          </p>
        </Empty>
      ) : (
        <Board rows={rows} columns={columns} />
      )}
      {rows.length === 0 && filter !== 'all' && <p className="py-4 text-ink-soft">Nobody of {data.rows.length}.</p>}
    </div>
  );
}

function Board({ rows, columns }: { readonly rows: readonly ProgressRow[]; readonly columns: number }) {
  const heads = [...Array(columns).keys()].map((index) => `Review ${index + 1}`);
  return (
    <div className="overflow-x-auto">
      <table className="w-full text-left">
        <thead>
          <tr className="border-b border-ink text-sm text-ink-soft">
            {['Person', 'Alias', 'Draft', ...heads].map((words) => (
              <th key={words} scope="col" className="px-2 py-1.5 font-semibold">
                {words}
              </th>
            ))}
            {['Received', 'Words', 'Notes'].map((words) => (
              <th key={words} scope="col" className="px-2 py-1.5 text-right font-semibold">
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <BoardRow key={row.id} row={row} columns={columns} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function BoardRow({ row, columns }: { readonly row: ProgressRow; readonly columns: number }) {
  return (
    <tr className="border-b border-line">
      <th scope="row" className="px-2 py-2 font-semibold">
        {row.person.name}
      </th>
      <td className="px-2 py-2 text-ink-soft">{row.person.alias}</td>
      <td className="px-2 py-2">
        <DraftCell draft={row.draft} />
      </td>
      {[...Array(columns).keys()].map((index) => (
        <td key={index} className="px-2 py-2">
          <ReviewCell review={row.reviews[index]} />
        </td>
      ))}
      <td className="px-2 py-2 text-right">{row.receives === 0 ? '' : `${row.received} of ${row.receives}`}</td>
      <td className="px-2 py-2 text-right">{row.words === 0 ? '' : row.words}</td>
      <td className="px-2 py-2 text-right">{row.notes === 0 ? '' : row.notes}</td>
    </tr>
  );
}

export function DraftCell({ draft }: { readonly draft: ProgressRow['draft'] }) {
  switch (draft.state) {
    case 'handed-in':
      return (
        <Link to={`../drafts/${draft.id}`} className="text-ink no-underline hover:underline">
          <StateMark state="done" word={`version ${draft.version}`} wordHidden={false} />
        </Link>
      );
    case 'saved':
      return <StateMark state="in-progress" share={0.5} word="only saved" wordHidden={false} />;
    case 'none':
      return <StateMark state="not-begun" wordHidden={false} />;
  }
}

function ReviewCell({ review }: { readonly review: ProgressReview | undefined }) {
  if (review === undefined) return null;
  const { id, state, answered, required, author } = review;
  if (state === 'not-begun') return <StateMark state="not-begun" wordHidden={false} />;
  const words = state === 'submitted' ? 'submitted' : `${answered} of ${required}`;
  return (
    <Link to={`/reviews/${id}`} title={`on ${labelWords(author)}`} className="text-ink no-underline hover:underline">
      <StateMark
        state={state === 'submitted' ? 'done' : 'in-progress'}
        share={required === 0 ? 0.5 : answered / required}
        word={words}
        wordHidden={false}
      />
    </Link>
  );
}
