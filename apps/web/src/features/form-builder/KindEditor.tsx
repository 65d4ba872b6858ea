import {
  RANGE_STEPS,
  type Band,
  type ChecklistItem,
  type ChoiceItem,
  type CommentRule,
  type CriterionItem,
  type FormItem,
  type Level,
  type NumberItem,
  type PairItem,
  type RangeItem,
} from '@salt-circle/core';
import { PAIR_WORDS } from '../../app/form/kinds.js';
import { Checkbox } from '../../kit/index.js';
import { newBand, newEntry, newLevel, newOption } from './items.js';
import { NumberBox } from './NumberBox.js';
import { PartList } from './PartList.js';
import { PlainInput } from './PlainInput.js';

export interface KindEditorProps<Item = FormItem> {
  readonly item: Item;
  readonly readOnly: boolean;
  readonly onChange: (item: FormItem) => void;
}

const MOST_PARTS = 30;

/** What is particular to the kind of an item. */
export function KindEditor({ item, ...rest }: KindEditorProps) {
  switch (item.kind) {
    case 'criterion':
      return <CriterionEditor item={item} {...rest} />;
    case 'range':
      return <RangeEditor item={item} {...rest} />;
    case 'checklist':
      return <ChecklistEditor item={item} {...rest} />;
    case 'pair':
      return <PairEditor item={item} {...rest} />;
    case 'number':
      return <NumberEditor item={item} {...rest} />;
    case 'choice':
      return <ChoiceEditor item={item} {...rest} />;
    case 'prompt':
      return (
        <MinimumWords value={item.minimumWords} onChange={(minimumWords) => rest.onChange({ ...item, minimumWords })} />
      );
  }
}

function MinimumWords({
  value,
  each = false,
  onChange,
}: {
  readonly value: number;
  readonly each?: boolean;
  readonly onChange: (value: number) => void;
}) {
  return (
    <p className="flex items-center gap-2">
      At least
      <NumberBox
        label="Least number of words"
        value={value}
        blank={0}
        min={0}
        max={2000}
        onChange={(next) => onChange(next ?? 0)}
      />
      words{each && ' in each'}
    </p>
  );
}

const COMMENTS: ReadonlyArray<readonly [CommentRule, string]> = [
  ['none', 'no reason asked for'],
  ['optional', 'a reason may be given'],
  ['required', 'a reason must be given'],
];

interface CommentSelectProps {
  readonly value: CommentRule;
  readonly onChange: (value: CommentRule) => void;
}

