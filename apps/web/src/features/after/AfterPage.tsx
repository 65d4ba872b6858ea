import type { AfterRow } from '@salt-circle/contracts';
import { HELPED, listed } from '@salt-circle/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { useAfterQuery, useReflectionsQuery } from '../../app/after/afterApi.js';
import { NameOrder, useNameKey } from '../../app/boards/nameOrder.js';
import { useBeginWalk } from '../../app/boards/Walk.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { SecondRound } from './SecondRound.js';
import { Person } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import {
  BoardTable,
  Button,
  Empty,
  Loading,
  sortedRows,
  StateMark,
  type BoardColumn,
  type BoardSort,
} from '../../kit/index.js';
import { say } from '../../words/after.js';

const SHOWN = {
  unread: {
    words: () => say('notRead'),
    holds: ({ read, authors }: AfterRow) => read < authors,
  },
  undecided: {
    words: () => say('toBeDecided'),
    holds: ({ decided, remarks }: AfterRow) => decided < remarks,
  },
  unrevised: {
    words: () => say('noRevision'),
    holds: ({ revisionAt }: AfterRow) => revisionAt === null,
  },
  unhelpful: {
    words: () => say('reviewOfNoUse'),
    holds: ({ helped }: AfterRow) => helped['no-use'] > 0,
  },
} as const;
type Shown = keyof typeof SHOWN;

/** Cases of the sentence; its names have no hyphens. */
const HELPED_CASE = { 'carried-on': 'much', 'some-use': 'some', 'no-use': 'none' } as const;

/** What has come after the release: who has read, decided, answered, revised. */
export function AfterPage() {
  const exchange = useExchange();
  const { data, error } = useAfterQuery(exchange.id, {
    refetchOnMountOrArgChange: true,
    pollingInterval: usePolling(20_000),
  });
  const [shown, setShown] = useState<Shown | null>(null);
  const [sort, setSort] = useState<BoardSort>({ key: 'author', down: false });
  const begin = useBeginWalk();
  const columns = useColumns(exchange.dates.revisionDue !== null, exchange.course.timeZone);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('whatCameAfterRelease')} />;
  if (data.length === 0) {
    return (
      <div className="px-5">
        <Empty title={say('nothingHasBeenHandedIn')}>
          <p>{say('whatAuthorsMakeOfTheir')}</p>
        </Empty>
      </div>
    );
  }
  const filters = (Object.keys(SHOWN) as Shown[]).filter(
    (key) => key !== 'unrevised' || exchange.dates.revisionDue !== null,
  );
  const rows = sortedRows(shown === null ? data : data.filter(SHOWN[shown].holds), columns, sort);
  return (
    <div
      className="min-w-0 space-y-6 px-5 py-5"
      onClickCapture={() => begin(rows.map(({ draftId }) => ({ to: draftId, words: '' })))}
    >
      <div>
        <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
          <h2 className="text-xl font-semibold">
            {say('afterRelease', { span: <span className="text-base font-normal text-ink-soft">{data.length}</span> })}
          </h2>
          <div className="flex flex-wrap gap-2">
            <div className="flex flex-wrap gap-2" role="group" aria-label={say('showOnly')}>
              {filters.map((key) => (
                <Button
                  key={key}
                  aria-pressed={shown === key}
                  className="aria-pressed:border-iodine aria-pressed:bg-crust"
                  onClick={() => setShown(shown === key ? null : key)}
                >
                  {SHOWN[key].words()} {data.filter(SHOWN[key].holds).length}
                </Button>
              ))}
            </div>
            <SecondRound
              revised={data.filter(({ revisionAt }) => revisionAt !== null).length}
              instructor={exchange.course.role === 'instructor'}
            />
          </div>
        </div>
        <div className="mb-2 w-56">
          <NameOrder />
        </div>
        <BoardTable
          label={say('draftsAfterRelease')}
          columns={columns}
          rows={rows}
          rowKey={({ draftId }) => draftId}
          sort={sort}
          onSort={setSort}
        />
      </div>
      {exchange.reflection && <Reflections />}
    </div>
  );
}

