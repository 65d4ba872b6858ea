import type { ProgressRow } from '@salt-circle/contracts';
import { useState } from 'react';
import { Link } from 'react-router';
import { Button, Empty, Loading, Menu, StateMark, type BoardColumn } from '../../kit/index.js';
import { PeopleBoard, usePersonColumns } from '../../app/boards/PeopleBoard.js';
import { labelWords } from '../../app/People.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useProgressQuery } from '../../app/progressApi.js';
import { seeAs } from '../../app/seeing/seeAs.js';
import { lateInWords } from '@salt-circle/core';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { bytesInWords } from '../../app/viewing/sizes.js';
import { ArchiveDialog } from './ArchiveDialog.js';
import { OwnTimesDialog, type OwnTimesDone } from './OwnTimesDialog.js';
import { HandInForDialog } from './HandInForDialog.js';
import { ReminderDialog } from './ReminderDialog.js';
import { DraftCell } from './ReviewsPage.js';

type Doing = { readonly what: OwnTimesDone | 'hand-in-for'; readonly row: ProgressRow } | 'remind' | 'archive' | null;

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
  if (data === undefined) return <Loading what="the drafts" />;
  const counted = data.rows.filter(({ dropped, excused }) => !dropped && !excused);
  const missing = counted.filter(({ draft }) => draft.state !== 'handed-in');
  const rows = missingOnly ? missing : data.rows;
  const { draftsDue } = exchange.dates;
  const done = () => setDoing(null);
  return (
    <div className="px-5 py-5">
      <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl font-semibold">
          Drafts{' '}
          <span className="text-base font-normal text-ink-soft">
            {exchange.secondRound
              ? `${counted.length - missing.length} of ${counted.length} revised, and are reviewed once more`
              : `${counted.length - missing.length} of ${counted.length} handed in`}
            {draftsDue !== null && !exchange.secondRound && (
              <>
                , due <When at={draftsDue} timeZone={exchange.course.timeZone} />
              </>
            )}
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
                  Not handed in {missing.length}
                </Button>
                <Button disabled={missing.length === 0 || !exchange.published} onClick={() => setDoing('remind')}>
                  Remind {missing.length}…
                </Button>
              </>
            )}
            <Button disabled={missing.length === counted.length} onClick={() => setDoing('archive')}>
              Download all…
            </Button>
          </div>
        )}
      </div>
      {data.rows.length === 0 ? (
        <Empty title="Nobody takes part yet.">
          <p>
            Once the exchange is published on the{' '}
            <Link to="../plan" className="text-dusk underline">
              Plan
            </Link>{' '}
            page, every student of the course shows here.
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
        <OwnTimesDialog what={doing.what} row={doing.row} onClose={done} />
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
      label="Drafts"
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
          column('group', 'Group', {
            sort: ({ draft }) => draft.group,
            cell: ({ draft }) => <span className="text-ink-soft">{draft.group}</span>,
          }),
        ]
      : []),
    column('state', 'State', {
      sort: ({ draft, excused }) => (excused ? null : STATE_ORDER[draft.state]),
      cell: (row) => <StateCell row={row} />,
    }),
    column('title', 'Title', {
      sort: ({ draft }) => (draft.title === '' ? null : draft.title),
      cell: ({ draft }) => <span className="line-clamp-2 max-w-72 break-words">{draft.title}</span>,
    }),
    column('when', 'Handed in', {
      sort: ({ draft }) => (draft.handedInAt === null ? null : Date.parse(draft.handedInAt)),
      most: true,
      cell: (row) => <WhenCell row={row} />,
    }),
    column('words', 'Words', {
      right: true,
      most: true,
      sort: ({ draft }) => (draft.words === 0 ? null : draft.words),
      cell: ({ draft }) => (draft.words === 0 ? '' : draft.words),
    }),
    column('files', 'Files', {
      right: true,
      most: true,
      sort: ({ draft }) => (draft.bytes === 0 ? null : draft.bytes),
      cell: ({ draft }) => (
        <span className="whitespace-nowrap">{draft.bytes === 0 ? '' : bytesInWords(draft.bytes)}</span>
      ),
    }),
    column('acts', 'What to do', {
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
      {dropped && <span className="ml-1.5 font-normal text-ink-soft">dropped</span>}
    </>
  );
}

function StateCell({ row: { draft, excused } }: { readonly row: ProgressRow }) {
  return (
    <>
      {excused ? <StateMark state="excused" word="excused" wordHidden={false} /> : <DraftCell draft={draft} />}
      {draft.copyFailed && <p className="text-sm text-madder">a copy failed</p>}
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
        savedAt !== null && (
          <>
            saved <When at={savedAt} timeZone={timeZone} />
          </>
        )
      )}
      {late !== null && <span className="block text-madder">{lateInWords(late)}</span>}
    </span>
  );
}

function ActsCell({ row, onDo }: { readonly row: ProgressRow; readonly onDo: (doing: Doing) => void }) {
  const exchange = useExchange();
  const { id, person, excused } = row;
  const instructor = exchange.course.role === 'instructor';
  const name = person.name ?? 'this student';
  return (
    <span className="whitespace-nowrap">
      <Button small aria-label={`See the exchange as ${name}`} onClick={() => seeAs(exchange.id, id)}>
        See as
      </Button>{' '}
      <Menu
        trigger={
          <Button small aria-label={`More about ${name}`}>
            More
          </Button>
        }
        groups={[
          [
            ...(instructor
              ? [
                  { words: 'Give more time…', onPick: () => onDo({ what: 'extend', row }) },
                  ...(excused
                    ? [{ words: 'Take the excuse back…', onPick: () => onDo({ what: 'take-back', row }) }]
                    : [{ words: 'Excuse…', onPick: () => onDo({ what: 'excuse', row }) }]),
                ]
              : []),
            { words: 'Hand in for the student…', onPick: () => onDo({ what: 'hand-in-for', row }) },
          ],
        ]}
      />
    </span>
  );
}
