import type { ProgressRow } from '@salt-circle/contracts';
import { useState } from 'react';
import { Link } from 'react-router';
import { Button, Empty, Loading, Menu, StateMark, type BoardColumn } from '../../kit/index.js';
import { PeopleBoard, usePersonColumns } from '../../app/boards/PeopleBoard.js';
import { labelWords } from '../../app/People.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useProgressQuery } from '../../app/progressApi.js';
import { startViewAs } from '../../app/view-as/viewAs.js';
import { lateInWords } from '@salt-circle/core';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { bytesInWords } from '../../app/viewing/sizes.js';
import { ArchiveDialog } from './ArchiveDialog.js';
import { ExtensionDialog, type PersonalDatesDone } from './ExtensionDialog.js';
import { HandInForDialog } from './HandInForDialog.js';
import { ReminderDialog } from './ReminderDialog.js';
import { DraftCell } from './ReviewsPage.js';
import { say } from '../../words/tracking.js';

type Doing =
  { readonly what: PersonalDatesDone | 'hand-in-for'; readonly row: ProgressRow } | 'remind' | 'archive' | null;

/** Who has handed in what, and when; and what to do about those who have not. */
export function DraftsPage() {
  const exchange = useExchange();
  const { data, error } = useProgressQuery(exchange.id, {
    refetchOnMountOrArgChange: true,
    pollingInterval: usePolling(20_000),
  });
  const [missingOnly, setMissingOnly] = useState(false);
  const [doing, setDoing] = useState<Doing>(null);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('drafts')} />;
  const counted = data.rows.filter(({ dropped, excused }) => !dropped && !excused);
  const missing = counted.filter(({ draft }) => draft.state !== 'handed-in');
  const rows = missingOnly ? missing : data.rows;
  const { draftsDue } = exchange.dates;
  const done = () => setDoing(null);
  const figures = { counted: counted.length - missing.length, of: counted.length };
  return (
    <div className="px-5 py-5">
      <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl font-semibold">
          {say('draftsLabel')}{' '}
          <span className="text-base font-normal text-ink-soft">
            {exchange.secondRound
              ? say('ofRevisedAndAreReviewed', figures)
              : draftsDue === null
                ? say('ofHandedIn', figures)
                : say('ofHandedInDue', {
                    ...figures,
                    when: <When at={draftsDue} timeZone={exchange.course.timeZone} />,
                  })}
          </span>
        </h2>
        {data.rows.length > 0 && (
          <div className="flex flex-wrap gap-2">
            {!exchange.secondRound && (
              <>
                <Button
                  aria-pressed={missingOnly}
                  className="aria-pressed:border-iodine aria-pressed:bg-crust"
                  onClick={() => setMissingOnly(!missingOnly)}
                >
                  {say('notHandedIn', { missing: missing.length })}
                </Button>
                <Button disabled={missing.length === 0 || !exchange.published} onClick={() => setDoing('remind')}>
                  {say('remind', { missing: missing.length })}
                </Button>
              </>
            )}
            <Button disabled={missing.length === counted.length} onClick={() => setDoing('archive')}>
              {say('downloadAll')}
            </Button>
          </div>
        )}
      </div>
      {data.rows.length === 0 ? (
        <Empty title={say('nobodyTakesPartYet')}>
          <p>
            {say('onceExchangeIsPublishedOn', {
              link: (words) => (
                <Link to="../plan" className="text-dusk underline">
                  {words}
                </Link>
              ),
            })}
          </p>
        </Empty>
      ) : (
        <DraftTable rows={rows} onDo={setDoing} />
      )}
      {doing === 'remind' && <ReminderDialog rows={missing} about="draft" onClose={done} />}
      {doing === 'archive' && <ArchiveDialog onClose={done} />}
      {doing !== null && typeof doing === 'object' && doing.what === 'hand-in-for' && (
        <HandInForDialog row={doing.row} onClose={done} />
      )}
      {doing !== null && typeof doing === 'object' && doing.what !== 'hand-in-for' && (
        <ExtensionDialog what={doing.what} row={doing.row} onClose={done} />
      )}
    </div>
  );
}

interface DraftTableProps {
  readonly rows: readonly ProgressRow[];
  readonly onDo: (doing: Doing) => void;
}

const STATE_ORDER: Readonly<Record<ProgressRow['draft']['state'], number>> = { none: 0, saved: 1, 'handed-in': 2 };

function DraftTable({ rows, onDo }: DraftTableProps) {
  return (
    <PeopleBoard
      label={say('draftsLabel')}
      rows={rows}
      columns={useColumns(rows, onDo)}
      stopsOf={({ draft, person }) =>
        draft.id === null ? [] : [{ to: `../drafts/${draft.id}`, words: draft.group ?? labelWords(person) }]
      }
    />
  );
}