function useColumns(revised: boolean, timeZone: string): ReadonlyArray<BoardColumn<AfterRow>> {
  const nameKey = useNameKey();
  return [
    {
      key: 'author',
      head: say('author'),
      sort: ({ author }) => nameKey(author),
      cell: ({ author, draftId }) => (
        <Link to={draftId} className="text-ink no-underline hover:underline" title={say('whatBecameOfRemarks')}>
          <Person label={author} />
        </Link>
      ),
    },
    {
      key: 'reviews',
      head: say('reviews'),
      right: true,
      sort: ({ reviews }) => reviews,
      cell: ({ reviews }) => reviews,
    },
    {
      key: 'read',
      head: say('read'),
      sort: ({ read, authors }) => read / Math.max(1, authors),
      cell: ({ read, authors }) =>
        read >= authors ? (
          <StateMark state="done" word={say('readWord')} />
        ) : (
          <StateMark
            state={read === 0 ? 'not-begun' : 'in-progress'}
            share={read / authors}
            word={authors === 1 ? say('notReadYet') : say('readByOf', { read, authors })}
          />
        ),
    },
    {
      key: 'decided',
      head: say('decided'),
      sort: ({ decided, remarks }) => (remarks === 0 ? null : decided / remarks),
      cell: ({ decided, remarks }) => (remarks === 0 ? say('noRemarks') : say('of', { decided, remarks })),
    },
    {
      key: 'done',
      head: say('changed'),
      sort: ({ done, toDo }) => (toDo === 0 ? null : done / toDo),
      cell: ({ done, toDo }) => (toDo === 0 ? '' : say('ofOf', { done, toDo })),
    },
    {
      key: 'replies',
      head: say('answers'),
      right: true,
      most: true,
      sort: ({ replies }) => replies,
      cell: ({ replies }) => replies,
    },
    {
      key: 'helped',
      head: say('howReviewsHelped'),
      cell: ({ helped }) =>
        listed(
          HELPED.flatMap((step) =>
            helped[step] === 0 ? [] : [say('helpedTimes', { helped: HELPED_CASE[step], count: helped[step] })],
          ),
          'comma',
        ),
    },
    ...(revised
      ? [
          {
            key: 'revised',
            head: say('revision'),
            sort: ({ revisionAt }: AfterRow) => revisionAt,
            cell: ({ revisionAt }: AfterRow) =>
              revisionAt === null ? (
                <StateMark state="not-begun" word={say('notHandedIn')} />
              ) : (
                <span className="inline-flex items-center gap-1.5">
                  <StateMark state="done" word={say('handedIn')} /> <When at={revisionAt} timeZone={timeZone} />
                </span>
              ),
          },
        ]
      : []),
  ];
}

/** What authors thought over, each folded away. */
function Reflections() {
  const exchange = useExchange();
  const { data = [] } = useReflectionsQuery(exchange.id, { refetchOnMountOrArgChange: true });
  return (
    <section aria-label={say('reflections')}>
      <h2 className="mb-2 text-xl font-semibold">
        {say('reflectionsHandedIn', {
          data: data.length,
          span: (words) => <span className="text-base font-normal text-ink-soft">{words}</span>,
        })}
      </h2>
      {data.map(({ author, prompts, texts }) => (
        <details key={author.name ?? author.alias} className="border-b border-line py-1.5">
          <summary className="min-h-6 cursor-pointer">
            <Person label={author} />
          </summary>
          <dl className="space-y-2 py-2">
            {prompts.map((prompt, index) => (
              <div key={prompt}>
                <dt className="text-sm text-ink-soft">{prompt}</dt>
                <dd className="font-serif whitespace-pre-wrap">{texts[index]}</dd>
              </div>
            ))}
          </dl>
        </details>
      ))}
    </section>
  );
}
