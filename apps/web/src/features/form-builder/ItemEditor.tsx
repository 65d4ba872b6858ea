import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { FieldProblem } from '@salt-circle/contracts';
import { itemMaximum, type FormItem } from '@salt-circle/core';
import { ArrowDown, ArrowUp, Copy, GripVertical, Trash2 } from 'lucide-react';
import { memo, type ReactNode } from 'react';
import { kindWord } from '../../app/form/kinds.js';
import { Checkbox, Tooltip, NumberBox } from '../../kit/index.js';
import { KindEditor } from './KindEditor.js';
import { PlainInput } from './PlainInput.js';
import { say } from '../../words/form-builder.js';

/** What can be done to an item. The same object at every render, so that editing one item does not draw the others. */
export interface ItemActions {
  readonly change: (item: FormItem) => void;
  readonly move: (id: string, step: 1 | -1) => void;
  readonly duplicate: (id: string) => void;
  readonly remove: (id: string) => void;
}

export interface ItemEditorProps {
  readonly item: FormItem;
  /** From 1. */
  readonly number: number;
  readonly last: boolean;
  readonly readOnly: boolean;
  readonly autoFocus: boolean;
  readonly problems: readonly FieldProblem[];
  /** What all weights add up to, or null where the form goes by points. */
  readonly weightSum: number | null;
  readonly actions: ItemActions;
}

export const ItemEditor = memo(function ItemEditor({
  item,
  number,
  last,
  readOnly,
  autoFocus,
  problems,
  weightSum,
  actions,
}: ItemEditorProps) {
  const { setNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({
    id: item.id,
    disabled: readOnly,
  });
  const name = item.title === '' ? say('item', { number }) : `“${item.title}”`;
  const { change } = actions;
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`grid grid-cols-[2rem_1fr] gap-x-3 border-b border-line bg-salt py-4 md:grid-cols-[2rem_minmax(0,1fr)_11.5rem] ${isDragging ? 'relative z-10 outline outline-iodine' : ''}`}
    >
      <div className="flex flex-col items-center gap-1 pt-1 text-ink-soft">
        {!readOnly && (
          <button
            type="button"
            {...attributes}
            {...listeners}
            aria-label={say('moveByDraggingOrPress', { name })}
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
          label={say('whatItAsks')}
          value={item.title}
          autoFocus={autoFocus}
          strong
          placeholder={item.kind === 'prompt' ? say('whatToWriteAbout') : say('nameOfItem', { kind: item.kind })}
          onChange={(title) => change({ ...item, title })}
        />
        <PlainInput
          label={say('guidance')}
          value={item.guidance}
          placeholder={say('guidanceForReviewerMayBe')}
          onChange={(guidance) => change({ ...item, guidance })}
        />
        <KindEditor item={item} readOnly={readOnly} onChange={change} />
        <Checkbox
          label={say('required')}
          checked={item.required}
          onChange={(event) => change({ ...item, required: event.target.checked })}
        />
        {problems.map((one) => (
          <p key={one.path + one.code} className="text-sm text-copper">
            {one.sentence}
          </p>
        ))}
      </fieldset>
      <div className="col-start-2 flex flex-wrap items-center justify-between gap-1 md:col-start-3 md:flex-col md:items-end md:justify-start md:text-right">
        <p className="text-sm text-ink-soft">{kindWord(item.kind)}</p>
        <Worth item={item} weightSum={weightSum} readOnly={readOnly} onChange={change} />
        {!readOnly && (
          <div className="flex">
            <IconButton
              words={say('moveUp', { name })}
              disabled={number === 1}
              onClick={() => actions.move(item.id, -1)}
            >
              <ArrowUp size={17} aria-hidden="true" />
            </IconButton>
            <IconButton words={say('moveDown', { name })} disabled={last} onClick={() => actions.move(item.id, 1)}>
              <ArrowDown size={17} aria-hidden="true" />
            </IconButton>
            <IconButton words={say('duplicate', { name })} onClick={() => actions.duplicate(item.id)}>
              <Copy size={16} aria-hidden="true" />
            </IconButton>
            <IconButton words={say('remove', { name })} onClick={() => actions.remove(item.id)}>
              <Trash2 size={17} aria-hidden="true" />
            </IconButton>
          </div>
        )}
      </div>
    </li>
  );
});

type WorthProps = Pick<ItemEditorProps, 'item' | 'weightSum' | 'readOnly'> & {
  readonly onChange: (item: FormItem) => void;
};

/** Points, and the weight with its share where the form goes by weights. */
function Worth({ item, weightSum, readOnly, onChange }: WorthProps) {
  const points = itemMaximum(item);
  if (points === null) return <p className="text-ink-soft">{say('noPointsWord')}</p>;
  return (
    <div>
      <p>{say('pointsOf', { points, strong: (words) => <strong>{words}</strong> })}</p>
      {weightSum !== null && (
        <fieldset disabled={readOnly} className="flex items-center justify-end gap-1.5 text-sm">
          {say('weight')}
          <NumberBox
            label={say('weightOf', { title: item.title === '' ? say('thisItem') : item.title })}
            value={item.weight}
            blank={0}
            min={0}
            max={1000}
            step="any"
            onChange={(weight) => onChange({ ...item, weight: weight ?? 0 })}
          />
          <span className="w-9 text-ink-soft">
            {weightSum > 0 ? `${Math.round((item.weight / weightSum) * 100)}%` : ''}
          </span>
        </fieldset>
      )}
    </div>
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
