import { counted } from '@salt-circle/core';
import type { Problem, ProgressRow, ReminderView } from '@salt-circle/contracts';
import { useEffect, useState } from 'react';
import { Button, Dialog, Loading, TextArea } from '../../kit/index.js';
import { problemOf } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { usePreviewReminderMutation, useRemindMutation } from './draftsApi.js';

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
  const go = async () => {
    const result = await remind({ exchangeId: exchange.id, participantIds: ids.split(' '), about, words });
    if (result.error !== undefined) setProblem(result.error as Problem);
  };
  return (
    <Dialog open onClose={onClose} title={`Remind ${counted(rows.length, 'one student', '# students')}`} wide>
      {isSuccess ? (
        <div className="space-y-3">
          <p>The reminder is on its way to {preview?.people.join(', ')}.</p>
          <Button look="primary" onClick={onClose}>
            Close
          </Button>
        </div>
      ) : (
        <div className="space-y-4">
          <TextArea
            label="Words of your own, if you like"
            value={words}
            maxLength={2000}
            onChange={({ target }) => setWords(target.value)}
          />
          {preview === null ? (
            <Loading what="the mail" />
          ) : (
            <div className="border border-line p-3">
              <p className="text-sm text-ink-soft">To: {preview.people.join(', ') || 'nobody'}</p>
              {preview.people.length > 1 && (
                <p className="mb-2 text-sm text-ink-soft">As {preview.people[0]} reads it:</p>
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
            Send it
          </Button>
        </div>
      )}
    </Dialog>
  );
}

const WHY = { excused: 'excused', done: 'nothing left to do', 'not-open': 'may not open the drafts yet' } as const;

function Exceptions({ preview: { leftOut, ownTimes, people } }: { readonly preview: ReminderView }) {
  return (
    <div className="space-y-1 text-sm text-ink-soft">
      {leftOut.length > 0 && (
        <p>No mail goes to {leftOut.map(({ name, why }) => `${name} (${WHY[why]})`).join(', ')}.</p>
      )}
      {ownTimes.length > 0 && people.length > 1 && (
        <p>{ownTimes.join(', ')} read the due time that is set for them alone.</p>
      )}
    </div>
  );
}
