import { wordsBy } from '@salt-circle/core';
import type { Problem, ProgressRow } from '@salt-circle/contracts';
import { useState } from 'react';
import { Button, Dialog, TextField } from '../../kit/index.js';
import { DateInput } from '../../app/time/DateInput.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { useExtendMutation } from './draftsApi.js';
import { say } from '../../words/tracking.js';

export type PersonalDatesDone = 'extend' | 'excuse' | 'take-back';

const TITLES: Readonly<Record<PersonalDatesDone, string>> = wordsBy(say, {
  extend: 'giveMoreTimeLabel',
  excuse: 'excuseFromThisExchange',
  'take-back': 'takeExcuseBackLabel',
});

export interface ExtensionDialogProps {
  readonly what: PersonalDatesDone;
  readonly row: ProgressRow;
  readonly onClose: () => void;
}

/** More time for one student (or the student's group), or an excuse, with the reason on record. */
export function ExtensionDialog({ what, row, onClose }: ExtensionDialogProps) {
  const exchange = useExchange();
  const [until, setUntil] = useState<string | null>(null);
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState<Problem | null>(null);
  const [extend, { isLoading }] = useExtendMutation();
  const { timeZone } = exchange.course;
  const who = row.draft.group === null ? (row.person.name ?? '') : say('wholeGroup', { group: row.draft.group });
  const go = async () => {
    const participantId = row.id;
    const result = await extend({ exchangeId: exchange.id, participantId, what, draftsDue: until, reason });
    if (result.error === undefined) onClose();
    else setProblem(result.error as Problem);
  };
  return (
    <Dialog open onClose={onClose} title={say('ofPerson', { title: TITLES[what], name: who })}>
      <div className="space-y-4">
        {what === 'extend' && (
          <DateInput
            label={say('draftDue')}
            value={until}
            timeZone={timeZone}
            hint={say('untilThenDraftCanBe')}
            problem={problem?.fields.find(({ path }) => path === 'draftsDue')?.sentence}
            onChange={setUntil}
          />
        )}
        {what === 'excuse' && <p>{say('nothingIsAskedOfExcused')}</p>}
        {what !== 'take-back' && (
          <TextField
            label={say('reasonForRecord')}
            value={reason}
            maxLength={500}
            onChange={({ target }) => setReason(target.value)}
          />
        )}
        {problem !== null && <ProblemNotice error={problem} />}
        <Button
          look="primary"
          busy={isLoading}
          disabled={what === 'extend' && until === null}
          onClick={() => void go()}
        >
          {TITLES[what]}
        </Button>
      </div>
    </Dialog>
  );
}
