import type { Problem, ProgressRow } from '@salt-circle/contracts';
import { useState } from 'react';
import { Button, Dialog } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { useHandInForMutation } from './draftsApi.js';

/** Hands in, for a student, what the student has saved: whatever the dates say, and with a receipt to the student. */
export function HandInForDialog({ row, onClose }: { readonly row: ProgressRow; readonly onClose: () => void }) {
  const exchange = useExchange();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [handIn, { isLoading }] = useHandInForMutation();
  const go = async () => {
    const result = await handIn({ exchangeId: exchange.id, participantId: row.id });
    if (result.error === undefined) onClose();
    else setProblem(result.error as Problem);
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Hand in for ${row.person.name ?? 'this student'}?`}
      description="What is saved is handed in as it stands, whatever the dates say. The student gets a receipt that names you."
    >
      <div className="space-y-3">
        {problem !== null && <ProblemNotice error={problem} />}
        <Button look="primary" busy={isLoading} onClick={() => void go()}>
          Hand in what is saved
        </Button>
      </div>
    </Dialog>
  );
}
