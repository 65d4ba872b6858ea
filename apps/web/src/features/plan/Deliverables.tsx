import {
  DEFAULT_MEGABYTES,
  DELIVERABLE_KINDS,
  FILE_FAMILIES,
  MAX_DELIVERABLES,
  MAX_MEGABYTES,
  type Deliverable,
  type DeliverableKind,
} from '@salt-circle/core';
import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-react';
import { FAMILY_WORDS, KIND_WORDS } from '@salt-circle/core';
import { Button, Checkbox, TextArea, TextField } from '../../kit/index.js';
import { say } from '../../words/plan.js';

export interface DeliverablesProps {
  readonly deliverables: readonly Deliverable[];
  /** Why only words can still be changed. */
  readonly fixed: string | undefined;
  readonly problemAt: (path: string) => string | undefined;
  readonly onChange: (deliverables: readonly Deliverable[]) => void;
}

function newDeliverable(): Deliverable {
  return {
    id: crypto.randomUUID(),
    kind: 'text',
    title: '',
    description: '',
    required: true,
    families: [],
    maxMegabytes: DEFAULT_MEGABYTES,
  };
}

const BUTTON = 'rounded p-1.5 text-ink-soft hover:bg-crust disabled:opacity-40';

/** What a hand-in contains, one row each. */
export function Deliverables({ deliverables, fixed, problemAt, onChange }: DeliverablesProps) {
  const set = (next: Deliverable) => onChange(deliverables.map((one) => (one.id === next.id ? next : one)));
  const move = (index: number, step: 1 | -1) => {
    const list = [...deliverables];
    const [one] = list.splice(index, 1);
    if (one !== undefined) list.splice(index + step, 0, one);
    onChange(list);
  };
  return (
    <div className="space-y-3">
      {fixed !== undefined && <p className="text-sm text-ink-soft">{fixed}</p>}
      {problemAt('deliverables') !== undefined && (
        <p role="alert" className="text-sm text-madder">
          {problemAt('deliverables')}
        </p>
      )}
      <ol className="space-y-3">
        {deliverables.map((one, index) => (
          <li key={one.id} className="border border-line bg-paper p-3">
            <DeliverableRow one={one} index={index} fixed={fixed !== undefined} problemAt={problemAt} onChange={set} />
            {fixed === undefined && (
              <div className="mt-1 flex justify-end">
                <button
                  type="button"
                  aria-label={say('moveDeliverableUp', { index: index + 1 })}
                  disabled={index === 0}
                  onClick={() => move(index, -1)}
                  className={BUTTON}
                >
                  <ArrowUp size={16} aria-hidden="true" />
                </button>
                <button
                  type="button"
                  aria-label={say('moveDeliverableDown', { index: index + 1 })}
                  disabled={index === deliverables.length - 1}
                  onClick={() => move(index, 1)}
                  className={BUTTON}
                >
                  <ArrowDown size={16} aria-hidden="true" />
                </button>
                <button
                  type="button"
                  aria-label={say('removeDeliverable', { index: index + 1 })}
                  disabled={deliverables.length === 1}
                  onClick={() => onChange(deliverables.filter(({ id }) => id !== one.id))}
                  className={BUTTON}
                >
                  <Trash2 size={16} aria-hidden="true" />
                </button>
              </div>
            )}
          </li>
        ))}
      </ol>
      {fixed === undefined && deliverables.length < MAX_DELIVERABLES && (
        <Button small onClick={() => onChange([...deliverables, newDeliverable()])}>
          <Plus size={15} aria-hidden="true" /> {say('addDeliverable')}
        </Button>
      )}
    </div>
  );
}

interface RowProps {
  readonly one: Deliverable;
  readonly index: number;
  readonly fixed: boolean;
  readonly problemAt: (path: string) => string | undefined;
  readonly onChange: (next: Deliverable) => void;
}

function DeliverableRow({ one, index, fixed, problemAt, onChange }: RowProps) {
  const toggle = (family: Deliverable['families'][number], on: boolean) =>
    onChange({
      ...one,
      families: FILE_FAMILIES.filter((each) => (each === family ? on : one.families.includes(each))),
    });
  const familyProblem = problemAt(`deliverables.${index}.families`);
  return (
    <div className="space-y-2">
      <div className="grid gap-2 sm:grid-cols-[11rem_1fr]">
        <label>
          <span className="mb-1 block font-medium">{say('kind')}</span>
          <select
            aria-label={say('kindOfDeliverable', { index: index + 1 })}
            value={one.kind}
            disabled={fixed}
            onChange={({ target }) =>
              onChange({
                ...one,
                kind: target.value as DeliverableKind,
                families: target.value === 'file' ? ['pdf', 'document'] : [],
              })
            }
            className="w-full rounded border border-edge bg-paper px-2.5 py-1.5"
          >
            {DELIVERABLE_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {KIND_WORDS[kind]}
              </option>
            ))}
          </select>
        </label>
        <TextField
          label={say('title')}
          aria-label={say('titleOfDeliverable', { index: index + 1 })}
          value={one.title}
          maxLength={200}
          problem={problemAt(`deliverables.${index}.title`)}
          onChange={({ target }) => onChange({ ...one, title: target.value })}
        />
      </div>
      <TextArea
        label={say('description')}
        labelHidden
        placeholder={say('whatItShouldBeLike')}
        value={one.description}
        maxLength={2000}
        onChange={({ target }) => onChange({ ...one, description: target.value })}
      />
      {one.kind === 'file' && (
        <div role="group" aria-label={say('kindsOfFiles')} className="flex flex-wrap gap-x-4 gap-y-1">
          {FILE_FAMILIES.map((family) => (
            <Checkbox
              key={family}
              label={FAMILY_WORDS[family]}
              checked={one.families.includes(family)}
              disabled={fixed}
              onChange={({ target }) => toggle(family, target.checked)}
            />
          ))}
        </div>
      )}
      {(one.kind === 'file' || one.kind === 'recording') && (
        <TextField
          label={say('largestSizeInMegabytes')}
          type="number"
          inputMode="numeric"
          min={1}
          max={MAX_MEGABYTES}
          aria-label={say('largestSizeOfDeliverableIn', { index: index + 1 })}
          value={Number.isFinite(one.maxMegabytes) ? String(one.maxMegabytes) : ''}
          disabled={fixed}
          problem={problemAt(`deliverables.${index}.maxMegabytes`)}
          onChange={({ target }) => onChange({ ...one, maxMegabytes: target.valueAsNumber || 0 })}
        />
      )}
      {familyProblem !== undefined && (
        <p role="alert" className="text-sm text-madder">
          {familyProblem}
        </p>
      )}
      <Checkbox
        label={say('required')}
        checked={one.required}
        disabled={fixed}
        onChange={({ target }) => onChange({ ...one, required: target.checked })}
      />
    </div>
  );
}
