import type { MyDraftView, VersionMeta } from '@salt-circle/contracts';
import { Loading, Notice, SaveMark } from '../../kit/index.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { ReadingParts } from '../../app/viewing/ReadingParts.js';
import { lateInWords } from '@salt-circle/core';
import { useSavingState } from '../../app/saving/useSaving.js';
import { useMe } from '../../app/session/useMe.js';
import { DraftHead } from './DraftHead.js';
import { DraftSide } from './DraftSide.js';
import { FilesSection } from './FilesSection.js';
import { useVersionQuery } from './handInApi.js';
import { LinksSection } from './LinksSection.js';
import { TextSection } from './TextSection.js';
import { say } from '../../words/hand-in.js';

/** Once nothing can be handed in any more: the version that counts, to read, and what was only saved, folded away. */
export function WhatCounts({ draft }: { readonly draft: MyDraftView }) {
  const exchange = useExchange();
  const me = useMe();
  const prefix = `${me.id}:draft:${exchange.id}`;
  const saving = useSavingState(prefix, draft.savedAt);
  const counting = draft.versions.findLast(({ withdrawn }) => !withdrawn);
  const { data } = useVersionQuery(
    { exchangeId: exchange.id, number: counting?.number ?? 0 },
    { skip: counting === undefined },
  );
  // What this browser could not send in time is kept as well, and is on its way.
  const unsent = saving.state !== 'saved';
  const saved = unsent || (draft.id !== null && (counting === undefined || draft.changedSinceHandIn));
  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[1fr_22rem]">
      <div className="min-w-0 space-y-5 px-5 py-4 lg:px-12">
        <Standing counting={counting ?? null} begun={saved} />
        {saved && (
          <details open={counting === undefined} className="border-b border-line pb-3">
            <summary className="min-h-6 cursor-pointer font-semibold">
              {counting === undefined ? say('whatYouWrote') : say('whatYouChangedAfterHanding')}
            </summary>
            <div className="pt-3">
              {unsent && <SaveMark state={saving.state} savedAt={saving.savedAt} />}
              <Saved draft={draft} prefix={prefix} />
            </div>
          </details>
        )}
        {counting !== undefined && (
          <article>
            <h2 className="mb-4 font-serif text-2xl font-semibold">{data?.title ?? ''}</h2>
            {data === undefined ? (
              <Loading what={say('whatYouHandedIn')} />
            ) : (
              <ReadingParts reading={data.reading} exchangeId={exchange.id} tall />
            )}
          </article>
        )}
      </div>
      <DraftSide draft={draft} />
    </div>
  );
}

interface StandingProps {
  readonly counting: VersionMeta | null;
  /** Something was written, whether it counts or not. */
  readonly begun: boolean;
}

function Standing({ counting, begun }: StandingProps) {
  const { own, course, secondRound } = useExchange();
  if (counting !== null) {
    return (
      <Notice
        tone="done"
        title={
          secondRound
            ? say('yourRevisionIsReviewedOnce')
            : counting.purpose === 'revision'
              ? say('versionIsYourRevision', { number: counting.number })
              : say('versionCounts', { number: counting.number })
        }
      >
        {counting.handedInBy !== null
          ? say('handedInByItCannot', {
              when: <When at={counting.handedInAt} timeZone={course.timeZone} />,
              handedInBy: counting.handedInBy,
            })
          : say('handedInItCannotBe', { when: <When at={counting.handedInAt} timeZone={course.timeZone} /> })}
        {counting.late !== null && <span className="block text-madder">{lateInWords(counting.late)}</span>}
      </Notice>
    );
  }
  if (own?.excused === true) {
    return <Notice title={say('youAreExcused')}>{say('nothingIsAskedOfYou')}</Notice>;
  }
  if (secondRound) {
    return <Notice title={say('thereIsNothingForYou')}>{say('revisionsAreReviewedOnceMore')}</Notice>;
  }
  return (
    <Notice tone="problem" title={say('nothingIsHandedIn')}>
      {begun ? say('dueTimeHasPassedWhat') : say('dueTimeHasPassedAsk')}
    </Notice>
  );
}

/** Saved, to be read: nothing in it can be changed. */
function Saved({ draft, prefix }: { readonly draft: MyDraftView; readonly prefix: string }) {
  const { deliverables } = useExchange();
  const parts = deliverables.map((deliverable, index) => {
    const shared = { deliverable, draft, heading: deliverables.length > 1, number: index + 1, editable: false };
    if (deliverable.kind === 'text') {
      return <TextSection key={deliverable.id} {...shared} saveKey={`${prefix}:text:${deliverable.id}`} />;
    }
    return deliverable.kind === 'link' ? (
      <LinksSection key={deliverable.id} {...shared} />
    ) : (
      <FilesSection key={deliverable.id} {...shared} />
    );
  });
  return (
    <>
      <DraftHead draft={draft} saveKey={`${prefix}:head`} editable={false} />
      {parts}
    </>
  );
}
