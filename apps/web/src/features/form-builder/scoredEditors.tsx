import {
  RANGE_STEPS,
  type Band,
  type ChecklistItem,
  type CriterionItem,
  type Level,
  type RangeItem,
} from '@salt-circle/core';
import { Checkbox, NumberBox } from '../../kit/index.js';
import { newBand, newEntry, newLevel } from './items.js';
import { CommentSelect, MOST_PARTS, type KindEditorProps } from './KindParts.js';
import { PartList } from './PartList.js';
import { PlainInput } from './PlainInput.js';
import { say } from '../../words/form-builder.js';

export function CriterionEditor({ item, readOnly, onChange }: KindEditorProps<CriterionItem>) {
  const { levels } = item;
  const withPoints = levels.some(({ points }) => points !== null);
  const set = (next: Level) => onChange({ ...item, levels: levels.map((one) => (one.id === next.id ? next : one)) });
  return (
    <div className="space-y-2">
      <PartList
        across
        parts={levels}
        part="level"
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
                label={say('pointsOfLevel', { number })}
                value={level.points}
                blank={null}
                min={0}
                step="any"
                onChange={(points) => set({ ...level, points })}
              />
            )}
            <PlainInput
              label={say('nameOfLevel', { number })}
              value={level.title}
              placeholder={say('levelOf', { number })}
              onChange={(title) => set({ ...level, title })}
            />
            <PlainInput
              label={say('descriptionOfLevel', { number })}
              value={level.description}
              placeholder={say('description')}
              onChange={(description) => set({ ...level, description })}
            />
          </>
        )}
      />
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        <Checkbox
          label={say('pointsLabel')}
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

export function RangeEditor({ item, readOnly, onChange }: KindEditorProps<RangeItem>) {
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
        part="band"
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
                label={say('bandFrom', { number })}
                value={band.from}
                blank={0}
                min={0}
                step="any"
                onChange={(from) => set({ ...band, from: from ?? 0 })}
              />
              {say('to')}
              <NumberBox
                strong
                label={say('bandTo', { number })}
                value={band.to}
                blank={0}
                min={0}
                step="any"
                onChange={(to) => set({ ...band, to: to ?? 0 })}
              />
            </span>
            <PlainInput
              label={say('nameOfBand', { number })}
              value={band.title}
              placeholder={say('bandOf', { number })}
              onChange={(title) => set({ ...band, title })}
            />
            <PlainInput
              label={say('descriptionOfBand', { number })}
              value={band.description}
              placeholder={say('description')}
              onChange={(description) => set({ ...band, description })}
            />
          </>
        )}
      />
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        <label className="flex items-center gap-2">
          {say('inStepsOf')}
          <select
            value={step}
            onChange={(event) => onChange({ ...item, step: Number(event.target.value) })}
            className="rounded border border-line bg-paper px-2 py-0.5"
          >
            {RANGE_STEPS.map((one) => (
              <option key={one} value={one}>
                {one === 1 ? say('wholePoints') : one === 0.5 ? say('halfPoints') : say('tenths')}
              </option>
            ))}
          </select>
        </label>
        <CommentSelect value={item.comment} onChange={(comment) => onChange({ ...item, comment })} />
      </div>
    </div>
  );
}

export function ChecklistEditor({ item, readOnly, onChange }: KindEditorProps<ChecklistItem>) {
  const { entries } = item;
  const withPoints = entries.some(({ points }) => points !== null);
  return (
    <div className="space-y-2">
      <PartList
        parts={entries}
        part="entry"
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
                label={say('entryOf', { number })}
                value={entry.text}
                placeholder={say('whatIsLookedFor')}
                onChange={(text) => set({ text })}
              />
              {withPoints && (
                <NumberBox
                  strong
                  label={say('pointsOfEntry', { number })}
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
          label={say('pointsLabel')}
          checked={withPoints}
          onChange={({ target }) =>
            onChange({ ...item, entries: entries.map((one) => ({ ...one, points: target.checked ? 1 : null })) })
          }
        />
        <Checkbox
          label={say('cannotTellIsAnswer')}
          checked={item.cannotTell === true}
          onChange={({ target }) => onChange({ ...item, cannotTell: target.checked })}
        />
        <CommentSelect value={item.comment} onChange={(comment) => onChange({ ...item, comment })} />
      </div>
    </div>
  );
}