function useColumns(rows: readonly ProgressRow[], onDo: (doing: Doing) => void): Array<BoardColumn<ProgressRow>> {
  const person = usePersonColumns<ProgressRow>((row) => <PersonCell row={row} />);
  const grouped = rows.some(({ draft }) => draft.group !== null);
  const column = (key: string, head: string, part: Omit<BoardColumn<ProgressRow>, 'key' | 'head'>) => ({
    key,
    head,
    ...part,
  });
  return [
    ...person,
    ...(grouped
      ? [
          column('group', say('group'), {
            sort: ({ draft }) => draft.group,
            cell: ({ draft }) => <span className="text-ink-soft">{draft.group}</span>,
          }),
        ]
      : []),
    column('state', say('state'), {
      sort: ({ draft, excused }) => (excused ? null : STATE_ORDER[draft.state]),
      cell: (row) => <StateCell row={row} />,
    }),
    column('title', say('title'), {
      sort: ({ draft }) => (draft.title === '' ? null : draft.title),
      cell: ({ draft }) => <span className="line-clamp-2 max-w-72 break-words">{draft.title}</span>,
    }),
    column('when', say('handedIn'), {
      sort: ({ draft }) => (draft.handedInAt === null ? null : Date.parse(draft.handedInAt)),
      most: true,
      cell: (row) => <WhenCell row={row} />,
    }),
    column('words', say('words'), {
      right: true,
      most: true,
      sort: ({ draft }) => (draft.words === 0 ? null : draft.words),
      cell: ({ draft }) => (draft.words === 0 ? '' : draft.words),
    }),
    column('files', say('files'), {
      right: true,
      most: true,
      sort: ({ draft }) => (draft.bytes === 0 ? null : draft.bytes),
      cell: ({ draft }) => (
        <span className="whitespace-nowrap">{draft.bytes === 0 ? '' : bytesInWords(draft.bytes)}</span>
      ),
    }),
    column('acts', say('whatToDo'), {
      headHidden: true,
      right: true,
      cell: (row) => <ActsCell row={row} onDo={onDo} />,
    }),
  ];
}

function PersonCell({ row: { person, dropped } }: { readonly row: ProgressRow }) {
  return (
    <>
      {person.name}
      {dropped && <span className="ml-1.5 font-normal text-ink-soft">{say('dropped')}</span>}
    </>
  );
}

function StateCell({ row: { draft, excused } }: { readonly row: ProgressRow }) {
  return (
    <>
      {excused ? <StateMark state="excused" word={say('excused')} wordHidden={false} /> : <DraftCell draft={draft} />}
      {draft.copyFailed && <p className="text-sm text-madder">{say('copyFailed')}</p>}
    </>
  );
}

function WhenCell({ row: { draft } }: { readonly row: ProgressRow }) {
  const { timeZone } = useExchange().course;
  const { handedInAt, savedAt, late } = draft;
  return (
    <span className="text-sm text-ink-soft">
      {handedInAt !== null ? (
        <When at={handedInAt} timeZone={timeZone} />
      ) : (
        savedAt !== null && <>{say('saved', { when: <When at={savedAt} timeZone={timeZone} /> })}</>
      )}
      {late !== null && <span className="block text-madder">{lateInWords(late)}</span>}
    </span>
  );
}

function ActsCell({ row, onDo }: { readonly row: ProgressRow; readonly onDo: (doing: Doing) => void }) {
  const exchange = useExchange();
  const { id, person, excused } = row;
  const instructor = exchange.course.role === 'instructor';
  const name = person.name ?? say('thisStudent');
  return (
    <span className="whitespace-nowrap">
      <Button small aria-label={say('seeExchangeAs', { name })} onClick={() => startViewAs(exchange.id, id)}>
        {say('seeAs')}
      </Button>{' '}
      <Menu
        trigger={
          <Button small aria-label={say('moreAbout', { name })}>
            {say('more')}
          </Button>
        }
        groups={[
          [
            ...(instructor
              ? [
                  { words: say('giveMoreTime'), onPick: () => onDo({ what: 'extend', row }) },
                  ...(excused
                    ? [{ words: say('takeExcuseBack'), onPick: () => onDo({ what: 'take-back', row }) }]
                    : [{ words: say('excuse'), onPick: () => onDo({ what: 'excuse', row }) }]),
                ]
              : []),
            { words: say('handInForStudent'), onPick: () => onDo({ what: 'hand-in-for', row }) },
          ],
        ]}
      />
    </span>
  );
}
