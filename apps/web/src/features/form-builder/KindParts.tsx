import type { CommentRule, FormItem } from '@salt-circle/core';
import { NumberBox } from '../../kit/index.js';

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
      At least
      <NumberBox
        label="Least number of words"
        value={value}
        blank={0}
        min={0}
        max={2000}
        onChange={(next) => onChange(next ?? 0)}
      />
      words{each && ' in each'}
    </p>
  );
}

const COMMENTS: ReadonlyArray<readonly [CommentRule, string]> = [
  ['none', 'no reason asked for'],
  ['optional', 'a reason may be given'],
  ['required', 'a reason must be given'],
];

interface CommentSelectProps {
  readonly value: CommentRule;
  readonly onChange: (value: CommentRule) => void;
}

/** Whether a reason is asked for beside a choice. */
export function CommentSelect({ value, onChange }: CommentSelectProps) {
  return (
    <label className="flex items-center gap-2">
      <span className="sr-only">Reason</span>
      <select
        value={value}
        onChange={(event) => onChange(event.target.value as CommentRule)}
        className="rounded border border-line bg-paper px-2 py-0.5"
      >
        {COMMENTS.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}
