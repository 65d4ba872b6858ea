import { useState } from 'react';
import { useReleaseMutation } from '../../app/moderation/checkApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { DateInput } from '../../app/time/DateInput.js';
import { useNow } from '../../app/time/useNow.js';
import { inWords } from '../../app/time/words.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Dialog } from '../../kit/index.js';
import { say } from '../../words/moderation.js';

const DAY = 24 * 3_600_000;
const MINUTE = 60_000;

/** A release that nobody has read yet, put off to a later time. */
export function TakeBack({ onClose }: { readonly onClose: () => void }) {
  const exchange = useExchange();
  const { timeZone } = exchange.course;
  const now = useNow();
  const [at, setAt] = useState<string | null>(() => new Date(Math.ceil((now + DAY) / MINUTE) * MINUTE).toISOString());
  const [release, { isLoading, error }] = useReleaseMutation();
  const ahead = at !== null && Date.parse(at) > now;
  return (
    <Dialog open wide onClose={onClose} title={say('takeReleaseBack')} description={say('nobodyHasReadTheirFeedback')}>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (ahead) void release({ id: exchange.id, at }).then((result) => result.error === undefined && onClose());
        }}
      >
        <DateInput
          label={say('releaseAgain')}
          value={at}
          timeZone={timeZone}
          hint={at === null ? '' : inWords(Date.parse(at), timeZone, now)}
          problem={ahead ? undefined : say('giveTimeThatLiesAhead')}
          onChange={setAt}
        />
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="primary" type="submit" disabled={!ahead} busy={isLoading}>
          {say('takeItBackLabel')}
        </Button>
      </form>
    </Dialog>
  );
}
