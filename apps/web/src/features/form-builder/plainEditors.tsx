import type { ChoiceItem, NumberItem, PairItem } from '@salt-circle/core';
import { PAIR_WORDS } from '../../app/form/kinds.js';
import { Checkbox, NumberBox } from '../../kit/index.js';
import { newOption } from './items.js';
import { CommentSelect, MinimumWords, MOST_PARTS, type KindEditorProps } from './KindParts.js';
import { PartList } from './PartList.js';
import { PlainInput } from './PlainInput.js';

export function PairEditor({ item, onChange }: KindEditorProps<PairItem>) {
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

export function NumberEditor({ item, onChange }: KindEditorProps<NumberItem>) {
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

export function ChoiceEditor({ item, readOnly, onChange }: KindEditorProps<ChoiceItem>) {
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
