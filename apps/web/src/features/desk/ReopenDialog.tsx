import { useState } from 'react';
import { DateInput } from '../../app/time/DateInput.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Button, Dialog, TextArea } from '../../kit/index.js';

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
    <Dialog open={open} onClose={onClose} title="Reopen this review for its reviewer">
      <div className="space-y-3">
        <p>
          What was submitted counts until the reviewer submits again, which is possible until feedback is released, or
          until the time that you give. The reviewer is told by mail.
        </p>
        <TextArea
          label="Why"
          hint="The reviewer reads this; it stays on record."
          value={reason}
          maxLength={2000}
          rows={3}
          onChange={({ target }) => setReason(target.value)}
        />
        <DateInput
          label="Until, if not until the release"
          value={until}
          timeZone={timeZone}
          hint=""
          onChange={setUntil}
        />
        {problem !== undefined && <ProblemNotice error={problem} />}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Leave it submitted</Button>
          <Button look="primary" busy={busy} disabled={reason.trim() === ''} onClick={() => onReopen(reason, until)}>
            Reopen it
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
