import type { ReleaseRow, ReleaseView } from '@salt-circle/contracts';
import { counted, endOf } from '@salt-circle/core';
import { useState } from 'react';
import { useReleaseMutation, useReleaseViewQuery } from '../../app/check/checkApi.js';
import { labelWords } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useNow } from '../../app/time/useNow.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Dialog, Loading, Notice, StateMark } from '../../kit/index.js';
import { ReleasePeople } from './ReleasePeople.js';
import { TakeBack } from './TakeBack.js';

/** Who gets what, and the one press that gives it. */
export function ReleasePanel() {
  const exchange = useExchange();
  const { data, error } = useReleaseViewQuery(exchange.id, { refetchOnMountOrArgChange: true });
  const [open, setOpen] = useState<'release' | 'people' | 'back' | null>(null);
  const { released, figures, course } = exchange;
  const instructor = course.role === 'instructor' && exchange.published;
  return (
    <aside className="space-y-4 border-l border-line bg-crust px-5 py-5">
      <h2 className="font-semibold">Release</h2>
      <WhenReleased />
      {error !== undefined && <ProblemNotice error={error} />}
      {data === undefined && error === undefined && <Loading what="who gets what" />}
      {data !== undefined && <Summary view={data} />}
      {instructor && data !== undefined && (
        <div className="flex flex-wrap gap-2">
          {!released && !exchange.feedbackOpen && <ReleaseNow onPress={() => setOpen('release')} />}
          <Button disabled={data.rows.length === 0} onClick={() => setOpen('people')}>
            For some of them…
          </Button>
          {released && (
            <Button disabled={data.read > 0} onClick={() => setOpen('back')}>
              Take it back…
            </Button>
          )}
        </div>
      )}
      {released && data !== undefined && data.read > 0 && (
        <p className="text-sm text-ink-soft">
          {counted(data.read, 'One author has', '# authors have')} read it, so it cannot be taken back.
        </p>
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
      {data !== undefined && open === 'release' && <ReleaseDialog view={data} onClose={() => setOpen(null)} />}
      {data !== undefined && open === 'people' && <ReleasePeople rows={data.rows} onClose={() => setOpen(null)} />}
      {open === 'back' && <TakeBack onClose={() => setOpen(null)} />}
    </aside>
  );
}

function WhenReleased() {
  const { dates, course, released, feedbackOpen } = useExchange();
  const at = dates.release ?? dates.reviewsDue;
  if (released && at !== null) {
    return (
      <Notice tone="done" title="Feedback is released.">
        Authors have been able to read it since <When at={at} timeZone={course.timeZone} />.
      </Notice>
    );
  }
  if (feedbackOpen) return <p>Authors read each review as soon as it is submitted.</p>;
  if (at === null) return <p>No date is set yet.</p>;
  return (
    <p>
      Authors will read their feedback <When at={at} timeZone={course.timeZone} />.
    </p>
  );
}

function ReleaseNow({ onPress }: { readonly onPress: () => void }) {
  const { dates, course } = useExchange();
  const now = useNow();
  const reviewing = dates.reviewsDue !== null && now < endOf(Date.parse(dates.reviewsDue));
  return (
    <>
      <Button look="primary" disabled={reviewing} onClick={onPress}>
        Release now…
      </Button>
      {reviewing && dates.reviewsDue !== null && (
        <p className="basis-full text-sm text-ink-soft">
          Reviews can still come in: they are due <When at={dates.reviewsDue} timeZone={course.timeZone} />. To release
          to all of them earlier, move that date on the Plan page.
        </p>
      )}
    </>
  );
}

/** By how many reviews they get: how many authors. */
function Summary({ view }: { readonly view: ReleaseView }) {
  const { rows } = view;
  if (rows.length === 0)
    return <p className="text-ink-soft">Nobody has handed in a draft, so there is nobody to release to.</p>;
  const counts = [...new Set(rows.map(({ reviews }) => reviews))].sort((a, b) => b - a);
  const none = rows.filter(({ reviews }) => reviews === 0);
  const held = rows.filter(({ how }) => how === 'held');
  const early = rows.filter(({ how }) => how === 'early');
  const withheld = rows.reduce((sum, row) => sum + row.withheld, 0);
  return (
    <div className="space-y-2">
      <ul>
        {counts
          .filter((count) => count > 0)
          .map((count) => (
            <li key={count}>{getsWords(rows.filter(({ reviews }) => reviews === count).length, count)}</li>
          ))}
      </ul>
      {withheld > 0 && <p>{counted(withheld, 'One thing is withheld.', '# things are withheld.')}</p>}
      <Names rows={none} words="No review received" open={none.length <= 8} />
      <Names rows={early} words="Released before the others" open={false} />
      <Names rows={held} words="Held back" open={held.length <= 8} />
    </div>
  );
}

function getsWords(authors: number, reviews: number): string {
  const what = counted(reviews, '1 review', '# reviews');
  return counted(authors, `1 author gets ${what}`, `# authors get ${what}`);
}

interface NamesProps {
  readonly rows: readonly ReleaseRow[];
  readonly words: string;
  readonly open: boolean;
}

function Names({ rows, words, open }: NamesProps) {
  if (rows.length === 0) return null;
  return (
    <details className="text-sm" open={open}>
      <summary className="cursor-pointer font-semibold">
        {words} ({rows.length})
      </summary>
      <ul className="text-ink-soft">
        {rows.map(({ participantId, person, reason }) => (
          <li key={participantId}>
            {labelWords(person)}
            {reason !== null && `: ${reason}`}
          </li>
        ))}
      </ul>
    </details>
  );
}

function ReleaseDialog({ view, onClose }: { readonly view: ReleaseView; readonly onClose: () => void }) {
  const exchange = useExchange();
  const [release, { isLoading, error }] = useReleaseMutation();
  return (
    <Dialog
      open
      onClose={onClose}
      title="Release feedback now?"
      description="Authors read it at once, and are told by mail. It can be taken back until the first of them has read theirs."
    >
      <div className="space-y-3">
        <Summary view={view} />
        {error !== undefined && <ProblemNotice error={error} />}
        <Button
          look="primary"
          busy={isLoading}
          onClick={() =>
            void release({ id: exchange.id, at: null }).then((result) => result.error === undefined && onClose())
          }
        >
          Release to the authors
        </Button>
      </div>
    </Dialog>
  );
}
