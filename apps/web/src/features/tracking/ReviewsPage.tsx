import type { ProgressReview, ProgressRow } from '@salt-circle/contracts';
import { useState } from 'react';
import { Link } from 'react-router';
import { Button, Empty, Loading, Select, StateMark, type BoardColumn } from '../../kit/index.js';
import { PeopleBoard, PersonButton, usePersonColumns } from '../../app/boards/PeopleBoard.js';
import { labelWords } from '../../app/People.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useProgressQuery } from '../../app/progressApi.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { DraftBoard } from './DraftBoard.js';
import { ReminderDialog } from './ReminderDialog.js';
import { StorySheet } from './StorySheet.js';

type Filter =
  'all' | 'not-handed-in' | 'late' | 'not-practised' | 'not-begun' | 'unfinished' | 'thin' | 'none-received' | 'asks';

/** Of a submitted review with fewer words than this, notes included, somebody should take a look. */
const THIN_WORDS = 60;

function submitted(row: ProgressRow): number {
  return row.reviews.filter(({ state }) => state === 'submitted').length;
}

const FILTERS: Readonly<
  Record<Exclude<Filter, 'all'>, { readonly words: string; readonly holds: (row: ProgressRow) => boolean }>
> = {
  'not-handed-in': { words: 'Not handed in', holds: ({ draft, excused }) => draft.state !== 'handed-in' && !excused },
  late: { words: 'Late', holds: ({ draft }) => draft.late !== null },
  'not-practised': {
    words: 'Not practised',
    holds: ({ practised }) => practised !== null && practised.done < practised.of,
  },
  'not-begun': {
    words: 'No review begun',
    holds: (row) => row.reviews.length > 0 && row.reviews.every(({ state }) => state === 'not-begun'),
  },
  unfinished: { words: 'Unfinished', holds: (row) => submitted(row) < row.reviews.length },
  thin: {
    words: 'Thin',
    holds: (row) => row.reviews.some(({ state, words }) => state === 'submitted' && words < THIN_WORDS),
  },
  'none-received': {
    words: 'No review received',
    holds: ({ draft, received }) => draft.state === 'handed-in' && received === 0,
  },
  asks: { words: 'Asks you', holds: ({ asks }) => asks > 0 },
};

/** Offered also where nobody is concerned: that is worth knowing. */
const ALWAYS: ReadonlySet<Filter> = new Set<Filter>(['not-practised', 'not-begun', 'unfinished', 'thin']);

