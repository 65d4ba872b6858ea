import { useState } from 'react';
import { Button, Dialog } from '../../kit/index.js';
import { useViewAs } from '../view-as/useViewAs.js';
import { When } from '../time/When.js';
import { useAskToLookMutation, useLookRequestsQuery } from './checkApi.js';
import { WordsForm } from './WordsForm.js';
import { say } from '../../words/app.js';

export interface PleaseLookProps {
  readonly reviewId: string;
  /** Of one note; absent of the whole review. */
  readonly noteId?: string;
  readonly timeZone: string;
}

/** Asks the instructor to look at a review or a note, and shows what came of it. Nobody else learns of it. */
export function PleaseLook({ reviewId, noteId, timeZone }: PleaseLookProps) {
  const { data = [] } = useLookRequestsQuery(reviewId);
  const [asking, setAsking] = useState(false);
  // With somebody else's eyes one reads, and asks for nothing.
  const viewAs = useViewAs() !== null;
  const here = data.filter((one) => one.noteId === (noteId ?? null));
  return (
    <div className="no-print mt-1 text-sm">
      {here.map(({ id, words, at, answer, answeredAt }) => (
        <div key={id} className="border-l-2 border-line pl-2">
          <p className="text-ink-soft">
            {say('youAskedYourInstructorTo', { when: <When at={at} timeZone={timeZone} />, words })}
          </p>
          {answer === null || answeredAt === null ? (
            <p className="text-ink-soft">{say('notAnsweredYetYouWill')}</p>
          ) : (
            <p>
              {say('answeredAt', {
                when: <When at={answeredAt} timeZone={timeZone} />,
                answer: <span className="whitespace-pre-wrap">{answer}</span>,
                strong: (words) => <span className="font-semibold">{words}</span>,
                soft: (words) => <span className="text-ink-soft">{words}</span>,
              })}
            </p>
          )}
        </div>
      ))}
      {!viewAs && (
        <Button look="quiet" small onClick={() => setAsking(true)}>
          {say('askInstructorToLook')}
        </Button>
      )}
      {asking && <AskDialog reviewId={reviewId} noteId={noteId ?? null} onClose={() => setAsking(false)} />}
    </div>
  );
}

interface AskDialogProps {
  readonly reviewId: string;
  readonly noteId: string | null;
  readonly onClose: () => void;
}

function AskDialog({ reviewId, noteId, onClose }: AskDialogProps) {
  const [words, setWords] = useState('');
  const [ask, { isLoading, error }] = useAskToLookMutation();
  const go = async () => {
    const result = await ask({ reviewId, noteId, words });
    if (result.error === undefined) onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={noteId === null ? say('askYourInstructorToLook') : say('askYourInstructorToLookAt')}
      description={say('whenSomethingIsUnfairHurtful')}
    >
      <WordsForm
        label={say('whatShouldBeLookedAt')}
        value={words}
        onChange={setWords}
        problem={error}
        busy={isLoading}
        submit={say('ask')}
        onSubmit={() => void go()}
      />
    </Dialog>
  );
}
