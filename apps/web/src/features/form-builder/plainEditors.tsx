import type { ChoiceItem, NumberItem, PairItem } from '@salt-circle/core';
import { PAIR_WORDS } from '../../app/form/kinds.js';
import { Checkbox, NumberBox } from '../../kit/index.js';
import { newOption } from './items.js';
import { CommentSelect, MinimumWords, MOST_PARTS, type KindEditorProps } from './KindParts.js';
import { PartList } from './PartList.js';
import { PlainInput } from './PlainInput.js';
import { say } from '../../words/form-builder.js';

export function PairEditor({ item, onChange }: KindEditorProps<PairItem>) {
  return (
    <div className="space-y-2">
      <div className="grid gap-2 sm:grid-cols-2">
        <PlainInput
          label={say('nameOfFirstField')}
          value={item.worksLabel}
          placeholder={PAIR_WORDS.works}
          onChange={(worksLabel) => onChange({ ...item, worksLabel })}
        />
        <PlainInput
          label={say('nameOfSecondField')}
          value={item.nextLabel}
          placeholder={PAIR_WORDS.next}
          onChange={(nextLabel) => onChange({ ...item, nextLabel })}
        />
      </div>
      <MinimumWords each value={item.minimumWords} onChange={(minimumWords) => onChange({ ...item, minimumWords })} />
    </div>
  );
}

export function NumberEditor({ item, onChange }: KindEditorProps<NumberItem>) {
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
      {say('from')}
      <NumberBox
        label={say('leastValue')}
        value={item.minimum}
        blank={null}
        step="any"
        onChange={(minimum) => onChange({ ...item, minimum })}
      />
      {say('to')}
      <NumberBox
        label={say('greatestValue')}
        value={item.maximum}
        blank={null}
        step="any"
        onChange={(maximum) => onChange({ ...item, maximum })}
      />
      <span className="w-40">
        <PlainInput
          label={say('whatIsCounted')}
          value={item.unit}
          placeholder={say('unitEGSources')}
          onChange={(unit) => onChange({ ...item, unit })}
        />
      </span>
      <Checkbox
        label={say('wholeNumbers')}
        checked={item.whole}
        onChange={({ target }) => onChange({ ...item, whole: target.checked })}
      />
    </div>
  );
}

export function ChoiceEditor({ item, readOnly, onChange }: KindEditorProps<ChoiceItem>) {
  const { options } = item;
  return (
    <div className="space-y-2">
      <PartList
        parts={options}
        part="option"
        least={2}
        most={MOST_PARTS}
        readOnly={readOnly}
        onAdd={() => onChange({ ...item, options: [...options, newOption()] })}
        onRemove={(id) => onChange({ ...item, options: options.filter((one) => one.id !== id) })}
        render={(option, number) => (
          <PlainInput
            label={say('optionOf', { number })}
            value={option.title}
            placeholder={say('optionOf', { number })}
            onChange={(title) =>
              onChange({ ...item, options: options.map((one) => (one.id === option.id ? { ...one, title } : one)) })
            }
          />
        )}
      />
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        <Checkbox
          label={say('severalMayBeChosen')}
          checked={item.multiple}
          onChange={({ target }) => onChange({ ...item, multiple: target.checked })}
        />
        <CommentSelect value={item.comment} onChange={(comment) => onChange({ ...item, comment })} />
      </div>
    </div>
  );
}