/** Who has reviewed, and who has been reviewed: one row per student. */
export function ReviewsPage() {
  const exchange = useExchange();
  const { data, error } = useProgressQuery(exchange.id, {
    refetchOnMountOrArgChange: true,
    pollingInterval: usePolling(20_000),
  });
  const [filter, setFilter] = useState<Filter>('all');
  const [section, setSection] = useState('');
  const [group, setGroup] = useState('');
  const [view, setView] = useState<'person' | 'draft'>('person');
  const [story, setStory] = useState<string | null>(null);
  const [reminding, setReminding] = useState(false);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what="the reviews" />;
  const sections = [...new Set(data.rows.flatMap((row) => row.section ?? []))].sort();
  const groups = groupChoices(data.rows);
  const all = data.rows
    .filter((row) => section === '' || row.section === section)
    .filter((row) => group === '' || row.groups.some(({ id }) => id === group));
  const rows = filter === 'all' ? all : all.filter(FILTERS[filter].holds);
  // Of the rows that are shown, those that have something left to do.
  const toRemind = rows.filter(FILTERS.unfinished.holds);
  const columns = Math.max(0, ...data.rows.map(({ reviews }) => reviews.length));
  const { reviewsDue } = exchange.dates;
  const figures = exchange.figures;
  const practice = data.rows.some(({ practised }) => practised !== null);
  // What nobody is concerned by is not offered, unless it is chosen.
  const filters = (Object.keys(FILTERS) as Array<keyof typeof FILTERS>).filter(
    (key) =>
      (practice || key !== 'not-practised') &&
      !(exchange.secondRound && key === 'not-handed-in') &&
      (key === filter || ALWAYS.has(key) || all.some(FILTERS[key].holds)),
  );
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
        <div className="flex flex-wrap gap-2" role="group" aria-label="Show only">
          {filters.map((key) => (
            <Button
              key={key}
              aria-pressed={filter === key}
              className="aria-pressed:border-iodine aria-pressed:bg-crust"
              onClick={() => setFilter(filter === key ? 'all' : key)}
            >
              {FILTERS[key].words} {all.filter(FILTERS[key].holds).length}
            </Button>
          ))}
          <Button disabled={toRemind.length === 0} onClick={() => setReminding(true)}>
            Remind {toRemind.length}…
          </Button>
        </div>
      </div>
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <div role="group" aria-label="Shown by" className="flex gap-2">
          {(['person', 'draft'] as const).map((key) => (
            <Button
              key={key}
              small
              aria-pressed={view === key}
              className="aria-pressed:border-iodine aria-pressed:font-semibold"
              onClick={() => setView(key)}
            >
              {key === 'person' ? 'By person' : 'By draft'}
            </Button>
          ))}
        </div>
        {sections.length > 1 && (
          <div className="w-52">
            <Select
              label="Section"
              value={section}
              options={[['', 'All sections'], ...sections.map((one) => [one, one] as const)]}
              onChange={setSection}
            />
          </div>
        )}
        {groups.length > 1 && (
          <div className="w-60">
            <Select label="Group" value={group} options={[['', 'All groups'], ...groups]} onChange={setGroup} />
          </div>
        )}
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
        <>
          {view === 'person' ? (
            <Board rows={rows} columns={columns} story={story} onStory={setStory} />
          ) : (
            <DraftBoard all={data.rows} rows={rows} />
          )}
        </>
      )}
      {rows.length === 0 && filter !== 'all' && (
        <p className="py-4 text-ink-soft">None of the {data.rows.length} students.</p>
      )}
      {filter === 'thin' && (
        <p className="py-2 text-sm text-ink-soft">
          Thin: submitted with fewer than {THIN_WORDS} words, notes included.
        </p>
      )}
      {reminding && <ReminderDialog rows={toRemind} about="reviews" onClose={() => setReminding(false)} />}
    </div>
  );
}

/** Groups by id, with the title of their set where there are several sets. */
function groupChoices(rows: readonly ProgressRow[]): Array<readonly [id: string, words: string]> {
  const all = new Map(rows.flatMap(({ groups }) => groups.map((one) => [one.id, one] as const)));
  const sets = new Set([...all.values()].map(({ set }) => set));
  return [...all.values()]
    .map(({ id, set, title }) => [id, sets.size > 1 ? `${set}: ${title}` : title] as const)
    .sort((a, b) => a[1].localeCompare(b[1], undefined, { numeric: true }));
}

interface BoardProps {
  readonly rows: readonly ProgressRow[];
  readonly columns: number;
  readonly story: string | null;
  readonly onStory: (id: string | null) => void;
}

function Board({ rows, columns, story, onStory }: BoardProps) {
  return (
    <PeopleBoard
      label="Reviews"
      rows={rows}
      beside={(shown) =>
        story !== null && <StorySheet rows={shown} id={story} onShow={onStory} onClose={() => onStory(null)} />
      }
      columns={useColumns(
        columns,
        rows.some(({ minutes }) => minutes !== null),
        rows.some(({ practised }) => practised !== null),
        onStory,
      )}
      stopsOf={({ reviews, person }) =>
        reviews
          .filter(({ state }) => state !== 'not-begun')
          .map(({ id, author }) => ({
            to: `/reviews/${id}`,
            words: `${labelWords(person)} on ${labelWords(author)}`,
          }))
      }
    />
  );
}

