import {
  HOW_WORDS,
  PART_WORDS,
  QUALITY_COLUMNS,
  QUALITY_WORDS,
  type GradeRule,
  type GradeScale,
  type PartRule,
} from '@salt-circle/core';
import type { ReactNode } from 'react';
import { Button, Checkbox, NumberBox, Select, TextField } from '../../kit/index.js';
import { say } from '../../words/grades.js';

/** Choices by their words, in the order in which they stand. */
export function entriesOf(words: Readonly<Record<string, string>>): Array<readonly [string, string]> {
  return Object.entries(words);
}

interface NumberFieldProps {
  readonly label: string;
  readonly value: number;
  /** What an empty field means; without it, that a number is missing, which cannot be kept. */
  readonly blank?: number;
  readonly onChange: (value: number) => void;
}

export function NumberField({ label, value, blank = NaN, onChange }: NumberFieldProps) {
  return (
    <TextField
      label={label}
      type="number"
      min={0}
      step="any"
      value={Number.isFinite(value) ? value : ''}
      onChange={({ target }) => onChange(Number.isNaN(target.valueAsNumber) ? blank : target.valueAsNumber)}
    />
  );
}

/** Shares are kept from 0 to 1 and typed in percent; the product of both is not always what was typed. */
const percentOf = (share: number) => Number((share * 100).toFixed(6));

interface RungsProps<Rung> {
  readonly rungs: readonly Rung[];
  readonly rung: 'step' | 'band';
  readonly another: Rung;
  readonly onChange: (rungs: readonly Rung[]) => void;
  readonly children: (rung: Rung, number: number, change: (part: Partial<Rung>) => void) => ReactNode;
}

/** Steps or bands, a line each, that can be added and removed; one is left. */
function Rungs<Rung extends object>({ rungs, rung: kind, another, onChange, children }: RungsProps<Rung>) {
  return (
    <div className="space-y-2">
      {rungs.map((rung, index) => (
        <div key={index} className="flex flex-wrap items-center gap-2">
          {children(rung, index + 1, (part) =>
            onChange(rungs.map((one, at) => (at === index ? { ...one, ...part } : one))),
          )}
          {rungs.length > 1 && (
            <Button
              small
              aria-label={say('removeRung', { rung: kind, number: index + 1 })}
              onClick={() => onChange(rungs.filter((_, at) => at !== index))}
            >
              {say('removeLabel')}
            </Button>
          )}
        </div>
      ))}
      <Button small onClick={() => onChange([...rungs, another])}>
        {say('addRung', { rung: kind })}
      </Button>
    </div>
  );
}

const USUAL_STEPS: PartRule['steps'] = [
  { from: 0.5, gives: 0.5 },
  { from: 0.8, gives: 1 },
];

interface PartRulesProps {
  readonly name: string;
  readonly rule: PartRule;
  readonly onChange: (rule: PartRule) => void;
}

