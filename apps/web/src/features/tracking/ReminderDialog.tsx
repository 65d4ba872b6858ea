import { wordsBy } from '@salt-circle/core';
import type { Problem, ProgressRow, ReminderView } from '@salt-circle/contracts';
import { useEffect, useState } from 'react';
import { Button, Dialog, Loading, TextArea } from '../../kit/index.js';
import { problemOf } from '../../app/api.js';
import { useSessionQuery } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { usePreviewReminderMutation, useRemindMutation } from './draftsApi.js';
import { say } from '../../words/tracking.js';

/** A mail to those who have something left to do, seen before it is sent. */
export function ReminderDialog({
  rows,
  about,
  onClose,
}: {
  readonly rows: readonly ProgressRow[];
  readonly about: 'draft' | 'reviews';
  readonly onClose: () => void;
}) {
  const exchange = useExchange();
  const [words, setWords] = useState('');
  const [preview, setPreview] = useState<ReminderView | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [look] = usePreviewReminderMutation();
  const [remind, { isLoading, isSuccess }] = useRemindMutation();
  const ids = rows.map(({ id }) => id).join(' ');
  useEffect(() => {
    let over = false;
    const timer = setTimeout(() => {
      void look({ exchangeId: exchange.id, participantIds: ids.split(' '), about, words }).then((result) => {
        if (over) return;
        if (result.data !== undefined) setPreview(result.data);
        else setProblem(problemOf(result.error));
      });
    }, 300);
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [exchange.id, ids, about, look, words]);
  const sendsMail = useSessionQuery().data?.mail === true;
  const go = async () => {
    const result = await remind({ exchangeId: exchange.id, participantIds: ids.split(' '), about, words });
    if (result.error !== undefined) setProblem(result.error as Problem);
  };
  return (
    <Dialog open onClose={onClose} title={say('remindStudents', { rows: rows.length })} wide>
      {isSuccess ? (
        <div className="space-y-3">
          <p>{say(sendsMail ? 'reminderSent' : 'reminderKept', { people: preview?.people.join(', ') })}</p>
          <Button look="primary" onClick={onClose}>
            {say('close')}
          </Button>
        </div>
      ) : (
        <div className="space-y-4">
          <TextArea
            label={say('wordsOfYourOwnIf')}
            value={words}
            maxLength={2000}
            onChange={({ target }) => setWords(target.value)}
          />
          {preview === null ? (
            <Loading what={say('mail')} />
          ) : (
            <div className="border border-line p-3">
              <p className="text-sm text-ink-soft">
                {say('to', { people: preview.people.join(', ') || say('nobody') })}
              </p>
              {preview.people.length > 1 && (
                <p className="mb-2 text-sm text-ink-soft">{say('asReadsIt', { people: preview.people[0] })}</p>
              )}
              <p className="font-semibold">{preview.subject}</p>
              <p className="whitespace-pre-wrap">{preview.text}</p>
            </div>
          )}
          {preview !== null && <Exceptions preview={preview} />}
          {problem !== null && <ProblemNotice error={problem} />}
          <Button
            look="primary"
            busy={isLoading}
            disabled={preview === null || preview.people.length === 0}
            onClick={() => void go()}
          >
            {say('sendIt')}
          </Button>
        </div>
      )}
    </Dialog>
  );
}

const WHY = wordsBy(say, { excused: 'excused', done: 'nothingLeftToDo', 'not-open': 'mayNotOpenDraftsYet' });

function Exceptions({ preview: { leftOut, ownTimes, people } }: { readonly preview: ReminderView }) {
  return (
    <div className="space-y-1 text-sm text-ink-soft">
      {leftOut.length > 0 && (
        <p>{say('noMailGoesTo', { leftOut: leftOut.map(({ name, why }) => `${name} (${WHY[why]})`).join(', ') })}</p>
      )}
      {ownTimes.length > 0 && people.length > 1 && <p>{say('readDueTimeThatIs', { ownTimes: ownTimes.join(', ') })}</p>}
    </div>
  );
}
