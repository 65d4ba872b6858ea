import type { PersonLabel, ProgressReview, ProgressRow } from '@salt-circle/contracts';
import { useState } from 'react';
import { Link } from 'react-router';
import { useNameKey } from '../../app/boards/nameOrder.js';
import { useBeginWalk } from '../../app/boards/Walk.js';
import { labelWords, Person } from '../../app/People.js';
import { BoardTable, sortedRows, StateMark, type BoardColumn, type BoardSort } from '../../kit/index.js';
import { say } from '../../words/tracking.js';

interface DraftRow {
  readonly draftId: string;
  readonly author: PersonLabel;
  readonly title: string;
  readonly received: number;
  readonly receives: number;
  readonly reviews: ReadonlyArray<{ readonly by: PersonLabel; readonly review: ProgressReview }>;
}

interface DraftBoardProps {
  /** Everybody: whoever reviews a draft may be left out of the rows that are shown. */
  readonly all: readonly ProgressRow[];
  /** Of the authors whose drafts are shown. */
  readonly rows: readonly ProgressRow[];
}

/** The same by draft: who reviews it, how far each is, and how many are in. */
export function DraftBoard({ all, rows }: DraftBoardProps) {
  const [sort, setSort] = useState<BoardSort>({ key: 'author', down: false });
  const nameKey = useNameKey();
  const begin = useBeginWalk();
  const drafts = draftRows(all, rows);
  const many = Math.max(0, ...drafts.map(({ reviews }) => reviews.length));
  const columns: ReadonlyArray<BoardColumn<DraftRow>> = [
    {
      key: 'author',
      head: say('draftBy'),
      sort: ({ author }) => nameKey(author),
      cell: ({ author, draftId, title }) => (
        <Link to={`../drafts/${draftId}`} className="text-ink no-underline hover:underline" title={title}>
          <Person label={author} />
        </Link>
      ),
    },
    {
      key: 'received',
      head: say('in'),
      right: true,
      sort: ({ received, receives }) => (receives === 0 ? null : received / receives),
      cell: ({ received, receives }) => say('of', { received, receives }),
    },
    ...[...Array(many).keys()].map((index): BoardColumn<DraftRow> => ({
      key: `review-${index}`,
      head: say('reviewer', { index: index + 1 }),
      sort: ({ reviews }) => (reviews[index] === undefined ? null : nameKey(reviews[index].by)),
      cell: ({ reviews }) => <ReviewerCell given={reviews[index]} />,
    })),
  ];
  const sorted = sortedRows(drafts, columns, sort);
  return (
    <div
      onClickCapture={() =>
        begin(sorted.map(({ draftId, author }) => ({ to: `../drafts/${draftId}`, words: labelWords(author) })))
      }
    >
      <BoardTable
        label={say('reviewsByDraft')}
        columns={columns}
        rows={sorted}
        rowKey={({ draftId }) => draftId}
        sort={sort}
        onSort={setSort}
      />
      {drafts.length === 0 && <p className="py-4 text-ink-soft">{say('noDraftsOfTheseStudents')}</p>}
    </div>
  );
}

function draftRows(all: readonly ProgressRow[], rows: readonly ProgressRow[]): DraftRow[] {
  const given = new Map<string, Array<DraftRow['reviews'][number]>>();
  for (const { person, reviews } of all) {
    for (const review of reviews) {
      const list = given.get(review.draftId);
      if (list === undefined) given.set(review.draftId, [{ by: person, review }]);
      else list.push({ by: person, review });
    }
  }
  const drafts = new Map<string, DraftRow>();
  for (const { draft, person, received, receives } of rows) {
    if (draft.id === null || drafts.has(draft.id)) continue;
    const author = draft.group === null ? person : { name: draft.group };
    const reviews = given.get(draft.id) ?? [];
    drafts.set(draft.id, { draftId: draft.id, author, title: draft.title, received, receives, reviews });
  }
  return [...drafts.values()];
}

const MARKS = { 'not-begun': 'not-begun', 'in-progress': 'in-progress', submitted: 'done' } as const;

function ReviewerCell({ given }: { readonly given: DraftRow['reviews'][number] | undefined }) {
  if (given === undefined) return null;
  const { by, review } = given;
  const { state, answered, required } = review;
  const word =
    state === 'submitted'
      ? say('submitted')
      : state === 'not-begun'
        ? say('notBegun')
        : say('ofOf', { answered, required });
  return (
    <Link
      to={`/reviews/${review.id}`}
      className="inline-flex items-center gap-1.5 text-ink no-underline hover:underline"
    >
      <StateMark state={MARKS[state]} share={required === 0 ? 0 : answered / required} word={word} />
      {labelWords(by)}
    </Link>
  );
}