/** How what was done for a part counts. */
export function PartRules({ name, rule, onChange }: PartRulesProps) {
  const { how, steps } = rule;
  const choose = (next: string) =>
    onChange({ ...rule, how: next as PartRule['how'], steps: next === 'steps' ? USUAL_STEPS : [] });
  return (
    <fieldset className="space-y-2 border-t border-line pt-2">
      <legend className="font-medium">{name}</legend>
      <div className="flex flex-wrap items-end gap-4">
        <div className="w-56">
          <Select
            label={say('howCounts', { name })}
            labelHidden
            value={how}
            options={entriesOf(HOW_WORDS)}
            onChange={choose}
          />
        </div>
        <div className="w-48">
          <NumberField
            label={say('nothingBelowPercent')}
            value={percentOf(rule.minimum)}
            blank={0}
            onChange={(minimum) => onChange({ ...rule, minimum: minimum / 100 })}
          />
        </div>
        <Checkbox
          label={say('onTopAsBonus')}
          checked={rule.bonus}
          onChange={({ target }) => onChange({ ...rule, bonus: target.checked })}
        />
      </div>
      {how === 'steps' && (
        <Rungs
          rungs={steps}
          rung="step"
          another={{ from: 1, gives: 1 }}
          onChange={(next) => onChange({ ...rule, steps: next })}
        >
          {({ from, gives }, number, change) => (
            <>
              {say('from')}
              <NumberBox
                label={say('fromHowManyPercentStepHolds', { number, name })}
                {...{ min: 0, max: 100, step: 'any', blank: null, value: percentOf(from) }}
                onChange={(value) => change({ from: (value ?? NaN) / 100 })}
              />
              {say('percentOnItGives')}
              <NumberBox
                label={say('howManyPercentStepGives', { number, name })}
                {...{ min: 0, max: 100, step: 'any', blank: null, value: percentOf(gives) }}
                onChange={(value) => change({ gives: (value ?? NaN) / 100 })}
              />
              {say('percent')}
            </>
          )}
        </Rungs>
      )}
    </fieldset>
  );
}

const scales = (): Readonly<Record<GradeScale['kind'], GradeScale>> => ({
  percent: { kind: 'percent' },
  points: { kind: 'points', of: 100 },
  bands: {
    kind: 'bands',
    bands: [
      { name: say('notYet'), from: 0 },
      { name: say('soundBand'), from: 50 },
      { name: say('strongBand'), from: 80 },
    ],
  },
});

interface RuleProps {
  readonly rule: GradeRule;
  readonly onChange: (next: Partial<GradeRule>) => void;
}

/** What a grade is said in. */
export function Scale({ rule: { scale }, onChange }: RuleProps) {
  return (
    <div className="space-y-2">
      <Select
        label={say('saidIn')}
        value={scale.kind}
        options={entriesOf({ percent: say('percent'), points: say('points'), bands: say('bandsOfOurOwn') })}
        onChange={(kind) => onChange({ scale: scales()[kind as GradeScale['kind']] })}
      />
      {scale.kind === 'points' && (
        <NumberField
          label={say('outOf')}
          value={scale.of}
          onChange={(of) => onChange({ scale: { kind: 'points', of } })}
        />
      )}
      {scale.kind === 'bands' && (
        <Rungs
          rungs={scale.bands}
          rung="band"
          another={{ name: say('anotherBand'), from: Math.min(100, (scale.bands.at(-1)?.from ?? 0) + 10) }}
          onChange={(bands) => onChange({ scale: { kind: 'bands', bands } })}
        >
          {({ name, from }, number, change) => (
            <>
              <input
                type="text"
                aria-label={say('nameOfBand', { number })}
                value={name}
                maxLength={60}
                onChange={({ target }) => change({ name: target.value })}
                className="w-32 rounded border border-edge bg-paper px-1.5 py-0.5"
              />
              {say('fromWord')}
              <NumberBox
                label={say('fromHowManyPercentBandIsGiven', { number })}
                {...{ min: 0, step: 'any', blank: null, value: from }}
                onChange={(value) => change({ from: value ?? NaN })}
              />
              {say('percent')}
            </>
          )}
        </Rungs>
      )}
    </div>
  );
}

/** What the quality of reviewing is weighed from. */
export function Quality({ rule, onChange }: RuleProps) {
  return (
    <fieldset className="border-t border-line pt-2">
      <legend className="font-medium">{say('whatIsWeighedFrom', { partWords: PART_WORDS['review-quality'] })}</legend>
      <div className="flex flex-wrap gap-4">
        {QUALITY_COLUMNS.map((column) => (
          <div key={column} className="w-36">
            <NumberField
              label={QUALITY_WORDS[column]}
              value={rule.quality[column]}
              blank={0}
              onChange={(weight) => onChange({ quality: { ...rule.quality, [column]: weight } })}
            />
          </div>
        ))}
      </div>
    </fieldset>
  );
}
