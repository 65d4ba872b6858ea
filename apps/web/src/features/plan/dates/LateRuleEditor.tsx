import type { LateRule } from '@salt-circle/core';
import { Checkbox, NumberBox } from '../../../kit/index.js';
import { say } from '../../../words/plan.js';

export interface LateRuleEditorProps {
  readonly late: LateRule | null;
  readonly problemAt: (path: string) => string | undefined;
  readonly onChange: (late: LateRule | null) => void;
}

const USUAL: LateRule = { amount: 10, unit: 'percent', per: 'day', cap: null, graceMinutes: 0 };
const BOX = 'rounded border border-edge bg-paper px-1.5 py-0.5';

/** What a late hand-in loses, as a sentence with gaps. */
export function LateRuleEditor({ late, problemAt, onChange }: LateRuleEditorProps) {
  const problem =
    problemAt('late.amount') ?? problemAt('late.cap') ?? problemAt('late.graceMinutes') ?? problemAt('late');
  const number = (label: string, value: number | null, set: (value: number | null) => void) => (
    <NumberBox label={label} min={0} step="any" blank={null} value={value} onChange={set} />
  );
  return (
    <div className="mt-1 space-y-1 sm:ml-[10.5rem]">
      <Checkbox
        label={say('lateHandInLosesSomething')}
        checked={late !== null}
        onChange={({ target }) => onChange(target.checked ? USUAL : null)}
      />
      {late !== null && (
        <p className="flex flex-wrap items-center gap-x-2 gap-y-1">
          {say(late.per === 'day' ? 'itLoses' : 'itLosesOnce', {
            amount: number(say('whatItLoses'), late.amount, (amount) => onChange({ ...late, amount: amount ?? 0 })),
            unit: (
              <select
                aria-label={say('inPointsOrPercentagePoints')}
                value={late.unit}
                onChange={({ target }) => onChange({ ...late, unit: target.value as LateRule['unit'] })}
                className={BOX}
              >
                <option value="percent">{say('percentagePoints')}</option>
                <option value="points">{say('points')}</option>
              </select>
            ),
            per: (
              <select
                aria-label={say('howOften')}
                value={late.per}
                onChange={({ target }) => onChange({ ...late, per: target.value as LateRule['per'] })}
                className={BOX}
              >
                <option value="day">{say('perStartedDay')}</option>
                <option value="once">{say('once')}</option>
              </select>
            ),
            most: number(say('atMost'), late.cap, (cap) => onChange({ ...late, cap })),
            grace: number(say('minutesOfGrace'), late.graceMinutes, (minutes) =>
              onChange({ ...late, graceMinutes: minutes ?? 0 }),
            ),
          })}
        </p>
      )}
      {problem !== undefined && (
        <p role="alert" className="text-sm text-madder">
          {problem}
        </p>
      )}
    </div>
  );
}
