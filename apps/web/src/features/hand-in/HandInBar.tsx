import type { ExchangeView, MyDraftView, VersionMeta } from '@salt-circle/contracts';
import { useState } from 'react';
import { Button, Dialog, Menu, SaveMark, StateMark } from '../../kit/index.js';
import type { SavingState } from '../../app/saving/useSaving.js';
import { requestSignIn } from '../../app/session/requestSignIn.js';
import { useViewAs } from '../../app/view-as/useViewAs.js';
import { useNarrow } from '../../app/useNarrow.js';
import { saveQueue } from '../../app/store.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { HandInDialog } from './HandInDialog.js';
import { Receipt } from './Receipt.js';
import { countingOf, purposeOf, draftStatus, type Purpose } from './draftStatus.js';
import { Withdraw, WithdrawDialog } from './Withdraw.js';
import { say } from '../../words/hand-in.js';

export interface HandInBarProps {
  readonly draft: MyDraftView;
  /** Of everything that is typed for this draft. */
  readonly savePrefix: string;
  readonly saving: SavingState;
  readonly receipt: VersionMeta | null;
  readonly onReceipt: (receipt: VersionMeta | null) => void;
}

export function HandInBar({ draft, savePrefix, saving, receipt, onReceipt }: HandInBarProps) {
  const exchange = useExchange();
  const narrow = useNarrow();
  const viewAs = useViewAs() !== null;
  const [withdrawing, setWithdrawing] = useState(false);
  const [looking, setLooking] = useState<'as-reviewer' | 'hand-in' | null>(null);
  const changed = hasChanged(draft, savePrefix, saving);
  const purpose = purposeOf(exchange);
  const open = exchange.mayHandIn || exchange.mayRevise;
  const counting = countingOf(draft, purpose);
  const { mark, words: state, explained, loud } = draftStatus(draft, changed, exchange.mayHandIn, purpose);
  const due = dueOf(exchange);
  const signedOut = saving.state === 'signed-out';
  const nothingNew = counting !== undefined && !changed;
  return (
    <footer
      className={`no-print sticky bottom-0 z-20 flex items-center justify-between border-t border-line bg-paper ${narrow ? 'gap-x-3 px-3 py-1.5' : 'flex-wrap gap-x-5 gap-y-2 px-5 py-2.5'}`}
    >
      <div className="flex items-center gap-3">
        <StateMark state={mark} share={0.6} word={state} size={20} />
        <div>
          <p className={`leading-tight font-semibold ${loud ? 'text-madder' : ''}`}>{state}</p>
          {narrow ? (
            <SaveMark state={saving.state} savedAt={saving.savedAt} />
          ) : (
            <p className="text-sm text-ink-soft">{explained}</p>
          )}
        </div>
      </div>
      <div className={`flex items-center gap-x-4 gap-y-2 ${narrow ? 'shrink-0' : 'flex-wrap'}`}>
        {!narrow && <SaveMark state={saving.state} savedAt={saving.savedAt} />}
        {!narrow && due !== null && open && (
          <span className="text-sm text-ink-soft">
            {exchange.handInIsLate ? say('lateTakenUntil') : say('due')}{' '}
            <When at={due} timeZone={exchange.course.timeZone} exact={exchange.handInIsLate} />
          </span>
        )}
        {!narrow && open && counting !== undefined && !viewAs && <Withdraw />}
        {!narrow && exchange.mayHandIn && !viewAs && (
          <Button onClick={() => setLooking('as-reviewer')}>{say('seeItAsReviewer')}</Button>
        )}
        {narrow && open && !viewAs && (
          <Menu
            trigger={
              <Button small aria-label={say('moreAboutHandingIn')}>
                {say('more')}
              </Button>
            }
            groups={[
              [{ words: say('seeItAsReviewer'), onPick: () => setLooking('as-reviewer') }],
              ...(counting === undefined ? [] : [[{ words: say('takeBack'), onPick: () => setWithdrawing(true) }]]),
            ]}
          />
        )}
        {open && (
          <Button
            look="primary"
            disabled={(nothingNew && !signedOut) || viewAs}
            onClick={() => (signedOut ? requestSignIn() : setLooking('hand-in'))}
          >
            {signedOut ? say('signInToHandIn') : handInWords(purpose, counting !== undefined)}
          </Button>
        )}
      </div>
      <Dialog
        open={looking !== null}
        onClose={() => setLooking(null)}
        wide
        title={looking === 'hand-in' ? say('handInThis', { purpose }) : say('whatReviewersWillSee')}
        description={whoSees(exchange, purpose)}
      >
        {looking !== null && (
          <HandInDialog
            lookOnly={looking === 'as-reviewer'}
            purpose={purpose}
            savePrefix={savePrefix}
            onDone={(version) => {
              setLooking(null);
              onReceipt(version);
            }}
          />
        )}
      </Dialog>
      <WithdrawDialog open={withdrawing} onClose={() => setWithdrawing(false)} />
      <Receipt receipt={receipt} due={due} onClose={() => onReceipt(null)} />
    </footer>
  );
}

function handInWords(purpose: Purpose, again: boolean): string {
  if (purpose === 'revision') return again ? say('handInRevisionAgain') : say('handInRevision');
  return again ? say('handInAgain') : say('handIn');
}

function whoSees({ alias, revisionShown }: ExchangeView, purpose: Purpose): string {
  const named = alias === null ? 'yes' : 'no';
  if (purpose === 'draft') return say('thisIsWhatYourReviewers', { named });
  return revisionShown ? say('yourInstructorReadsRevisionAnd', { named }) : say('yourInstructorReadsRevisionYour');
}

/** Whether there is anything newer than what was handed in: unsent, sent since the draft was read, or from before. */
function hasChanged(draft: MyDraftView, prefix: string, saving: SavingState): boolean {
  const since = (key: string, revision: number) => saveQueue.revision(key, revision) !== revision;
  const texts = Object.entries(draft.texts);
  return (
    saving.state !== 'saved' ||
    draft.changedSinceHandIn ||
    since(`${prefix}:head`, draft.revision) ||
    texts.some(([id, { revision }]) => since(`${prefix}:text:${id}`, revision))
  );
}

/** One's own due time, or the common one; once that has passed, the end of the late window. */
export function dueOf(exchange: ExchangeView): string | null {
  const { own, dates, handInIsLate } = exchange;
  if (purposeOf(exchange) === 'revision') return own?.revisionDue ?? dates.revisionDue;
  if (handInIsLate && own?.draftsDue == null) return dates.lateUntil;
  return own?.draftsDue ?? dates.draftsDue;
}
