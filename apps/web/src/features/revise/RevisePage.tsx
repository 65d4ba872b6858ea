import type { RevisionView } from '@salt-circle/contracts';
import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import { useFeedbackQuery, useRevisionQuery } from '../../app/after/afterApi.js';
import { Person } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useViewAs } from '../../app/view-as/useViewAs.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { useVersions } from '../../app/viewing/useVersions.js';
import { buttonClass, Empty, Loading, StateMark } from '../../kit/index.js';
import { Comparison } from './Comparison.js';
import { Remarks } from './Remarks.js';
import { pairsOf } from './versions.js';
import { say } from '../../words/revise.js';

/** For its author: what changed since the draft was reviewed, and the plan of changes beside it. */
export function RevisePage() {
  const exchange = useExchange();
  const { data, error } = useFeedbackQuery(exchange.id, { skip: !exchange.feedbackOpen });
  if (!exchange.feedbackOpen) {
    return (
      <div className="px-5">
        <Empty title={say('revisingBeginsWithYourFeedback')}>
          <p>
            {exchange.dates.release !== null && (
              <>
                {say('youWillHaveIt', {
                  when: <When at={exchange.dates.release} timeZone={exchange.course.timeZone} />,
                })}
              </>
            )}
          </p>
        </Empty>
      </div>
    );
  }
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('yourFeedback')} />;
  const draftId = data.drafts[0]?.draftId;
  if (draftId === undefined) {
    return (
      <div className="px-5">
        <Empty title={say('thereIsNothingToRevise')}>
          <p>{say('youDidNotHandIn')}</p>
        </Empty>
      </div>
    );
  }
  return <Revising draftId={draftId} />;
}

function Revising({ draftId }: { readonly draftId: string }) {
  const exchange = useExchange();
  // With somebody else's eyes one reads, and decides nothing.
  const viewAs = useViewAs() !== null;
  const { data, error } = useRevisionQuery({ exchangeId: exchange.id, draftId }, { refetchOnMountOrArgChange: true });
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('yourRevision')} />;
  return (
    <>
      <Beside view={data} own={!viewAs} />
      <RevisionBar view={data} />
    </>
  );
}

function Beside({ view, own }: { readonly view: RevisionView; readonly own: boolean }) {
  const exchange = useExchange();
  const pairs = useMemo(() => pairsOf(view), [view]);
  const texts = useMemo(() => pairs.flatMap(({ texts: both }) => (both === null ? [] : [both])), [pairs]);
  const compared = useVersions(texts);
  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-2">
      <Comparison view={view} pairs={pairs} compared={compared} exchangeId={exchange.id} />
      <Remarks {...{ view, pairs, compared, own }} exchangeId={exchange.id} timeZone={exchange.course.timeZone} />
    </div>
  );
}

/** Whether the revision is handed in: the one thing that must never be in doubt. */
function RevisionBar({ view }: { readonly view: RevisionView }) {
  const { dates, own, mayRevise, course } = useExchange();
  const due = own?.revisionDue ?? dates.revisionDue;
  const handed = view.handedInAt !== null;
  if (due === null) return null;
  const handedIn = <When at={view.handedInAt ?? ''} timeZone={course.timeZone} />;
  const state = handed
    ? say('revisionHandedIn')
    : mayRevise
      ? say('revisionNotHandedInYet')
      : say('noRevisionWasHandedIn');
  return (
    <footer className="no-print sticky bottom-0 z-20 flex flex-wrap items-center justify-between gap-x-5 gap-y-2 border-t border-line bg-paper px-5 py-2.5">
      <div className="flex items-center gap-3">
        <StateMark state={handed ? 'done' : mayRevise ? 'in-progress' : 'late'} share={0.6} word={state} size={20} />
        <div>
          <p className={`leading-tight font-semibold ${handed ? '' : 'text-madder'}`}>{state}</p>
          <p className="text-sm text-ink-soft">
            {handed
              ? mayRevise
                ? say('youCanHandInAgain', { when: handedIn })
                : handedIn
              : say(mayRevise ? 'dueItCountsOnlyOnce' : 'due', {
                  when: <When at={due} timeZone={course.timeZone} />,
                })}
          </p>
        </div>
      </div>
      {mayRevise && (
        <Link to="../draft" relative="path" className={buttonClass('primary')}>
          {handed ? say('goOnWriting') : say('writeAndHandInRevision')}
        </Link>
      )}
    </footer>
  );
}

/** For staff, and for reviewers where the plan says so: a draft as it was reviewed beside its revision. */
export function RevisionPage() {
  const exchange = useExchange();
  const { draftId = '' } = useParams();
  const { data, error } = useRevisionQuery({ exchangeId: exchange.id, draftId }, { refetchOnMountOrArgChange: true });
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('revision')} />;
  const staff = exchange.marks === null;
  return (
    <>
      <p className="px-6 pt-4 text-ink-soft">
        <Link to={`/exchanges/${exchange.id}/${staff ? 'after' : 'review'}`} className="text-dusk underline">
          {staff ? say('afterRelease') : say('yourReviews')}
        </Link>{' '}
        /{' '}
        {data.handedInAt === null ? (
          <Person label={data.author} />
        ) : (
          say('revisionHandedInOf', {
            author: <Person label={data.author} />,
            when: <When at={data.handedInAt} timeZone={exchange.course.timeZone} />,
          })
        )}
      </p>
      {data.changes !== null && data.changes !== '' && (
        <blockquote className="mx-6 mt-2 border-l-2 border-line pl-3 whitespace-pre-wrap">{data.changes}</blockquote>
      )}
      {data.revision === null ? (
        <div className="px-6">
          <Empty title={say('noRevisionHasBeenHanded')}>
            <p>{say('onceItIsYouSee')}</p>
          </Empty>
        </div>
      ) : (
        <Beside view={data} own={false} />
      )}
    </>
  );
}
