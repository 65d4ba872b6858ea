import type { ProgressReview, ProgressRow } from '@salt-circle/contracts';
import { endOf } from '@salt-circle/core';
import { useState } from 'react';
import { Link } from 'react-router';
import {
  BoardTable,
  Button,
  Dialog,
  Empty,
  Loading,
  Notice,
  sortedRows,
  StateMark,
  type BoardColumn,
  type BoardSort,
} from '../../kit/index.js';
import { NameOrder, useNameKey } from '../../app/boards/nameOrder.js';
import { useBeginWalk } from '../../app/boards/Walk.js';
import { api } from '../../app/api.js';
import { labelWords, Person } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useProgressQuery } from '../../app/progressApi.js';
import { useNow } from '../../app/time/useNow.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';

const { useReleaseMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    release: build.mutation<{ release: string }, string>({
      query: (id) => ({ url: `/exchanges/${id}/release`, method: 'POST', body: { at: null } }),
      invalidatesTags: ['Exchange', 'Plan', 'Courses', 'Today', 'Feedback'],
    }),
  }),
});

interface Submitted {
  readonly review: ProgressReview;
  readonly reviewer: ProgressRow;
}

/** Read what reviewers wrote, then release it to the authors. */
export function CheckPage() {
  const exchange = useExchange();
  const { data, error } = useProgressQuery(exchange.id, { refetchOnMountOrArgChange: true });
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what="the reviews" />;
  const submitted = data.rows.flatMap((reviewer) =>
    reviewer.reviews.filter(({ state }) => state === 'submitted').map((review): Submitted => ({ review, reviewer })),
  );
  const without = data.rows.filter((row) => row.draft.state === 'handed-in' && row.received === 0);
  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[1fr_23rem]">
      <div className="px-5 py-5">
        <h2 className="mb-3 text-xl font-semibold">
          Submitted reviews <span className="text-base font-normal text-ink-soft">{submitted.length}</span>
        </h2>
        {submitted.length === 0 ? (
          <Empty title="No review has been submitted yet.">
            <p>Once reviewers submit, you can read each review on its draft here.</p>
          </Empty>
        ) : (
          <SubmittedTable rows={submitted} />
        )}
      </div>
      <ReleasePanel without={without.map(({ person }) => labelWords(person))} submitted={submitted.length} />
    </div>
  );
}

function SubmittedTable({ rows }: { readonly rows: readonly Submitted[] }) {
  const nameKey = useNameKey();
  const begin = useBeginWalk();
  // Those who wrote least first: that is where a look is worth most.
  const [sort, setSort] = useState<BoardSort>({ key: 'words', down: false });
  const columns: ReadonlyArray<BoardColumn<Submitted>> = [
    {
      key: 'reviewer',
      head: 'Reviewer',
      sort: ({ reviewer }) => nameKey(reviewer.person),
      cell: ({ reviewer }) => <Person label={reviewer.person} />,
    },
    {
      key: 'author',
      head: 'on the draft by',
      sort: ({ review }) => nameKey(review.author),
      cell: ({ review }) => <Person label={review.author} />,
    },
    {
      key: 'words',
      head: 'Words',
      right: true,
      sort: ({ review }) => review.words,
      cell: ({ review }) => review.words,
    },
    {
      key: 'notes',
      head: 'Notes',
      right: true,
      sort: ({ review }) => review.notes,
      cell: ({ review }) => review.notes,
    },
    {
      key: 'read',
      head: 'What to do',
      headHidden: true,
      right: true,
      cell: (row) => (
        <Link to={`/reviews/${row.review.id}`} className="text-dusk underline" aria-label={`Read ${wordsOf(row)}`}>
          Read
        </Link>
      ),
    },
  ];
  const sorted = sortedRows(rows, columns, sort);
  return (
    <div onClickCapture={() => begin(sorted.map((row) => ({ to: `/reviews/${row.review.id}`, words: wordsOf(row) })))}>
      <div className="mb-2 w-56">
        <NameOrder />
      </div>
      <BoardTable
        label="Submitted reviews"
        columns={columns}
        rows={sorted}
        rowKey={({ review }) => review.id}
        sort={sort}
        onSort={setSort}
      />
    </div>
  );
}

function wordsOf({ review, reviewer }: Submitted): string {
  return `${labelWords(reviewer.person)} on ${labelWords(review.author)}`;
}

function ReleasePanel({ without, submitted }: { readonly without: readonly string[]; readonly submitted: number }) {
  const exchange = useExchange();
  const now = useNow();
  const [asking, setAsking] = useState(false);
  const [release, { isLoading, error }] = useReleaseMutation();
  const { dates, course, released, figures } = exchange;
  const at = dates.release ?? dates.reviewsDue;
  const reviewing = dates.reviewsDue !== null && now < endOf(Date.parse(dates.reviewsDue));
  const go = async () => {
    const result = await release(exchange.id);
    if (result.error === undefined) setAsking(false);
  };
  return (
    <aside className="space-y-4 border-l border-line bg-crust px-5 py-5">
      <h2 className="font-semibold">Release</h2>
      {released && at !== null ? (
        <Notice tone="done" title="Feedback is released.">
          Authors have been able to read it since <When at={at} timeZone={course.timeZone} />.
        </Notice>
      ) : exchange.feedbackOpen ? (
        <p>Authors read each review as soon as it is submitted.</p>
      ) : (
        <>
          <p>
            {at === null ? (
              'No date is set yet.'
            ) : (
              <>
                Authors will read their feedback <When at={at} timeZone={course.timeZone} />.
              </>
            )}
          </p>
          {exchange.course.role === 'instructor' && exchange.published && (
            <>
              <Button look="primary" disabled={reviewing} onClick={() => setAsking(true)}>
                Release now…
              </Button>
              {reviewing && dates.reviewsDue !== null && (
                <p className="text-sm text-ink-soft">
                  Reviews can still come in: they are due <When at={dates.reviewsDue} timeZone={course.timeZone} />. To
                  release earlier, move that date on the Plan page.
                </p>
              )}
            </>
          )}
        </>
      )}
      {figures !== null && (
        <p>
          <StateMark
            state={figures.submitted === figures.allocated && figures.allocated > 0 ? 'done' : 'in-progress'}
            share={figures.allocated === 0 ? 0 : figures.submitted / figures.allocated}
            word={`${figures.submitted} of ${figures.allocated} reviews submitted`}
            wordHidden={false}
          />
        </p>
      )}
      {without.length > 0 && figures !== null && figures.allocated > 0 && (
        <details className="text-sm" open={without.length <= 8}>
          <summary className="cursor-pointer font-semibold">No review received ({without.length})</summary>
          <p className="text-ink-soft">{without.join(', ')}</p>
        </details>
      )}
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        title="Release feedback now?"
        description={`Authors will see ${submitted} submitted reviews at once. What they have read can’t be taken back.`}
      >
        <div className="space-y-3">
          {error !== undefined && <ProblemNotice error={error} />}
          <Button look="primary" busy={isLoading} onClick={() => void go()}>
            Release to the authors
          </Button>
        </div>
      </Dialog>
    </aside>
  );
}
