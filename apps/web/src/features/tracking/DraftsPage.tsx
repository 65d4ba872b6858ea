import type { ProgressRow } from '@salt-circle/contracts';
import { useState } from 'react';
import { Link } from 'react-router';
import { Button, Empty, Loading, Menu, StateMark } from '../../kit/index.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useProgressQuery } from '../../app/progressApi.js';
import { seeAs } from '../../app/seeing/seeAs.js';
import { lateInWords } from '../../app/settingWords.js';
import { useNow } from '../../app/time/useNow.js';
import { When } from '../../app/time/When.js';
import { exactly } from '../../app/time/words.js';
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
            {counted.length - missing.length} of {counted.length} handed in
            {draftsDue !== null && (
              <>
                , due <When at={draftsDue} timeZone={exchange.course.timeZone} />
              </>
            )}
          </span>
        </h2>
        {data.rows.length > 0 && (
          <div className="flex flex-wrap gap-2">
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
      {doing === 'remind' && <ReminderDialog rows={missing} onClose={done} />}
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

function DraftTable({ rows, onDo }: DraftTableProps) {
  const exchange = useExchange();
  const grouped = rows.some(({ draft }) => draft.group !== null);
  const heads = ['Person', 'Alias', ...(grouped ? ['Group'] : []), 'State', 'Title', 'Handed in'];
  return (
    <div className="overflow-x-auto">
      <table className="w-full text-left">
        <thead>
          <tr className="border-b border-ink text-sm text-ink-soft">
            {heads.map((words) => (
              <th key={words} scope="col" className="px-2 py-1.5 font-semibold">
                {words}
              </th>
            ))}
            {['Words', 'Files'].map((words) => (
              <th key={words} scope="col" className="px-2 py-1.5 text-right font-semibold">
                {words}
              </th>
            ))}
            <th scope="col" className="px-2 py-1.5">
              <span className="sr-only">What to do</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <TableRow key={row.id} row={row} grouped={grouped} onDo={onDo} exchangeId={exchange.id} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

interface TableRowProps {
  readonly row: ProgressRow;
  readonly grouped: boolean;
  readonly exchangeId: string;
  readonly onDo: (doing: Doing) => void;
}

function TableRow({ row, grouped, exchangeId, onDo }: TableRowProps) {
  const exchange = useExchange();
  const now = useNow();
  const { id, person, draft, dropped, excused } = row;
  const { timeZone } = exchange.course;
  const instructor = exchange.course.role === 'instructor';
  const name = person.name ?? 'this student';
  return (
    <tr className="border-b border-line">
      <th scope="row" className="px-2 py-2 font-semibold">
        {person.name}
        {dropped && <span className="ml-1.5 font-normal text-ink-soft">dropped</span>}
      </th>
      <td className="px-2 py-2 text-ink-soft">{person.alias}</td>
      {grouped && <td className="px-2 py-2 text-ink-soft">{draft.group}</td>}
      <td className="px-2 py-2">
        {excused ? <StateMark state="excused" word="excused" wordHidden={false} /> : <DraftCell draft={draft} />}
        {draft.copyFailed && <p className="text-sm text-madder">a copy failed</p>}
      </td>
      <td className="max-w-72 truncate px-2 py-2">{draft.title}</td>
      <td className="px-2 py-2 whitespace-nowrap text-ink-soft">
        {draft.handedInAt !== null
          ? exactly(Date.parse(draft.handedInAt), timeZone, now)
          : draft.savedAt !== null && `saved ${exactly(Date.parse(draft.savedAt), timeZone, now)}`}
        {draft.late !== null && (
          <span className="block text-sm whitespace-normal text-madder">{lateInWords(draft.late)}</span>
        )}
      </td>
      <td className="px-2 py-2 text-right">{draft.words === 0 ? '' : draft.words}</td>
      <td className="px-2 py-2 text-right whitespace-nowrap">{draft.bytes === 0 ? '' : bytesInWords(draft.bytes)}</td>
      <td className="px-2 py-1 text-right whitespace-nowrap">
        <Button small aria-label={`See the exchange as ${name}`} onClick={() => seeAs(exchangeId, id)}>
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
      </td>
    </tr>
  );
}
