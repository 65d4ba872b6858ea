import {
  checksOf,
  bandOf,
  rangeBounds,
  valueFault,
  type Answer,
  type ChecklistItem,
  type ChoiceItem,
  type FormItem,
  type NumberItem,
  type PairItem,
  type RangeItem,
} from '@salt-circle/core';
import { useId } from 'react';
import { Levels, TextArea } from '../../kit/index.js';
import { CHECK_WORDS, PAIR_WORDS } from './kinds.js';
import { say } from '../../words/app.js';

export interface ItemInputProps {
  readonly item: FormItem;
  readonly answer: Answer | undefined;
  /** Absent: shown, not answered. */
  readonly onChange?: ((part: Answer) => void) | undefined;
}

const MAX_TEXT = 20_000;

/** An item of any kind, to be answered. */
export function ItemInput({ item, answer, onChange }: ItemInputProps) {
  const given = { answer, onChange };
  const comment = 'comment' in item && item.comment !== 'none';
  return (
    <div className="space-y-2">
      {item.kind === 'criterion' && (
        <Levels
          label={item.title}
          levels={item.levels}
          value={answer?.levelId ?? null}
          {...(onChange !== undefined && { onChange: (levelId: string) => onChange({ levelId }) })}
        />
      )}
      {item.kind === 'range' && <RangeInput item={item} {...given} />}
      {item.kind === 'checklist' && <ChecklistInput item={item} {...given} />}
      {item.kind === 'number' && <NumberInput item={item} {...given} />}
      {item.kind === 'choice' && <ChoiceInput item={item} {...given} />}
      {item.kind === 'pair' && <PairInput item={item} {...given} />}
      {item.kind === 'prompt' && <AnswerText label={item.title} field="text" {...given} />}
      {comment && (
        <AnswerText
          label={say('whyOf', { title: item.title })}
          field="text"
          placeholder={item.comment === 'required' ? say('sayWhy') : say('sayWhyIfYouLike')}
          {...given}
        />
      )}
    </div>
  );
}

interface AnswerTextProps extends Omit<ItemInputProps, 'item'> {
  readonly label: string;
  readonly field: 'text' | 'next';
  readonly placeholder?: string;
  readonly labelShown?: boolean;
}

/** Also used for the overall comment, which belongs to no item. */
export function AnswerText({ label, field, placeholder, labelShown = false, answer, onChange }: AnswerTextProps) {
  const value = answer?.[field] ?? '';
  return (
    <TextArea
      label={label}
      labelHidden={!labelShown}
      placeholder={onChange === undefined ? undefined : placeholder}
      value={value}
      maxLength={MAX_TEXT}
      readOnly={onChange === undefined}
      onChange={(event) => onChange?.({ [field]: event.target.value })}
    />
  );
}

type Given<Item> = Omit<ItemInputProps, 'item'> & { readonly item: Item };

function RangeInput({ item, answer, onChange }: Given<RangeItem>) {
  const id = useId();
  const { least, most } = rangeBounds(item);
  const value = answer?.value ?? null;
  const band = value === null ? null : bandOf(item, value);
  const set = (next: number) => onChange?.({ value: Number.isNaN(next) ? null : next });
  return (
    <div>
      <div className="flex items-center gap-3">
        <input
          type="range"
          aria-label={say('pointsBySliding', { title: item.title })}
          min={least}
          max={most}
          step={item.step}
          value={value ?? least}
          disabled={onChange === undefined}
          onChange={(event) => set(event.target.valueAsNumber)}
          className={`min-w-0 flex-1 accent-iodine ${value === null ? 'opacity-50' : ''}`}
        />
        <label htmlFor={id} className="sr-only">
          {say('points', { title: item.title })}
        </label>
        <input
          id={id}
          type="number"
          min={least}
          max={most}
          step={item.step}
          value={value ?? ''}
          disabled={onChange === undefined}
          onChange={(event) => set(event.target.valueAsNumber)}
          className="w-20 rounded border border-edge bg-paper px-2 py-1"
        />
        <span className="whitespace-nowrap text-ink-soft">{say('ofOf2', { most })}</span>
      </div>
      <ValueProblem item={item} value={value} />
      <ul className="mt-1 flex flex-col @lg:flex-row">
        {item.bands.map((one) => (
          <li
            key={one.id}
            className={`flex-1 border border-line px-2 py-1 text-sm not-first:-mt-px @lg:not-first:mt-0 @lg:not-first:-ml-px ${one === band ? 'z-10 border-iodine bg-paper outline outline-iodine' : ''}`}
          >
            <span className="font-semibold">
              {one.from === one.to ? one.from : say('to', { from: one.from, to: one.to })} {one.title}
            </span>
            {one === band && <span className="sr-only"> {say('chosen')}</span>}
            {one.description !== '' && <span className="block text-ink-soft">{one.description}</span>}
          </li>
        ))}
      </ul>
    </div>
  );
}

