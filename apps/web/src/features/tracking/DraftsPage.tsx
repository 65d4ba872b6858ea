import type { ProgressRow } from '@salt-circle/contracts';
import { useState } from 'react';
import { Link } from 'react-router';
import { Button, Empty, Loading, StateMark } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useProgressQuery } from '../../app/progressApi.js';
import { seeAs } from '../../app/seeing/seeAs.js';
import { useNow } from '../../app/time/useNow.js';
import { When } from '../../app/time/When.js';
import { exactly } from '../../app/time/words.js';
import { useExchange } from '../../app/useExchange.js';
import { DraftCell } from './ReviewsPage.js';

/** Who has handed in what, and when. */
export function DraftsPage() {
  const exchange = useExchange();
  const { data, error } = useProgressQuery(exchange.id, { refetchOnMountOrArgChange: true, pollingInterval: 20_000 });
  const [missingOnly, setMissingOnly] = useState(false);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what="the drafts" />;
  const counted = data.rows.filter(({ dropped, excused }) => !dropped && !excused);
  const missing = counted.filter(({ draft }) => draft.state !== 'handed-in');
  const rows = missingOnly ? missing : data.rows;
  const { draftsDue } = exchange.dates;
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
          <Button
            aria-pressed={missingOnly}
            className="aria-pressed:border-iodine aria-pressed:bg-crust"
            onClick={() => setMissingOnly(!missingOnly)}
          >
            Not handed in {missing.length}
          </Button>
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
        <DraftTable rows={rows} exchangeId={exchange.id} timeZone={exchange.course.timeZone} />
      )}
    </div>
  );
}

interface DraftTableProps {
  readonly rows: readonly ProgressRow[];
  readonly exchangeId: string;
  readonly timeZone: string;
}

function DraftTable({ rows, exchangeId, timeZone }: DraftTableProps) {
  const now = useNow();
  return (
    <div className="overflow-x-auto">
      <table className="w-full text-left">
        <thead>
          <tr className="border-b border-ink text-sm text-ink-soft">
            {['Person', 'Alias', 'State', 'Title', 'Handed in'].map((words) => (
              <th key={words} scope="col" className="px-2 py-1.5 font-semibold">
                {words}
              </th>
            ))}
            <th scope="col" className="px-2 py-1.5 text-right font-semibold">
              Words
            </th>
            <th scope="col" className="px-2 py-1.5">
              <span className="sr-only">See as</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ id, person, draft, dropped, excused }) => (
            <tr key={id} className="border-b border-line">
              <th scope="row" className="px-2 py-2 font-semibold">
                {person.name}
                {dropped && <span className="ml-1.5 font-normal text-ink-soft">dropped</span>}
              </th>
              <td className="px-2 py-2 text-ink-soft">{person.alias}</td>
              <td className="px-2 py-2">
                {excused ? (
                  <StateMark state="excused" word="excused" wordHidden={false} />
                ) : (
                  <DraftCell draft={draft} />
                )}
              </td>
              <td className="max-w-72 truncate px-2 py-2">{draft.title}</td>
              <td className="px-2 py-2 whitespace-nowrap text-ink-soft">
                {draft.handedInAt === null ? '' : exactly(Date.parse(draft.handedInAt), timeZone, now)}
              </td>
              <td className="px-2 py-2 text-right">{draft.words === 0 ? '' : draft.words}</td>
              <td className="px-2 py-1 text-right">
                <Button
                  small
                  aria-label={`See the exchange as ${person.name ?? 'this student'}`}
                  onClick={() => seeAs(exchangeId, id)}
                >
                  See as
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
