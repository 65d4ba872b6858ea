import type { MyDraftView, VersionMeta } from '@salt-circle/contracts';
import { useCallback, useEffect, useRef, useState } from 'react';
import { Button, Empty, Loading } from '../../kit/index.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useSavingState } from '../../app/saving/useSaving.js';
import { useViewAs } from '../../app/view-as/useViewAs.js';
import { useMe } from '../../app/session/useMe.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { useNarrow } from '../../app/useNarrow.js';
import { useFresh } from '../../app/useFresh.js';
import { DraftHead } from './DraftHead.js';
import { DraftSide } from './DraftSide.js';
import { FilesSection } from './FilesSection.js';
import { dueOf, HandInBar } from './HandInBar.js';
import { useMyDraftQuery } from './handInApi.js';
import { LinksSection } from './LinksSection.js';
import { TextSection } from './TextSection.js';
import { useAlone } from './useAlone.js';
import { WhatCounts } from './WhatCounts.js';
import { say } from '../../words/hand-in.js';

/** Pixels from which there is room for brief and form beside the draft. */
const LARGE = 1024;
/** Reading copies are asked after this often while one is being made, and what others of a group write. Milliseconds. */
const OFTEN = 2_000;
const AT_TIMES = 15_000;

/** Writing the draft, adding files, and handing it in. */
export function HandInPage() {
  const exchange = useExchange();
  const [polling, setPolling] = useState(0);
  const query = useMyDraftQuery(exchange.id, { refetchOnMountOrArgChange: true, pollingInterval: polling });
  const draft = useFresh(query);
  const making = draft?.parts.some(({ copy }) => copy?.state === 'waiting') ?? false;
  const grouped = draft?.group != null;
  const often = usePolling(OFTEN);
  const atTimes = usePolling(AT_TIMES);
  useEffect(() => setPolling(making ? often : grouped ? atTimes : 0), [making, grouped, often, atTimes]);
  const opened = exchange.stage !== 'planning';
  if (!opened && exchange.dates.draftsOpen !== null) {
    return (
      <div className="px-5">
        <Empty title={say('draftsHaveNotOpenedYet')}>
          <p>
            {say('youCanWriteAndHand', {
              when: <When at={exchange.dates.draftsOpen} timeZone={exchange.course.timeZone} />,
            })}
          </p>
        </Empty>
        <DraftSide draft={null} />
      </div>
    );
  }
  if (query.error !== undefined && draft === undefined) return <ProblemNotice error={query.error} />;
  if (draft === undefined) return <Loading what={say('yourDraft')} />;
  return <Opened draft={draft} />;
}

/**
 * To write in, as long as drafts can be handed in; later, what counts. Whoever was writing when the time passed goes on: the
 * bar says that it does not count any more.
 */
function Opened({ draft }: { readonly draft: MyDraftView }) {
  const { mayHandIn, mayRevise } = useExchange();
  const open = mayHandIn || mayRevise;
  const [wasOpen, setWasOpen] = useState(open);
  if (open && !wasOpen) setWasOpen(true);
  return wasOpen ? <Writing draft={draft} /> : <WhatCounts draft={draft} />;
}

function Writing({ draft }: { readonly draft: MyDraftView }) {
  const exchange = useExchange();
  const me = useMe();
  const viewAs = useViewAs() !== null;
  const prefix = `${me.id}:draft:${exchange.id}`;
  const saving = useSavingState(prefix, draft.savedAt);
  const [receipt, setReceipt] = useState<VersionMeta | null>(null);
  const [alone, setAlone] = useState(false);
  const { deliverables } = exchange;
  const due = dueOf(exchange);
  const several = deliverables.length > 1;
  const narrow = useNarrow(LARGE);
  const frame = useRef<HTMLDivElement>(null);
  const button = useRef<HTMLButtonElement>(null);
  const leave = useCallback(() => {
    setAlone(false);
    button.current?.focus();
  }, []);
  useAlone(frame, alone, leave);
  return (
    <div ref={frame} className={alone ? 'fixed inset-0 z-30 flex flex-col overflow-y-auto bg-salt' : 'contents'}>
      <div className={alone ? 'flex-1' : 'grid flex-1 grid-cols-1 lg:grid-cols-[1fr_22rem]'}>
        <div className={`min-w-0 px-5 py-4 ${alone ? 'mx-auto w-full max-w-4xl' : 'lg:px-12'}`}>
          <div className="flex items-start justify-between gap-4">
            {draft.group === null ? (
              <span />
            ) : (
              <p className="mb-2 text-sm text-ink-soft">
                {say('handedInByYourGroup', {
                  strong: <strong className="text-ink">{draft.group.title}</strong>,
                  members: draft.group.members.join(', '),
                })}
              </p>
            )}
            <Button ref={button} small look="quiet" aria-pressed={alone} onClick={() => setAlone(!alone)}>
              {alone ? say('backToPage') : say('fullScreen')}
            </Button>
          </div>
          {narrow && !alone && (
            <details className="mb-4 border-b border-line pb-2" open={draft.id === null}>
              <summary className="min-h-6 cursor-pointer">
                <span className="font-semibold">{say('briefAndReviewForm')}</span>
                {due !== null && (
                  <span className="block pl-4 text-sm text-ink-soft">
                    {exchange.handInIsLate ? say('lateTakenUntil') : say('due')}{' '}
                    <When at={due} timeZone={exchange.course.timeZone} exact={exchange.handInIsLate} />
                  </span>
                )}
              </summary>
              <DraftSide draft={draft} />
            </details>
          )}
          <DraftHead draft={draft} saveKey={`${prefix}:head`} editable={!viewAs} />
          {deliverables.map((deliverable, index) => {
            const shared = { deliverable, draft, heading: several || deliverable.kind !== 'text', number: index + 1 };
            if (deliverable.kind === 'text') {
              return (
                <TextSection
                  key={deliverable.id}
                  {...shared}
                  saveKey={`${prefix}:text:${deliverable.id}`}
                  editable={!viewAs}
                />
              );
            }
            return deliverable.kind === 'link' ? (
              <LinksSection key={deliverable.id} {...shared} editable={!viewAs} />
            ) : (
              <FilesSection key={deliverable.id} {...shared} editable={!viewAs} />
            );
          })}
        </div>
        {!alone && !narrow && <DraftSide draft={draft} />}
      </div>
      <HandInBar draft={draft} savePrefix={prefix} saving={saving} receipt={receipt} onReceipt={setReceipt} />
    </div>
  );
}
