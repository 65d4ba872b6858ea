import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { FieldProblem } from '@salt-circle/contracts';
import { itemMaximum, type FormItem } from '@salt-circle/core';
import { ArrowDown, ArrowUp, GripVertical, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { Checkbox, Tooltip } from '../../kit/index.js';
import { CriterionEditor } from './CriterionEditor.js';
import { PlainInput } from './PlainInput.js';

export interface ItemEditorProps {
  readonly item: FormItem;
  /** From 1. */
  readonly number: number;
  readonly last: boolean;
  readonly readOnly: boolean;
  readonly autoFocus: boolean;
  readonly problems: readonly FieldProblem[];
  readonly onChange: (item: FormItem) => void;
  readonly onMove: (step: 1 | -1) => void;
  readonly onRemove: () => void;
}

export function ItemEditor({
  item,
  number,
  last,
  readOnly,
  autoFocus,
  problems,
  onChange,
  onMove,
  onRemove,
}: ItemEditorProps) {
  const { setNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({
    id: item.id,
    disabled: readOnly,
  });
  const points = item.kind === 'criterion' ? itemMaximum(item) : null;
  const name = item.title === '' ? `item ${number}` : `“${item.title}”`;
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`grid grid-cols-[2rem_1fr_auto] gap-x-3 border-b border-line bg-salt py-4 ${isDragging ? 'relative z-10 outline outline-iodine' : ''}`}
    >
      <div className="flex flex-col items-center gap-1 pt-1 text-ink-soft">
        {!readOnly && (
          <button
            type="button"
            {...attributes}
            {...listeners}
            aria-label={`Move ${name} by dragging, or press space and use the arrow keys`}
            className="cursor-grab touch-none"
          >
            <GripVertical size={18} aria-hidden="true" />
          </button>
        )}
        <span>{number}</span>
      </div>
      <fieldset disabled={readOnly} className="min-w-0 space-y-2">
        <legend className="sr-only">{name}</legend>
        <PlainInput
          label="What it asks"
          value={item.title}
          autoFocus={autoFocus}
          strong
          placeholder={item.kind === 'criterion' ? 'Name of the criterion' : 'What to write about'}
          onChange={(title) => onChange({ ...item, title })}
        />
        <PlainInput
          label="Guidance"
          value={item.guidance}
          placeholder="Guidance for the reviewer (may be left empty)"
          onChange={(guidance) => onChange({ ...item, guidance })}
        />
        {item.kind === 'criterion' ? (
          <CriterionEditor item={item} readOnly={readOnly} onChange={onChange} />
        ) : (
          <label className="flex items-center gap-2">
            At least
            <input
              type="number"
              min={0}
              max={2000}
              value={item.minimumWords}
              onChange={(event) => onChange({ ...item, minimumWords: Math.max(0, event.target.valueAsNumber || 0) })}
              className="w-20 rounded border border-edge bg-paper px-2 py-1"
            />
            words
          </label>
        )}
        <Checkbox
          label="Required"
          checked={item.required}
          onChange={(event) => onChange({ ...item, required: event.target.checked })}
        />
        {problems.map((one) => (
          <p key={one.path + one.code} className="text-sm text-copper">
            {one.sentence}
          </p>
        ))}
      </fieldset>
      <div className="flex flex-col items-end gap-1 text-right">
        <p>
          {points === null ? (
            <span className="text-ink-soft">no points</span>
          ) : (
            <>
              <strong>{points}</strong> points
            </>
          )}
        </p>
        {!readOnly && (
          <div className="flex">
            <IconButton words={`Move ${name} up`} disabled={number === 1} onClick={() => onMove(-1)}>
              <ArrowUp size={17} aria-hidden="true" />
            </IconButton>
            <IconButton words={`Move ${name} down`} disabled={last} onClick={() => onMove(1)}>
              <ArrowDown size={17} aria-hidden="true" />
            </IconButton>
            <IconButton words={`Remove ${name}`} onClick={onRemove}>
              <Trash2 size={17} aria-hidden="true" />
            </IconButton>
          </div>
        )}
      </div>
    </li>
  );
}

interface IconButtonProps {
  readonly words: string;
  readonly disabled?: boolean;
  readonly onClick: () => void;
  readonly children: ReactNode;
}

function IconButton({ words, disabled = false, onClick, children }: IconButtonProps) {
  return (
    <Tooltip words={words}>
      <button
        type="button"
        aria-label={words}
        disabled={disabled}
        onClick={onClick}
        className="rounded p-1.5 text-ink-soft hover:bg-crust disabled:opacity-40"
      >
        {children}
      </button>
    </Tooltip>
  );
}
