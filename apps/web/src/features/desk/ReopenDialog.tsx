import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Button, Dialog, TextArea } from '../../kit/index.js';

interface ReopenDialogProps {
  readonly open: boolean;
  readonly problem: unknown;
  readonly busy: boolean;
  readonly onClose: () => void;
  readonly onReopen: (reason: string) => void;
}

/** An instructor gives a submitted review back to its writer, who reads why. */
export function ReopenDialog({ open, problem, busy, onClose, onReopen }: ReopenDialogProps) {
  const [reason, setReason] = useState('');
  return (
    <Dialog open={open} onClose={onClose} title="Reopen this review for its reviewer">
      <div className="space-y-3">
        <p>
          What was submitted counts until the reviewer submits again, which is possible until feedback is released. The
          reviewer is told by mail.
        </p>
        <TextArea
          label="Why"
          hint="The reviewer reads this; it stays on record."
          value={reason}
          maxLength={2000}
          rows={3}
          onChange={({ target }) => setReason(target.value)}
        />
        {problem !== undefined && <ProblemNotice error={problem} />}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Leave it submitted</Button>
          <Button look="primary" busy={busy} disabled={reason.trim() === ''} onClick={() => onReopen(reason)}>
            Reopen it
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