function CommentSelect({ value, onChange }: CommentSelectProps) {
  return (
    <label className="flex items-center gap-2">
      <span className="sr-only">Reason</span>
      <select
        value={value}
        onChange={(event) => onChange(event.target.value as CommentRule)}
        className="rounded border border-line bg-paper px-2 py-0.5"
      >
        {COMMENTS.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

function CriterionEditor({ item, readOnly, onChange }: KindEditorProps<CriterionItem>) {
  const { levels } = item;
  const withPoints = levels.some(({ points }) => points !== null);
  const set = (next: Level) => onChange({ ...item, levels: levels.map((one) => (one.id === next.id ? next : one)) });
  return (
    <div className="space-y-2">
      <PartList
        across
        parts={levels}
        word="level"
        least={2}
        most={MOST_PARTS}
        readOnly={readOnly}
        onAdd={() =>
          onChange({ ...item, levels: [...levels, newLevel(withPoints ? (levels.at(-1)?.points ?? 0) + 1 : null)] })
        }
        onRemove={(id) => onChange({ ...item, levels: levels.filter((one) => one.id !== id) })}
        render={(level, number) => (
          <>
            {withPoints && (
              <NumberBox
                strong
                label={`Points of level ${number}`}
                value={level.points}
                blank={null}
                min={0}
                step="any"
                onChange={(points) => set({ ...level, points })}
              />
            )}
            <PlainInput
              label={`Name of level ${number}`}
              value={level.title}
              placeholder={`Level ${number}`}
              onChange={(title) => set({ ...level, title })}
            />
            <PlainInput
              label={`Description of level ${number}`}
              value={level.description}
              placeholder="Description"
              onChange={(description) => set({ ...level, description })}
            />
          </>
        )}
      />
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        <Checkbox
          label="Points"
          checked={withPoints}
          onChange={({ target }) =>
            onChange({
              ...item,
              levels: levels.map((one, index) => ({ ...one, points: target.checked ? index * 2 : null })),
            })
          }
        />
        <CommentSelect value={item.comment} onChange={(comment) => onChange({ ...item, comment })} />
      </div>
    </div>
  );
}

function RangeEditor({ item, readOnly, onChange }: KindEditorProps<RangeItem>) {
  const { bands, step } = item;
  const set = (next: Band) => onChange({ ...item, bands: bands.map((one) => (one.id === next.id ? next : one)) });
  const add = () => {
    const from = (bands.at(-1)?.to ?? -step) + step;
    onChange({ ...item, bands: [...bands, newBand(from, from + 2)] });
  };
  return (
    <div className="space-y-2">
      <PartList
        across
        parts={bands}
        word="band"
        least={1}
        most={MOST_PARTS}
        readOnly={readOnly}
        onAdd={add}
        onRemove={(id) => onChange({ ...item, bands: bands.filter((one) => one.id !== id) })}
        render={(band, number) => (
          <>
            <span className="flex items-center gap-1 pr-5">
              <NumberBox
                strong
                label={`Band ${number} from`}
                value={band.from}
                blank={0}
                min={0}
                step="any"
                onChange={(from) => set({ ...band, from: from ?? 0 })}
              />
              to
              <NumberBox
                strong
                label={`Band ${number} to`}
                value={band.to}
                blank={0}
                min={0}
                step="any"
                onChange={(to) => set({ ...band, to: to ?? 0 })}
              />
            </span>
            <PlainInput
              label={`Name of band ${number}`}
              value={band.title}
              placeholder={`Band ${number}`}
              onChange={(title) => set({ ...band, title })}
            />
            <PlainInput
              label={`Description of band ${number}`}
              value={band.description}
              placeholder="Description"
              onChange={(description) => set({ ...band, description })}
            />
          </>
        )}
      />
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        <label className="flex items-center gap-2">
          in steps of
          <select
            value={step}
            onChange={(event) => onChange({ ...item, step: Number(event.target.value) })}
            className="rounded border border-line bg-paper px-2 py-0.5"
          >
            {RANGE_STEPS.map((one) => (
              <option key={one} value={one}>
                {one === 1 ? 'whole points' : one === 0.5 ? 'half points' : 'tenths'}
              </option>
            ))}
          </select>
        </label>
        <CommentSelect value={item.comment} onChange={(comment) => onChange({ ...item, comment })} />
      </div>
    </div>
  );
}

function ChecklistEditor({ item, readOnly, onChange }: KindEditorProps<ChecklistItem>) {
  const { entries } = item;
  const withPoints = entries.some(({ points }) => points !== null);
  return (
    <div className="space-y-2">
      <PartList
        parts={entries}
        word="entry"
        least={1}
        most={MOST_PARTS}
        readOnly={readOnly}
        onAdd={() => onChange({ ...item, entries: [...entries, newEntry(withPoints ? 1 : null)] })}
        onRemove={(id) => onChange({ ...item, entries: entries.filter((one) => one.id !== id) })}
        render={(entry, number) => {
          const set = (part: Partial<typeof entry>) =>
            onChange({ ...item, entries: entries.map((one) => (one.id === entry.id ? { ...one, ...part } : one)) });
          return (
            <>
              <PlainInput
                label={`Entry ${number}`}
                value={entry.text}
                placeholder="What is looked for"
                onChange={(text) => set({ text })}
              />
              {withPoints && (
                <NumberBox
                  strong
                  label={`Points of entry ${number}`}
                  value={entry.points}
                  blank={null}
                  min={0}
                  step="any"
                  onChange={(points) => set({ points })}
                />
              )}
            </>
          );
        }}
      />
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        <Checkbox
          label="Points"
          checked={withPoints}
          onChange={({ target }) =>
            onChange({ ...item, entries: entries.map((one) => ({ ...one, points: target.checked ? 1 : null })) })
          }
        />
        <CommentSelect value={item.comment} onChange={(comment) => onChange({ ...item, comment })} />
      </div>
    </div>
  );
}

function PairEditor({ item, onChange }: KindEditorProps<PairItem>) {
  return (
    <div className="space-y-2">
      <div className="grid gap-2 sm:grid-cols-2">
        <PlainInput
          label="Name of the first field"
          value={item.worksLabel}
          placeholder={PAIR_WORDS.works}
          onChange={(worksLabel) => onChange({ ...item, worksLabel })}
        />
        <PlainInput
          label="Name of the second field"
          value={item.nextLabel}
          placeholder={PAIR_WORDS.next}
          onChange={(nextLabel) => onChange({ ...item, nextLabel })}
        />
      </div>
      <MinimumWords each value={item.minimumWords} onChange={(minimumWords) => onChange({ ...item, minimumWords })} />
    </div>
  );
}

function NumberEditor({ item, onChange }: KindEditorProps<NumberItem>) {
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
      from
      <NumberBox
        label="Least value"
        value={item.minimum}
        blank={null}
        step="any"
        onChange={(minimum) => onChange({ ...item, minimum })}
      />
      to
      <NumberBox
        label="Greatest value"
        value={item.maximum}
        blank={null}
        step="any"
        onChange={(maximum) => onChange({ ...item, maximum })}
      />
      <span className="w-40">
        <PlainInput
          label="What is counted"
          value={item.unit}
          placeholder="unit, e.g. sources"
          onChange={(unit) => onChange({ ...item, unit })}
        />
      </span>
      <Checkbox
        label="Whole numbers"
        checked={item.whole}
        onChange={({ target }) => onChange({ ...item, whole: target.checked })}
      />
    </div>
  );
}

function ChoiceEditor({ item, readOnly, onChange }: KindEditorProps<ChoiceItem>) {
  const { options } = item;
  return (
    <div className="space-y-2">
      <PartList
        parts={options}
        word="option"
        least={2}
        most={MOST_PARTS}
        readOnly={readOnly}
        onAdd={() => onChange({ ...item, options: [...options, newOption()] })}
        onRemove={(id) => onChange({ ...item, options: options.filter((one) => one.id !== id) })}
        render={(option, number) => (
          <PlainInput
            label={`Option ${number}`}
            value={option.title}
            placeholder={`Option ${number}`}
            onChange={(title) =>
              onChange({ ...item, options: options.map((one) => (one.id === option.id ? { ...one, title } : one)) })
            }
          />
        )}
      />
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        <Checkbox
          label="Several may be chosen"
          checked={item.multiple}
          onChange={({ target }) => onChange({ ...item, multiple: target.checked })}
        />
        <CommentSelect value={item.comment} onChange={(comment) => onChange({ ...item, comment })} />
      </div>
    </div>
  );
}
