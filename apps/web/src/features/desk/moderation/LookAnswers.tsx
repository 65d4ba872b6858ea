import type { LookRequestView } from '@salt-circle/contracts';
import { LIMITS } from '@salt-circle/contracts/plain';
import { useState } from 'react';
import { useAnswerLookMutation, useLookRequestsQuery } from '../../../app/moderation/checkApi.js';
import { labelWords } from '../../../app/People.js';
import { ProblemNotice } from '../../../app/ProblemNotice.js';
import { When } from '../../../app/time/When.js';
import { Button, TextArea } from '../../../kit/index.js';
import { say } from '../../../words/desk.js';

interface LookAnswersProps {
  readonly reviewId: string;
  readonly timeZone: string;
  /** Shows a note in its place. */
  readonly onNote: (id: string) => void;
}

/** For staff: what its author and its reviewer asked to have looked at, and an answer to each. */
export function LookAnswers({ reviewId, timeZone, onNote }: LookAnswersProps) {
  const { data = [] } = useLookRequestsQuery(reviewId, { refetchOnMountOrArgChange: true });
  if (data.length === 0) return null;
  return (
    <section aria-label={say('youAreAskedToLook')} className="space-y-3">
      <h3 className="font-semibold">{say('youAreAskedToLook')}</h3>
      {data.map((request) => (
        <One key={request.id} request={request} reviewId={reviewId} timeZone={timeZone} onNote={onNote} />
      ))}
    </section>
  );
}

function One({ request, reviewId, timeZone, onNote }: LookAnswersProps & { readonly request: LookRequestView }) {
  const { id, by, words, at, noteId, answer } = request;
  const [text, setText] = useState(answer ?? '');
  const [changing, setChanging] = useState(false);
  const [save, { isLoading, error }] = useAnswerLookMutation();
  const send = async () => {
    const result = await save({ reviewId, requestId: id, answer: text });
    if (result.error === undefined) setChanging(false);
  };
  return (
    <div className="border-l-2 border-copper pl-2.5">
      <p>
        {by !== null && (
          <span className="font-semibold">{say('asksToLook', { person: labelWords(by.person), as: by.as })}</span>
        )}{' '}
        <span className="text-sm text-ink-soft">
          <When at={at} timeZone={timeZone} />
        </span>
        {noteId !== null && (
          <>
            {' '}
            <button type="button" className="min-h-6 text-sm text-dusk underline" onClick={() => onNote(noteId)}>
              {say('showNote')}
            </button>
          </>
        )}
      </p>
      <p className="whitespace-pre-wrap">{words}</p>
      {answer !== null && !changing ? (
        <>
          <p className="whitespace-pre-wrap text-ink-soft">{say('answered', { answer })}</p>
          <Button small look="quiet" onClick={() => setChanging(true)}>
            {say('changeAnswer')}
          </Button>
        </>
      ) : (
        <div className="mt-1 space-y-2">
          <TextArea
            label={say('yourAnswer')}
            hint={say('readByWhoeverAskedAnd')}
            value={text}
            maxLength={LIMITS.guidance}
            onChange={({ target }) => setText(target.value)}
          />
          {error !== undefined && <ProblemNotice error={error} />}
          <Button small busy={isLoading} onClick={() => void send()}>
            {say('answerLabel')}
          </Button>
        </div>
      )}
    </div>
  );
}
