import type { QueueRow } from '@salt-circle/contracts';
import { Link } from 'react-router';
import { NameOrder, useNameKey } from '../../app/boards/nameOrder.js';
import { useBeginWalk } from '../../app/boards/Walk.js';
import { flagWords } from '../../app/moderation/flagWords.js';
import { labelWords, Person } from '../../app/People.js';
import { BoardTable, sortedRows, StateMark, type BoardColumn, type BoardSort } from '../../kit/index.js';
import { say } from '../../words/moderation.js';

export interface QueueTableProps {
  /** As the server puts them: those with flags first. */
  readonly rows: readonly QueueRow[];
  readonly sort: BoardSort;
  readonly onSort: (sort: BoardSort) => void;
}

/** Submitted reviews, each with why to look; opened, they are walked through in the order shown. */
export function QueueTable({ rows, sort, onSort }: QueueTableProps) {
  const begin = useBeginWalk();
  const columns = useColumns(rows);
  const sorted = sortedRows(rows, columns, sort);
  const stops = sorted.map((row) => ({ to: `/reviews/${row.reviewId}`, words: wordsOf(row) }));
  return (
    <div onClickCapture={() => begin(stops)}>
      <div className="mb-2 w-56">
        <NameOrder />
      </div>
      <BoardTable
        label={say('submittedReviewsLabel')}
        columns={columns}
        rows={sorted}
        rowKey={({ reviewId }) => reviewId}
        sort={sort}
        onSort={onSort}
      />
    </div>
  );
}

function useColumns(rows: readonly QueueRow[]): ReadonlyArray<BoardColumn<QueueRow>> {
  const nameKey = useNameKey();
  const place = new Map(rows.map(({ reviewId }, index) => [reviewId, index]));
  return [
    {
      key: 'reviewer',
      head: say('reviewer'),
      sort: ({ reviewer }) => nameKey(reviewer),
      cell: (row) => (
        <Link
          to={`/reviews/${row.reviewId}`}
          className="text-ink no-underline hover:underline"
          title={say('read', { wordsOf: wordsOf(row) })}
        >
          <Person label={row.reviewer} />
        </Link>
      ),
    },
    {
      key: 'author',
      head: say('onDraftBy'),
      sort: ({ author }) => nameKey(author),
      cell: ({ author, self }) => (self ? say('ownDraft') : <Person label={author} />),
    },
    {
      key: 'flags',
      head: say('whyToLook'),
      sort: ({ reviewId }) => place.get(reviewId) ?? 0,
      cell: (row) => <Reasons row={row} />,
    },
    { key: 'words', head: say('words'), right: true, sort: ({ words }) => words, cell: ({ words }) => words },
    { key: 'notes', head: say('notes'), right: true, sort: ({ notes }) => notes, cell: ({ notes }) => notes },
    {
      key: 'looked',
      head: say('lookedAt'),
      sort: ({ looked }) => (looked === null ? null : looked.by),
      cell: ({ looked }) =>
        looked === null ? (
          <StateMark state="not-begun" word={say('notLookedAtYet')} />
        ) : (
          <StateMark state="done" word={say('by', { by: looked.by })} wordHidden={false} />
        ),
    },
  ];
}

function Reasons({ row }: { readonly row: QueueRow }) {
  const { flags, withheld } = row;
  const open = flags.filter(({ dismissed }) => !dismissed);
  return (
    <ul className="max-w-[36rem] text-sm">
      {open.map((one) => (
        <li key={one.key} className="text-copper">
          {flagWords(one)}
        </li>
      ))}
      {withheld !== 0 && (
        <li className="text-madder">
          {withheld === 'all' ? say('withheldFromAuthor') : say('thingsWithheld', { withheld })}
        </li>
      )}
    </ul>
  );
}

function wordsOf({ reviewer, author, self }: QueueRow): string {
  return self
    ? say('onOwnDraft', { labelWords: labelWords(reviewer) })
    : say('on', { labelWords: labelWords(reviewer), labelWords2: labelWords(author) });
}
