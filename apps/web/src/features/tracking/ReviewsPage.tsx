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
import { ALWAYS, FILTERS, THIN_WORDS, type Filter } from './reviewFilters.js';
import { StorySheet } from './StorySheet.js';
import { say } from '../../words/tracking.js';

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
  if (data === undefined) return <Loading what={say('reviews')} />;
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
  const { students = 0, allocated = 0 } = exchange.figures ?? {};
  const figures = { students, allocated };
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
          {say('reviewsLabel')}{' '}
          <span className="text-base font-normal text-ink-soft">
            {reviewsDue === null
              ? say('peopleReviews', figures)
              : say('peopleReviewsDue', {
                  ...figures,
                  when: <When at={reviewsDue} timeZone={exchange.course.timeZone} />,
                })}
          </span>
        </h2>
        <div className="flex flex-wrap gap-2" role="group" aria-label={say('showOnly')}>
          {filters.map((key) => (
            <Button
              key={key}
              aria-pressed={filter === key}
              className="aria-pressed:border-iodine aria-pressed:bg-crust"
              onClick={() => setFilter(filter === key ? 'all' : key)}
            >
              {FILTERS[key].words()} {all.filter(FILTERS[key].holds).length}
            </Button>
          ))}
          <Button disabled={toRemind.length === 0} onClick={() => setReminding(true)}>
            {say('remindOf', { toRemind: toRemind.length })}
          </Button>
        </div>
      </div>
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <div role="group" aria-label={say('shownBy')} className="flex gap-2">
          {(['person', 'draft'] as const).map((key) => (
            <Button
              key={key}
              small
              aria-pressed={view === key}
              className="aria-pressed:border-iodine aria-pressed:font-semibold"
              onClick={() => setView(key)}
            >
              {key === 'person' ? say('byPerson') : say('byDraft')}
            </Button>
          ))}
        </div>
        {sections.length > 1 && (
          <div className="w-52">
            <Select
              label={say('section')}
              value={section}
              options={[['', say('allSections')], ...sections.map((one) => [one, one] as const)]}
              onChange={setSection}
            />
          </div>
        )}
        {groups.length > 1 && (
          <div className="w-60">
            <Select
              label={say('group')}
              value={group}
              options={[['', say('allGroups')], ...groups]}
              onChange={setGroup}
            />
          </div>
        )}
      </div>
      {columns === 0 ? (
        <Empty title={say('noReviewsHaveBeenAllocated')}>
          <p>
            {say('draftsAreDealtOutOn', {
              link: (words) => (
                <Link to="../allocation" className="text-dusk underline">
                  {words}
                </Link>
              ),
            })}
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
        <p className="py-4 text-ink-soft">{say('noneOfStudents', { rows: data.rows.length })}</p>
      )}
      {filter === 'thin' && (
        <p className="py-2 text-sm text-ink-soft">{say('thinSubmittedWithFewerThan', { thinwords: THIN_WORDS })}</p>
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
      label={say('reviewsLabel')}
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
            words: say('on', { labelWords: labelWords(person), labelWords2: labelWords(author) }),
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
    <PersonButton row={row} title={say('wholeStory')} onOpen={onStory} />
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
      head: say('draftLabel'),
      sort: ({ draft }) => (draft.state === 'handed-in' ? 2 : draft.state === 'saved' ? 1 : 0),
      cell: ({ draft }) => <DraftCell draft={draft} />,
    },
    ...(practice ? [practisedColumn()] : []),
    ...[...Array(many).keys()].map((index): BoardColumn<ProgressRow> => ({
      key: `review-${index}`,
      head: say('review', { index: index + 1 }),
      sort: ({ reviews }) => doneShare(reviews[index]),
      cell: ({ reviews }) => <ReviewCell review={reviews[index]} />,
    })),
    {
      key: 'received',
      head: say('received'),
      right: true,
      sort: ({ received, receives }) => (receives === 0 ? null : received),
      cell: ({ received, receives }) => (receives === 0 ? '' : say('of', { received, receives })),
    },
    figure('words', say('words'), ({ words }) => words),
    figure('notes', say('notes'), ({ notes }) => notes),
    ...(measured ? [figure('minutes', say('minutes'), ({ minutes }) => minutes ?? 0)] : []),
    {
      key: 'worked',
      head: say('lastAtWork'),
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

const practisedColumn = (): BoardColumn<ProgressRow> => ({
  key: 'practised',
  head: say('practice'),
  sort: ({ practised }) => (practised === null ? null : practised.done),
  cell: ({ practised }) =>
    practised === null ? null : (
      <StateMark
        state={practised.done >= practised.of ? 'done' : practised.begun ? 'in-progress' : 'not-begun'}
        share={practised.of === 0 ? 0 : practised.done / practised.of}
        word={practised.begun ? say('ofOf2', { done: practised.done, of: practised.of }) : say('notBegun')}
        wordHidden={false}
      />
    ),
});

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
          <StateMark
            state="done"
            word={secondRound ? say('revision') : say('version', { version: draft.version })}
            wordHidden={false}
          />
        </Link>
      );
    case 'saved':
      return <StateMark state="in-progress" share={0.5} word={say('savedNotHandedIn')} wordHidden={false} />;
    case 'none':
      // Nobody hands in here: who has none has missed nothing.
      if (secondRound) return <span className="text-ink-soft">{say('noRevision')}</span>;
      return <StateMark state="not-begun" wordHidden={false} />;
  }
}

function ReviewCell({ review }: { readonly review: ProgressReview | undefined }) {
  if (review === undefined) return null;
  const { id, state, answered, required, author } = review;
  if (state === 'not-begun') return <StateMark state="not-begun" wordHidden={false} />;
  const words = state === 'submitted' ? say('submitted') : say('ofOf', { answered, required });
  return (
    <Link
      to={`/reviews/${id}`}
      title={say('onOf', { labelWords: labelWords(author) })}
      className="text-ink no-underline hover:underline"
    >
      <StateMark
        state={state === 'submitted' ? 'done' : 'in-progress'}
        share={required === 0 ? 0.5 : answered / required}
        word={words}
        wordHidden={false}
      />
    </Link>
  );
}
