import type { ReleaseRow, ReleaseView } from '@salt-circle/contracts';
import { endOf } from '@salt-circle/core';
import { useState } from 'react';
import { useReleaseMutation, useReleaseViewQuery } from '../../app/moderation/checkApi.js';
import { labelWords } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useNow } from '../../app/time/useNow.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Dialog, Loading, Notice, StateMark } from '../../kit/index.js';
import { ReleasePeople } from './ReleasePeople.js';
import { TakeBack } from './TakeBack.js';
import { say } from '../../words/moderation.js';

/** Who gets what, and the one press that gives it. */
export function ReleasePanel() {
  const exchange = useExchange();
  const { data, error } = useReleaseViewQuery(exchange.id, { refetchOnMountOrArgChange: true });
  const [open, setOpen] = useState<'release' | 'people' | 'back' | null>(null);
  const { released, figures, course } = exchange;
  const instructor = course.role === 'instructor' && exchange.published;
  return (
    <aside className="space-y-4 border-l border-line bg-crust px-5 py-5">
      <h2 className="font-semibold">{say('release')}</h2>
      <WhenReleased />
      {error !== undefined && <ProblemNotice error={error} />}
      {data === undefined && error === undefined && <Loading what={say('whoGetsWhat')} />}
      {data !== undefined && <Summary view={data} />}
      {instructor && data !== undefined && (
        <div className="flex flex-wrap gap-2">
          {!released && !exchange.feedbackOpen && <ReleaseNow onPress={() => setOpen('release')} />}
          <Button disabled={data.rows.length === 0} onClick={() => setOpen('people')}>
            {say('forSomeOfThem')}
          </Button>
          {released && (
            <Button disabled={data.read > 0} onClick={() => setOpen('back')}>
              {say('takeItBack')}
            </Button>
          )}
        </div>
      )}
      {released && data !== undefined && data.read > 0 && (
        <p className="text-sm text-ink-soft">{say('authorsHaveReadItSo', { read: data.read })}</p>
      )}
      {figures !== null && (
        <p>
          <StateMark
            state={figures.submitted === figures.allocated && figures.allocated > 0 ? 'done' : 'in-progress'}
            share={figures.allocated === 0 ? 0 : figures.submitted / figures.allocated}
            word={say('ofReviewsSubmitted', { submitted: figures.submitted, allocated: figures.allocated })}
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
      <Notice tone="done" title={say('feedbackIsReleased')}>
        {say('authorsHaveBeenAbleTo', { when: <When at={at} timeZone={course.timeZone} /> })}
      </Notice>
    );
  }
  if (feedbackOpen) return <p>{say('authorsReadEachReviewAs')}</p>;
  if (at === null) return <p>{say('noDateIsSetYet')}</p>;
  return <p>{say('authorsWillReadTheirFeedback', { when: <When at={at} timeZone={course.timeZone} /> })}</p>;
}

function ReleaseNow({ onPress }: { readonly onPress: () => void }) {
  const { dates, course } = useExchange();
  const now = useNow();
  const reviewing = dates.reviewsDue !== null && now < endOf(Date.parse(dates.reviewsDue));
  return (
    <>
      <Button look="primary" disabled={reviewing} onClick={onPress}>
        {say('releaseNow')}
      </Button>
      {reviewing && dates.reviewsDue !== null && (
        <p className="basis-full text-sm text-ink-soft">
          {say('reviewsCanStillComeIn', { when: <When at={dates.reviewsDue} timeZone={course.timeZone} /> })}
        </p>
      )}
    </>
  );
}

/** By how many reviews they get: how many authors. */
function Summary({ view }: { readonly view: ReleaseView }) {
  const { rows } = view;
  if (rows.length === 0) return <p className="text-ink-soft">{say('nobodyHasHandedInDraft')}</p>;
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
      {withheld > 0 && <p>{say('thingsAreWithheld', { withheld })}</p>}
      <Names rows={none} words={say('noReviewReceived')} open={none.length <= 8} />
      <Names rows={early} words={say('releasedBeforeOthers')} open={false} />
      <Names rows={held} words={say('heldBack')} open={held.length <= 8} />
    </div>
  );
}

function getsWords(authors: number, reviews: number): string {
  const what = say('reviewsCounted', { reviews });
  return say('authorsGet', { authors, what });
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
      <summary className="cursor-pointer font-semibold">{say('counted', { words, rows: rows.length })}</summary>
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
    <Dialog open onClose={onClose} title={say('releaseFeedbackNow')} description={say('authorsReadItAtOnce')}>
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
          {say('releaseToAuthors')}
        </Button>
      </div>
    </Dialog>
  );
}
