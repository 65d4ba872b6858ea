import type { DeskView, NoteView } from '@salt-circle/contracts';
import type { Answer, Completeness } from '@salt-circle/core';
import { useRef, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { Button, buttonClass, Dialog, Notice, SaveMark, StateMark } from '../../kit/index.js';
import { Walk } from '../../app/boards/Walk.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useNarrow } from '../../app/useNarrow.js';
import { requestSignIn } from '../../app/session/requestSignIn.js';
import { useSavingState } from '../../app/saving/useSaving.js';
import { saveQueue } from '../../app/store.js';
import { When } from '../../app/time/When.js';
import { BeforeSubmit } from './BeforeSubmit.js';
import { useReopenReviewMutation, useSubmitReviewMutation } from '../../app/reviewApi.js';
import { itemAnchor } from './FormPanel.js';
import { ReopenDialog } from './moderation/ReopenDialog.js';
import { missingWords } from '../../app/form/itemState.js';
import { say } from '../../words/desk.js';

export interface DeskBarProps {
  readonly desk: DeskView;
  readonly state: Completeness;
  readonly answers: Readonly<Record<string, Answer | undefined>>;
  readonly notes: readonly NoteView[];
  readonly savePrefix: string;
  /** Before jumping to an item: bring the form into view. */
  readonly onJump: () => void;
}

/** Where an item is answered, brought into view. */
function fieldOf(itemId: string): HTMLElement | null {
  const item = document.getElementById(itemAnchor(itemId));
  item?.scrollIntoView({ block: 'start' });
  return item?.querySelector<HTMLElement>('input:not([type=range]), textarea, [role=radio]') ?? null;
}

/** Progress, what is missing, the saved state, and what to do next: always in sight. */
export function DeskBar({ desk, state, answers, notes, savePrefix, onJump }: DeskBarProps) {
  const saving = useSavingState(savePrefix);
  const [submit, submitting] = useSubmitReviewMutation();
  const [reopen, reopening] = useReopenReviewMutation();
  const [listing, setListing] = useState(false);
  const [unsent, setUnsent] = useState(false);
  const [asking, setAsking] = useState(false);
  const [reopeningIt, setReopening] = useState(false);
  const own = desk.reviewer.you === true;
  // What staff write under their own names has no due time.
  const due = desk.practice?.key === true || desk.voice !== null ? null : desk.exchange.reviewsDue;
  const narrow = useNarrow();
  const goingTo = useRef<string | null>(null);
  const jump = (itemId: string) => {
    onJump();
    if (listing || asking) {
      goingTo.current = itemId;
      setListing(false);
      setAsking(false);
      // Once the form is on the page, should it have been behind the other tab.
    } else requestAnimationFrame(() => fieldOf(itemId)?.focus());
  };
  const trySubmit = async () => {
    if (!state.complete) {
      setListing(true);
      return;
    }
    const sent = await saveQueue.flush(savePrefix);
    setUnsent(!sent);
    if (sent) setAsking(true);
    else setListing(true);
  };
  const giveIn = async () => {
    await submit(desk.id);
    setAsking(false);
  };

  return (
    <footer
      className={`no-print flex items-center justify-between border-t border-line bg-paper ${narrow ? 'gap-x-3 px-3 py-1.5' : 'flex-wrap gap-x-5 gap-y-2 px-5 py-2.5'}`}
    >
      <DeskProgress
        desk={desk}
        state={state}
        saving={saving}
        narrow={narrow}
        onJump={jump}
        onList={() => setListing(true)}
      >
        {submitting.error !== undefined && <ProblemNotice error={submitting.error} />}
        {own && reopening.error !== undefined && <ProblemNotice error={reopening.error} />}
      </DeskProgress>
      <DeskActs
        desk={desk}
        due={due}
        saving={saving}
        narrow={narrow}
        reopening={reopening.isLoading}
        onReopen={() => (own ? void reopen({ id: desk.id }) : setReopening(true))}
        onSubmit={() => (saving.state === 'signed-out' ? requestSignIn() : void trySubmit())}
      />
      <ReopenDialog
        open={reopeningIt}
        problem={reopening.error}
        busy={reopening.isLoading}
        onClose={() => setReopening(false)}
        timeZone={desk.exchange.timeZone}
        onReopen={(reason, until) => {
          void reopen({ id: desk.id, reason, ...(until !== null && { until }) }).then(
            ({ error }) => error === undefined && setReopening(false),
          );
        }}
      />
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        title={say('beforeYouSubmit')}
        focusAfter={() => {
          const itemId = goingTo.current;
          goingTo.current = null;
          return itemId === null ? null : fieldOf(itemId);
        }}
      >
        <BeforeSubmit
          desk={desk}
          answers={answers}
          notes={notes}
          busy={submitting.isLoading}
          words={desk.changing ? say('submitAgainLabel') : say('submitReviewLabel')}
          onSubmit={() => void giveIn()}
          onJump={jump}
          onClose={() => setAsking(false)}
        />
      </Dialog>
      <Dialog
        open={listing}
        onClose={() => setListing(false)}
        title={say('notSubmittedYet')}
        focusAfter={() => {
          const itemId = goingTo.current;
          goingTo.current = null;
          return itemId === null ? null : fieldOf(itemId);
        }}
      >
        <StillMissing desk={desk} state={state} due={due} unsent={unsent} onJump={jump} />
      </Dialog>
    </footer>
  );
}

function isSubmitted({ submittedAt, changing }: DeskView): boolean {
  return submittedAt !== null && !changing;
}

type Saving = ReturnType<typeof useSavingState>;

interface DeskProgressProps {
  readonly desk: DeskView;
  readonly state: Completeness;
  readonly saving: Saving;
  readonly narrow: boolean;
  readonly onJump: (itemId: string) => void;
  readonly onList: () => void;
  readonly children: ReactNode;
}

/** How far the review is, and what is missing. */
function DeskProgress({ desk, state, saving, narrow, onJump, onList, children }: DeskProgressProps) {
  return (
    <div className={`flex min-w-0 flex-wrap items-center ${narrow ? 'gap-x-3' : 'gap-x-4'}`}>
      {isSubmitted(desk) ? (
        <StateMark state="done" word={say('submitted')} wordHidden={false} size={18} />
      ) : (
        <StateMark
          state={state.complete ? 'done' : state.begun ? 'in-progress' : 'not-begun'}
          share={state.required === 0 ? 1 : state.answered / state.required}
          word={
            state.required === 0 || narrow
              ? say('ofDone', { answered: state.answered, required: state.required })
              : say('ofDoneOf', {
                  answered: state.answered,
                  required: state.required,
                  floor: Math.floor((100 * state.answered) / state.required),
                })
          }
          wordHidden={false}
          size={18}
        />
      )}
      {narrow && desk.editable && state.missing.length > 0 && (
        <button type="button" className="min-h-6 text-sm text-copper underline" onClick={onList}>
          {say('missing', { missing: state.missing.length })}
        </button>
      )}
      {narrow && desk.editable && (
        <span className="basis-full text-xs">
          <SaveMark state={saving.state} savedAt={saving.savedAt} />
        </span>
      )}
      {!narrow && desk.editable && state.missing.length > 0 && (
        <p className="text-sm text-copper">
          {say('missingLabel')}{' '}
          {state.missing.slice(0, 2).map((one, index) => (
            <span key={one.itemId + one.what}>
              {index > 0 && ', '}
              <button
                type="button"
                className="min-h-6 underline decoration-dotted underline-offset-4"
                onClick={() => onJump(one.itemId)}
              >
                {missingWords(one, desk.form)}
              </button>
            </span>
          ))}
          {state.missing.length > 2 && <> {say('andMore', { missing: state.missing.length - 2 })}</>}
        </p>
      )}
      {children}
    </div>
  );
}

interface DeskActsProps {
  readonly desk: DeskView;
  readonly due: string | null;
  readonly saving: Saving;
  readonly narrow: boolean;
  /** It is being reopened. */
  readonly reopening: boolean;
  readonly onReopen: () => void;
  readonly onSubmit: () => void;
}

/** What to do next. */
function DeskActs({ desk, due, saving, narrow, reopening, onReopen, onSubmit }: DeskActsProps) {
  const own = desk.reviewer.you === true;
  const submitted = isSubmitted(desk);
  const signedOut = saving.state === 'signed-out';
  return (
    <div className={`flex items-center gap-x-3 gap-y-2 ${narrow ? 'shrink-0' : 'flex-wrap'}`}>
      {!narrow && desk.editable && <SaveMark state={saving.state} savedAt={saving.savedAt} />}
      {!narrow && own && desk.exchange.stage === 'reviewing' && due !== null && (
        <span className="text-sm text-ink-soft">
          {say('due', { when: <When at={due} timeZone={desk.exchange.timeZone} /> })}
        </span>
      )}
      {desk.reopenable && (
        <Button busy={reopening} onClick={onReopen}>
          {own ? say('reopenToChangeIt') : say('reopenForReviewer')}
        </Button>
      )}
      {!own && <Walk />}
      {desk.practice !== null && submitted && (
        <Link
          to={desk.practice.key ? `/exchanges/${desk.practice.forId}/plan` : `/practice/${desk.practice.id}`}
          className={buttonClass('primary')}
        >
          {desk.practice.key ? say('backToPlan') : narrow ? say('key') : say('compareWithKey')}
        </Link>
      )}
      {desk.nextId !== null && (
        <Link to={`/reviews/${desk.nextId}`} className={buttonClass(submitted && own ? 'primary' : 'plain')}>
          {own ? (narrow ? say('next') : say('nextDraft')) : say('nextByThisReviewer')}
        </Link>
      )}
      {desk.submittable && !submitted && (
        <Button look="primary" onClick={onSubmit}>
          {signedOut
            ? say('signInToSubmit')
            : desk.changing
              ? say('submitAgain')
              : narrow
                ? say('submit')
                : desk.practice?.key === true
                  ? say('submitKey')
                  : say('submitReview')}
        </Button>
      )}
    </div>
  );
}

interface StillMissingProps {
  readonly desk: DeskView;
  readonly state: Completeness;
  readonly due: string | null;
  /** Something has not reached the server. */
  readonly unsent: boolean;
  readonly onJump: (itemId: string) => void;
}

/** Why it cannot be submitted yet. */
function StillMissing({ desk, state, due, unsent, onJump }: StillMissingProps) {
  return (
    <>
      {unsent ? (
        <Notice tone="waiting" title={say('notEverythingHasReachedServer')}>
          {say('itIsKeptInThis')}
        </Notice>
      ) : (
        <>
          <p className="mb-2">
            {due !== null && <>{say('dueOf', { when: <When at={due} timeZone={desk.exchange.timeZone} /> })} </>}
            {say('beforeItCanBeSubmitted')}
          </p>
          <ul className="space-y-1">
            {state.missing.map((one) => (
              <li key={one.itemId + one.what}>
                <button type="button" onClick={() => onJump(one.itemId)} className="text-left text-dusk underline">
                  {missingWords(one, desk.form)}
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
