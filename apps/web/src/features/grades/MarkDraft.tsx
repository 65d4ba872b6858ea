import type { DeskView, DraftFeedbackView, Problem } from '@salt-circle/contracts';
import { completeness, formScore, OVERALL_ID, scoreWords, type FormItem } from '@salt-circle/core';
import { useMemo, useState } from 'react';
import { useBeginOwnReviewMutation } from '../../app/moderation/checkApi.js';
import { PeersOf, PeersUnder } from '../../app/moderation/PeersUnder.js';
import { AnswerWords } from '../../app/form/AnswerWords.js';
import { AnswerText, ItemInput } from '../../app/form/ItemInput.js';
import { SaveTrouble } from '../../app/form/SaveTrouble.js';
import { useAnswers } from '../../app/form/useAnswers.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useDeskQuery, useReopenReviewMutation, useSubmitReviewMutation } from '../../app/reviewApi.js';
import { useSavingState } from '../../app/saving/useSaving.js';
import { saveQueue } from '../../app/store.js';
import { useMe } from '../../app/session/useMe.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Loading, SaveMark, StateMark } from '../../kit/index.js';
import { say } from '../../words/grades.js';

interface MarkDraftProps {
  readonly feedback: DraftFeedbackView;
  readonly draftId: string;
  /** Drafts are marked by another form than the peers'. */
  readonly ownForm: boolean;
}

/** Marking a draft: an own review, each item with what the peers say of the same, to be taken over. */
export function MarkDraft({ feedback, draftId, ownForm }: MarkDraftProps) {
  const exchange = useExchange();
  const [begin, { error, isLoading, isSuccess }] = useBeginOwnReviewMutation();
  return (
    <section aria-label={say('draftLabel2')} className="border-t border-line pt-4">
      {feedback.ownId !== null ? (
        <OwnMarks reviewId={feedback.ownId} />
      ) : (
        <>
          <h3 className="text-lg font-semibold">{say('draftLabel2')}</h3>
          <p className="mb-2 text-sm text-ink-soft">{ownForm ? say('youFillInFormFor') : say('youFillInFormOf')}</p>
          {feedback.mayReview && (
            <Button busy={isLoading || isSuccess} onClick={() => void begin({ exchangeId: exchange.id, draftId })}>
              {say('markDraft')}
            </Button>
          )}
          {error !== undefined && <ProblemNotice error={error} />}
        </>
      )}
    </section>
  );
}

function OwnMarks({ reviewId }: { readonly reviewId: string }) {
  const { data, error } = useDeskQuery(reviewId, { refetchOnMountOrArgChange: true });
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('yourMarks')} />;
  return (
    <PeersOf desk={data}>
      <Marks key={data.submittedAt ?? ''} desk={data} />
    </PeersOf>
  );
}

function Marks({ desk }: { readonly desk: DeskView }) {
  const me = useMe();
  const { form, draft, editable, id } = desk;
  // As on the desk: what is typed on one shows on the other.
  const prefix = `${me.id}:review:${id}:answer:`;
  const { answers, change, replace } = useAnswers(form, desk.answers, prefix, {
    url: `/api/reviews/${id}/answers`,
    along: useMemo(() => ({ version: draft.version }), [draft.version]),
  });
  const { state, savedAt } = useSavingState(prefix);
  const missing = completeness({ ...form, minimumNotes: 0 }, answers, 0).missing.length;
  const score = formScore(form, answers);
  const field = (itemId: string, item: FormItem | undefined) => (
    <div key={itemId} className="@container">
      <p className="font-medium">{item?.title ?? say('overallComment')}</p>
      {!editable ? (
        <AnswerWords item={item} answer={answers[itemId]} />
      ) : item === undefined ? (
        <AnswerText
          label={say('overallComment')}
          field="text"
          answer={answers[itemId]}
          onChange={(part) => change(itemId, part)}
        />
      ) : (
        <>
          <ItemInput item={item} answer={answers[itemId]} onChange={(part) => change(itemId, part)} />
          <PeersUnder item={item} onTake={(answer) => change(itemId, answer)} />
        </>
      )}
      <SaveTrouble item={item} saveKey={prefix + itemId} onReplace={(theirs) => replace(itemId, theirs)} />
    </div>
  );
  return (
    <>
      <div className="flex items-start justify-between gap-3">
        <h3 className="text-lg font-semibold">
          {say('draftLabel2')}{' '}
          {score !== null && <span className="text-base font-normal text-ink-soft">{scoreWords(form, score)}</span>}
        </h3>
        {editable && <SaveMark state={state} savedAt={savedAt} />}
      </div>
      <div className="my-2 space-y-4">
        {form.items.map((item) => field(item.id, item))}
        {form.overall !== 'none' && field(OVERALL_ID, undefined)}
      </div>
      <Submitting desk={desk} missing={missing} savePrefix={prefix} />
    </>
  );
}

interface SubmittingProps {
  readonly desk: DeskView;
  /** Required answers that are not there. */
  readonly missing: number;
  readonly savePrefix: string;
}

/** A mark counts once it is submitted: never in doubt. */
function Submitting({ desk, missing, savePrefix }: SubmittingProps) {
  const [submit, submitting] = useSubmitReviewMutation();
  const [reopen, reopening] = useReopenReviewMutation();
  const [problem, setProblem] = useState<Problem | null>(null);
  const go = async (act: () => Promise<{ error?: unknown }>) => {
    // What is still on its way belongs to what is submitted; where it does not get there, its field says so.
    if (!(await saveQueue.flush(savePrefix))) return;
    const { error } = await act();
    setProblem(error === undefined ? null : (error as Problem));
  };
  return (
    <>
      {desk.submittedAt !== null && !desk.editable ? (
        <div className="flex flex-wrap items-center gap-3">
          <StateMark state="done" word={say('submittedItCounts')} wordHidden={false} />
          {desk.reopenable && (
            <Button small busy={reopening.isLoading} onClick={() => void go(() => reopen({ id: desk.id }))}>
              {say('changeIt')}
            </Button>
          )}
        </div>
      ) : (
        <div className="flex flex-wrap items-center gap-3">
          <Button
            look="primary"
            busy={submitting.isLoading}
            disabled={missing > 0}
            onClick={() => void go(() => submit(desk.id))}
          >
            {desk.changing ? say('submitAgain') : say('submitMarks')}
          </Button>
          <span className="text-sm text-ink-soft">
            {missing > 0 ? say('answersAreMissing', { missing }) : say('allIsAnswered')}{' '}
            {desk.changing ? say('whatWasSubmittedCountsUntil') : say('theyCountOnceTheyAre')}
          </span>
        </div>
      )}
      {problem !== null && <ProblemNotice error={problem} />}
    </>
  );
}
