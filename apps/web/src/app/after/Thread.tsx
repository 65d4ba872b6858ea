import { wordsBy } from '@salt-circle/core';
import type { ReplyView } from '@salt-circle/contracts';
import { LIMITS } from '@salt-circle/contracts/plain';
import { useState } from 'react';
import { Button, TextArea } from '../../kit/index.js';
import { labelWords } from '../People.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { useKeptText } from '../saving/useKeptText.js';
import { useViewAs } from '../view-as/useViewAs.js';
import { useMe } from '../session/useMe.js';
import { When } from '../time/When.js';
import { useReplyMutation, useThreadsQuery } from './afterApi.js';
import { say } from '../../words/app.js';

export interface ThreadProps {
  readonly reviewId: string;
  /** To a note or to an answer; without either, to the review. */
  readonly noteId?: string;
  readonly itemId?: string;
  readonly timeZone: string;
  /** Offers no answer before there is one. */
  readonly quiet?: boolean;
}

/** What was answered to a review, or to something in it, and a place to answer. */
export function Thread({ reviewId, noteId, itemId, timeZone, quiet = false }: ThreadProps) {
  const { data } = useThreadsQuery(reviewId);
  const viewAs = useViewAs() !== null;
  const me = useMe();
  const [kept, change, letGo] = useKeptText(`${me.id}:reply:${reviewId}:${noteId ?? itemId ?? ''}`);
  const [writing, setWriting] = useState(kept !== '');
  if (data === undefined) return null;
  const here = data.replies.filter((one) => one.noteId === (noteId ?? null) && one.itemId === (itemId ?? null));
  const open = writing && !viewAs && (data.may || kept !== '');
  if (here.length === 0 && (quiet || !data.may) && !open) return null;
  return (
    <div className="mt-1 border-l-2 border-line pl-2 text-sm">
      {here.length > 0 && (
        <ul className="space-y-1" aria-label={say('answers')}>
          {here.map((one) => (
            <Reply key={one.id} reply={one} timeZone={timeZone} />
          ))}
        </ul>
      )}
      {open ? (
        <Writing
          {...{ reviewId, noteId: noteId ?? null, itemId: itemId ?? null, text: kept, over: data.over }}
          onChange={change}
          onClose={() => setWriting(false)}
          onSent={() => {
            letGo();
            setWriting(false);
          }}
        />
      ) : (
        data.may &&
        !viewAs && (
          <span className="no-print">
            <Button look="quiet" small onClick={() => setWriting(true)}>
              {noteId === undefined && itemId === undefined ? say('answerWholeReview') : say('answer')}
            </Button>
            {data.until !== null && here.length === 0 && noteId === undefined && itemId === undefined && (
              <span className="text-ink-soft">
                {say('until', { when: <When at={data.until} timeZone={timeZone} exact /> })}
              </span>
            )}
          </span>
        )
      )}
    </div>
  );
}

/** Instructors and assistants alike. */
const AS = wordsBy(say, { author: 'author', reviewer: 'reviewer', staff: 'ofTeachingStaff' });

function Reply({ reply, timeZone }: { readonly reply: ReplyView; readonly timeZone: string }) {
  const { as, by, at, words } = reply;
  return (
    <li>
      <span className="font-semibold">{labelWords(by)}</span>
      <span className="text-ink-soft">
        {by.you !== true && `, ${AS[as]}`}
        {at !== null && (
          <>
            {' '}
            <When at={at} timeZone={timeZone} />
          </>
        )}
      </span>{' '}
      <span className="whitespace-pre-wrap">{words}</span>
    </li>
  );
}

interface WritingProps {
  readonly reviewId: string;
  readonly noteId: string | null;
  readonly itemId: string | null;
  readonly text: string;
  readonly over: boolean;
  readonly onChange: (text: string) => void;
  readonly onClose: () => void;
  readonly onSent: () => void;
}

function Writing({ reviewId, noteId, itemId, text, over, onChange, onClose, onSent }: WritingProps) {
  /** The same answer sent again is the same one. */
  const [id] = useState(() => crypto.randomUUID());
  const [send, { isLoading, error }] = useReplyMutation();
  const go = async () => {
    const result = await send({ reviewId, id, noteId, itemId, words: text });
    if (result.error === undefined) onSent();
  };
  return (
    <form
      className="no-print mt-1 space-y-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        void go();
      }}
    >
      <TextArea
        label={say('yourAnswer')}
        hint={over ? say('timeForAnswersIsOver') : undefined}
        value={text}
        maxLength={LIMITS.reply}
        onChange={({ target }) => onChange(target.value)}
      />
      {error !== undefined && <ProblemNotice error={error} />}
      <div className="flex gap-2">
        {!over && (
          <Button small type="submit" busy={isLoading} disabled={text.trim() === ''}>
            {say('sendAnswer')}
          </Button>
        )}
        <Button small look="quiet" onClick={onClose}>
          {say('close')}
        </Button>
      </div>
    </form>
  );
}