/**
 * @param many reviews of whoever has most
 * @param measured whether the course measures time at work
 * @param practice whether there is something to practise on
 */
function useColumns(
  many: number,
  measured: boolean,
  practice: boolean,
  onStory: (id: string) => void,
): Array<BoardColumn<ProgressRow>> {
  const person = usePersonColumns<ProgressRow>((row) => (
    <PersonButton row={row} title="The whole story" onOpen={onStory} />
  ));
  const { timeZone } = useExchange().course;
  const figure = (key: string, head: string, of: (row: ProgressRow) => number): BoardColumn<ProgressRow> => ({
    key,
    head,
    right: true,
    most: true,
    sort: of,
    cell: (row) => (of(row) === 0 ? '' : of(row)),
  });
  return [
    ...person,
    {
      key: 'draft',
      head: 'Draft',
      sort: ({ draft }) => (draft.state === 'handed-in' ? 2 : draft.state === 'saved' ? 1 : 0),
      cell: ({ draft }) => <DraftCell draft={draft} />,
    },
    ...(practice ? [PRACTISED] : []),
    ...[...Array(many).keys()].map((index): BoardColumn<ProgressRow> => ({
      key: `review-${index}`,
      head: `Review ${index + 1}`,
      sort: ({ reviews }) => doneShare(reviews[index]),
      cell: ({ reviews }) => <ReviewCell review={reviews[index]} />,
    })),
    {
      key: 'received',
      head: 'Received',
      right: true,
      sort: ({ received, receives }) => (receives === 0 ? null : received),
      cell: ({ received, receives }) => (receives === 0 ? '' : `${received} of ${receives}`),
    },
    figure('words', 'Words', ({ words }) => words),
    figure('notes', 'Notes', ({ notes }) => notes),
    ...(measured ? [figure('minutes', 'Minutes', ({ minutes }) => minutes ?? 0)] : []),
    {
      key: 'worked',
      head: 'Last at work',
      most: true,
      sort: ({ workedAt }) => (workedAt === null ? null : Date.parse(workedAt)),
      cell: ({ workedAt }) =>
        workedAt === null ? (
          ''
        ) : (
          <span className="text-sm text-ink-soft">
            <When at={workedAt} timeZone={timeZone} />
          </span>
        ),
    },
  ];
}

const PRACTISED: BoardColumn<ProgressRow> = {
  key: 'practised',
  head: 'Practice',
  sort: ({ practised }) => (practised === null ? null : practised.done),
  cell: ({ practised }) =>
    practised === null ? null : (
      <StateMark
        state={practised.done >= practised.of ? 'done' : practised.begun ? 'in-progress' : 'not-begun'}
        share={practised.of === 0 ? 0 : practised.done / practised.of}
        word={practised.begun ? `${practised.done} of ${practised.of}` : 'not begun'}
        wordHidden={false}
      />
    ),
};

/** 0 to 1, and 2 once submitted; null without a review. */
function doneShare(review: ProgressReview | undefined): number | null {
  if (review === undefined) return null;
  if (review.state === 'submitted') return 2;
  return review.required === 0 ? 0 : review.answered / review.required;
}

export function DraftCell({ draft }: { readonly draft: ProgressRow['draft'] }) {
  const { secondRound } = useExchange();
  switch (draft.state) {
    case 'handed-in':
      return (
        <Link to={`../drafts/${draft.id}`} className="text-ink no-underline hover:underline">
          <StateMark state="done" word={secondRound ? 'revision' : `version ${draft.version}`} wordHidden={false} />
        </Link>
      );
    case 'saved':
      return <StateMark state="in-progress" share={0.5} word="saved, not handed in" wordHidden={false} />;
    case 'none':
      // Nobody hands in here: who has none has missed nothing.
      if (secondRound) return <span className="text-ink-soft">no revision</span>;
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
