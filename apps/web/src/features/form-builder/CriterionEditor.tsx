import type { CriterionItem, Level } from '@salt-circle/core';
import { X } from 'lucide-react';
import { Checkbox } from '../../kit/index.js';
import { newLevel } from './items.js';
import { PlainInput } from './PlainInput.js';

export interface CriterionEditorProps {
  readonly item: CriterionItem;
  readonly readOnly: boolean;
  readonly onChange: (item: CriterionItem) => void;
}

const MAX_LEVELS = 12;
const COMMENTS: ReadonlyArray<readonly [CriterionItem['comment'], string]> = [
  ['none', 'no reason asked for'],
  ['optional', 'a reason may be given'],
  ['required', 'a reason must be given'],
];

export function CriterionEditor({ item, readOnly, onChange }: CriterionEditorProps) {
  const { levels } = item;
  const withPoints = levels.some(({ points }) => points !== null);
  const setLevel = (next: Level) =>
    onChange({ ...item, levels: levels.map((one) => (one.id === next.id ? next : one)) });
  const setPoints = (on: boolean) =>
    onChange({ ...item, levels: levels.map((one, index) => ({ ...one, points: on ? index * 2 : null })) });
  const addLevel = () => {
    const last = levels.at(-1)?.points;
    onChange({ ...item, levels: [...levels, newLevel(withPoints ? (last ?? 0) + 1 : null)] });
  };
  return (
    <div className="space-y-2">
      <ul className="grid grid-cols-[repeat(auto-fit,minmax(9rem,1fr))]">
        {levels.map((level, index) => (
          <LevelEditor
            key={level.id}
            level={level}
            number={index + 1}
            withPoints={withPoints}
            removable={!readOnly && levels.length > 2}
            onChange={setLevel}
            onRemove={() => onChange({ ...item, levels: levels.filter((one) => one.id !== level.id) })}
          />
        ))}
        {!readOnly && levels.length < MAX_LEVELS && (
          <li className="flex">
            <button
              type="button"
              onClick={addLevel}
              className="flex-1 border border-dashed border-edge p-2 text-left text-ink-soft hover:bg-crust"
            >
              Add a level
            </button>
          </li>
        )}
      </ul>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        <Checkbox label="Points" checked={withPoints} onChange={(event) => setPoints(event.target.checked)} />
        <label className="flex items-center gap-2">
          <span className="sr-only">Reason</span>
          <select
            value={item.comment}
            onChange={(event) => onChange({ ...item, comment: event.target.value as CriterionItem['comment'] })}
            className="rounded border border-line bg-paper px-2 py-0.5"
          >
            {COMMENTS.map(([key, words]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </select>
        </label>
      </div>
    </div>
  );
}

interface LevelEditorProps {
  readonly level: Level;
  readonly number: number;
  readonly withPoints: boolean;
  readonly removable: boolean;
  readonly onChange: (level: Level) => void;
  readonly onRemove: () => void;
}

function LevelEditor({ level, number, withPoints, removable, onChange, onRemove }: LevelEditorProps) {
  return (
    <li className="group relative -mr-px -mb-px border border-line bg-paper p-1.5">
      {withPoints && (
        <input
          type="number"
          step="any"
          min={0}
          aria-label={`Points of level ${number}`}
          value={level.points ?? ''}
          onChange={(event) =>
            onChange({ ...level, points: event.target.value === '' ? null : event.target.valueAsNumber })
          }
          className="w-16 rounded border border-line bg-paper px-1.5 font-semibold"
        />
      )}
      <PlainInput
        label={`Name of level ${number}`}
        value={level.title}
        placeholder={`Level ${number}`}
        onChange={(title) => onChange({ ...level, title })}
      />
      <PlainInput
        label={`Description of level ${number}`}
        value={level.description}
        placeholder="Description"
        onChange={(description) => onChange({ ...level, description })}
      />
      {removable && (
        <button
          type="button"
          aria-label={`Remove level ${number}`}
          onClick={onRemove}
          className="absolute top-1 right-1 rounded p-0.5 text-ink-soft hover:bg-crust"
        >
          <X size={14} aria-hidden="true" />
        </button>
      )}
    </li>
  );
}
