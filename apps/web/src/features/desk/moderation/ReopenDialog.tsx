import { useState } from 'react';
import { DateInput } from '../../../app/time/DateInput.js';
import { ProblemNotice } from '../../../app/ProblemNotice.js';
import { Button, Dialog, TextArea } from '../../../kit/index.js';
import { say } from '../../../words/desk.js';

interface ReopenDialogProps {
  readonly open: boolean;
  readonly problem: unknown;
  readonly busy: boolean;
  readonly onClose: () => void;
  readonly timeZone: string;
  /** @param until when it can be submitted again at the latest, ISO 8601; null: until the release */
  readonly onReopen: (reason: string, until: string | null) => void;
}

/** An instructor gives a submitted review back to its writer, who reads why. */
export function ReopenDialog({ open, problem, busy, timeZone, onClose, onReopen }: ReopenDialogProps) {
  const [reason, setReason] = useState('');
  const [until, setUntil] = useState<string | null>(null);
  return (
    <Dialog open={open} onClose={onClose} title={say('reopenThisReviewForIts')}>
      <div className="space-y-3">
        <p>{say('whatWasSubmittedCountsUntil')}</p>
        <TextArea
          label={say('why')}
          hint={say('reviewerReadsThisItStays')}
          value={reason}
          maxLength={2000}
          rows={3}
          onChange={({ target }) => setReason(target.value)}
        />
        <DateInput
          label={say('untilIfNotUntilRelease')}
          value={until}
          timeZone={timeZone}
          hint=""
          onChange={setUntil}
        />
        {problem !== undefined && <ProblemNotice error={problem} />}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>{say('leaveItSubmitted')}</Button>
          <Button look="primary" busy={busy} disabled={reason.trim() === ''} onClick={() => onReopen(reason, until)}>
            {say('reopenIt')}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
