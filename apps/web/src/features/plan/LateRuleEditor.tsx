import type { LateRule } from '@salt-circle/core';
import { Checkbox, NumberBox } from '../../kit/index.js';

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
        label="A late hand-in loses something"
        checked={late !== null}
        onChange={({ target }) => onChange(target.checked ? USUAL : null)}
      />
      {late !== null && (
        <p className="flex flex-wrap items-center gap-x-2 gap-y-1">
          It loses
          {number('What it loses', late.amount, (amount) => onChange({ ...late, amount: amount ?? 0 }))}
          <select
            aria-label="In points or percentage points"
            value={late.unit}
            onChange={({ target }) => onChange({ ...late, unit: target.value as LateRule['unit'] })}
            className={BOX}
          >
            <option value="percent">percentage points</option>
            <option value="points">points</option>
          </select>
          <select
            aria-label="How often"
            value={late.per}
            onChange={({ target }) => onChange({ ...late, per: target.value as LateRule['per'] })}
            className={BOX}
          >
            <option value="day">per started day</option>
            <option value="once">once</option>
          </select>
          {late.per === 'day' && (
            <>
              at most
              {number('At most', late.cap, (cap) => onChange({ ...late, cap }))}
            </>
          )}
          after
          {number('Minutes of grace', late.graceMinutes, (minutes) =>
            onChange({ ...late, graceMinutes: minutes ?? 0 }),
          )}
          minutes of grace
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