function ChecklistInput({ item, answer, onChange }: Given<ChecklistItem>) {
  const id = useId();
  return (
    <ul>
      {item.entries.map((entry) => (
        <li key={entry.id} className="flex items-center justify-between gap-3 border-b border-line py-1.5">
          <span>
            <span id={`${id}-${entry.id}`}>{entry.text}</span>
            {entry.points !== null && (
              <span className="ml-1.5 text-sm text-ink-soft">
                <span aria-hidden="true">{entry.points}</span>
                <span className="sr-only">{say('pointsCounted', { points: entry.points })}</span>
              </span>
            )}
          </span>
          <span role="radiogroup" aria-labelledby={`${id}-${entry.id}`} className="flex gap-3 whitespace-nowrap">
            {checksOf(item).map((check) => (
              <label key={check} className="inline-flex items-center gap-1">
                <input
                  type="radio"
                  name={`${id}-${entry.id}`}
                  checked={answer?.checks?.[entry.id] === check}
                  disabled={onChange === undefined}
                  onChange={() => onChange?.({ checks: { ...answer?.checks, [entry.id]: check } })}
                  className="size-4 accent-iodine"
                />
                {CHECK_WORDS[check]}
              </label>
            ))}
          </span>
        </li>
      ))}
    </ul>
  );
}

function NumberInput({ item, answer, onChange }: Given<NumberItem>) {
  const id = useId();
  const bounds = boundsWords(item);
  return (
    <div className="flex flex-wrap items-center gap-x-2">
      <label htmlFor={id} className="sr-only">
        {item.title}
      </label>
      <input
        id={id}
        type="number"
        min={item.minimum ?? undefined}
        max={item.maximum ?? undefined}
        step={item.whole ? 1 : 'any'}
        value={answer?.value ?? ''}
        disabled={onChange === undefined}
        onChange={({ target }) =>
          onChange?.({ value: Number.isNaN(target.valueAsNumber) ? null : target.valueAsNumber })
        }
        className="w-28 rounded border border-edge bg-paper px-2 py-1"
      />
      <span className="text-ink-soft">
        {item.unit} {bounds !== '' && `(${bounds})`}
      </span>
      <ValueProblem item={item} value={answer?.value ?? null} />
    </div>
  );
}

/** Why a number that is typed does not answer the item; it is kept in this browser until it does. */
function ValueProblem({ item, value }: { readonly item: RangeItem | NumberItem; readonly value: number | null }) {
  const wrong = value !== null && valueFault(item, value) !== null;
  return (
    <p role={wrong ? 'alert' : undefined} className="basis-full text-sm text-madder empty:hidden">
      {wrong && wanted(item)}
    </p>
  );
}

function wanted(item: RangeItem | NumberItem): string {
  if (item.kind === 'range') {
    const { least, most } = rangeBounds(item);
    return say('giveToPointsInSteps', { least, most, step: item.step });
  }
  const bounds = boundsWords(item);
  return item.whole
    ? bounds === ''
      ? say('giveWholeNumber')
      : say('giveWholeNumberOf', { bounds })
    : bounds === ''
      ? say('giveNumber')
      : say('giveNumberOf', { bounds });
}

export function boundsWords({ minimum, maximum }: Pick<NumberItem, 'minimum' | 'maximum'>): string {
  if (minimum !== null && maximum !== null) return say('toOf', { minimum, maximum });
  if (minimum !== null) return say('orMore', { minimum });
  return maximum === null ? '' : say('atMost', { maximum });
}

function ChoiceInput({ item, answer, onChange }: Given<ChoiceItem>) {
  const id = useId();
  const chosen = answer?.choices ?? [];
  const toggle = (option: string, on: boolean) => {
    const rest = item.multiple ? chosen.filter((one) => one !== option) : [];
    onChange?.({ choices: on ? [...rest, option] : rest });
  };
  return (
    <div role={item.multiple ? 'group' : 'radiogroup'} aria-label={item.title} className="space-y-1">
      {item.options.map((option) => (
        <label key={option.id} className="flex items-start gap-2">
          <input
            type={item.multiple ? 'checkbox' : 'radio'}
            name={id}
            checked={chosen.includes(option.id)}
            disabled={onChange === undefined}
            onChange={(event) => toggle(option.id, event.target.checked)}
            className="mt-0.5 size-4 accent-iodine"
          />
          {option.title}
        </label>
      ))}
    </div>
  );
}

function PairInput({ item, answer, onChange }: Given<PairItem>) {
  return (
    <div className="grid gap-2 @md:grid-cols-2">
      <AnswerText
        label={item.worksLabel || PAIR_WORDS.works}
        field="text"
        labelShown
        answer={answer}
        onChange={onChange}
      />
      <AnswerText
        label={item.nextLabel || PAIR_WORDS.next}
        field="next"
        labelShown
        answer={answer}
        onChange={onChange}
      />
    </div>
  );
}
