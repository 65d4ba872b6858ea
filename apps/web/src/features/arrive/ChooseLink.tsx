import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Button, Checkbox } from '../../kit/index.js';
import type { StepProps } from './step.js';
import { say } from '../../words/arrive.js';

/** What a link on a page of the platform shall lead to; the choice goes back there. */
export function ChooseLink({ view, busy, error, tell }: StepProps) {
  const [exchangeId, setExchangeId] = useState<string | null>(view.exchanges[0]?.id ?? null);
  const [column, setColumn] = useState(view.acceptsColumn);
  const choices = [...view.exchanges, { id: null, title: say('courseAsWhole', { course: view.course }) }];
  return (
    <>
      <div role="radiogroup" aria-label={say('whatLinkLeadsTo')} className="space-y-2">
        {choices.map(({ id, title }) => (
          <label key={id} className="flex items-baseline gap-2">
            <input
              type="radio"
              name="exchange"
              className="size-4 accent-iodine"
              checked={exchangeId === id}
              onChange={() => setExchangeId(id)}
            />
            {title}
          </label>
        ))}
      </div>
      {view.acceptsColumn && exchangeId !== null && (
        <Checkbox
          label={say('withColumnInGradebookOf', { platform: view.platform })}
          checked={column}
          onChange={({ target }) => setColumn(target.checked)}
        />
      )}
      {error !== undefined && <ProblemNotice error={error} />}
      <Button
        look="primary"
        busy={busy}
        onClick={() => tell('choice', { exchangeId, column: column && exchangeId !== null })}
      >
        {say('putItOnPage')}
      </Button>
    </>
  );
}
