import type { CommentRule, FormItem } from '@salt-circle/core';
import { NumberBox } from '../../kit/index.js';
import { say } from '../../words/form-builder.js';

export interface KindEditorProps<Item = FormItem> {
  readonly item: Item;
  readonly readOnly: boolean;
  readonly onChange: (item: FormItem) => void;
}

export const MOST_PARTS = 30;

/** The least number of words of a text. */
export function MinimumWords({
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
      {say('atLeastLabel')}
      <NumberBox
        label={say('leastNumberOfWords')}
        value={value}
        blank={0}
        min={0}
        max={2000}
        onChange={(next) => onChange(next ?? 0)}
      />
      {each ? say('wordsInEach') : say('words')}
    </p>
  );
}

const commentRules = (): ReadonlyArray<readonly [CommentRule, string]> => [
  ['none', say('noReasonAskedFor')],
  ['optional', say('reasonMayBeGiven')],
  ['required', say('reasonMustBeGiven')],
];

interface CommentSelectProps {
  readonly value: CommentRule;
  readonly onChange: (value: CommentRule) => void;
}

/** Whether a reason is asked for beside a choice. */
export function CommentSelect({ value, onChange }: CommentSelectProps) {
  return (
    <label className="flex items-center gap-2">
      <span className="sr-only">{say('reason')}</span>
      <select
        value={value}
        onChange={(event) => onChange(event.target.value as CommentRule)}
        className="rounded border border-line bg-paper px-2 py-0.5"
      >
        {commentRules().map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}
