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

export function CriterionEditor({ item, readOnly, onChange }: KindEditorProps<CriterionItem>) {
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

export function ChecklistEditor({ item, readOnly, onChange }: KindEditorProps<ChecklistItem>) {
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
        <Checkbox
          label="“Cannot tell” is an answer"
          checked={item.cannotTell === true}
          onChange={({ target }) => onChange({ ...item, cannotTell: target.checked })}
        />
        <CommentSelect value={item.comment} onChange={(comment) => onChange({ ...item, comment })} />
      </div>
    </div>
  );
}
