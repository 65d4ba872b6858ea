import { useState } from 'react';
import { Button, Dialog } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { useWithdrawMutation } from './handInApi.js';
import { purposeOf } from './standing.js';

/** A button that leads to it, where there is room for one. */
export function Withdraw() {
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Button look="quiet" onClick={() => setAsking(true)}>
        Take back…
      </Button>
      <WithdrawDialog open={asking} onClose={() => setAsking(false)} />
    </>
  );
}

/** Takes back what was handed in, after saying what that means. */
export function WithdrawDialog({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  const exchange = useExchange();
  const revision = purposeOf(exchange) === 'revision';
  const [withdraw, { isLoading, error }] = useWithdrawMutation();
  const go = async () => {
    const result = await withdraw(exchange.id);
    if (result.error === undefined) onClose();
  };
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title={revision ? 'Take back your revision?' : 'Take back your hand-in?'}
      description={
        revision
          ? 'Then you have handed in no revision, until you do so again. The draft that was reviewed stays, and all you wrote.'
          : 'Then nothing of yours counts as handed in, until you hand in again. All you wrote and added stays.'
      }
    >
      <div className="space-y-3">
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="destructive" busy={isLoading} onClick={() => void go()}>
          Take it back
        </Button>
      </div>
    </Dialog>
  );
}
