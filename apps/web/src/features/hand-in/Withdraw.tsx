import { useState } from 'react';
import { Button, Dialog } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { useWithdrawMutation } from './handInApi.js';
import { purposeOf } from './draftStatus.js';
import { say } from '../../words/hand-in.js';

/** A button that leads to it, where there is room for one. */
export function Withdraw() {
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Button look="quiet" onClick={() => setAsking(true)}>
        {say('takeBack')}
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
      title={revision ? say('takeBackYourRevision') : say('takeBackYourHandIn')}
      description={revision ? say('thenYouHaveHandedIn') : say('thenNothingOfYoursCounts')}
    >
      <div className="space-y-3">
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="destructive" busy={isLoading} onClick={() => void go()}>
          {say('takeItBack')}
        </Button>
      </div>
    </Dialog>
  );
}
