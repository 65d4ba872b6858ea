import { useId, type InputHTMLAttributes, type ReactNode, type TextareaHTMLAttributes } from 'react';

const BOX = 'w-full rounded border bg-paper px-2.5 py-1.5 text-ink placeholder:text-ink-soft';

function boxClass(problem: string | undefined): string {
  return `${BOX} ${problem === undefined ? 'border-edge' : 'border-madder'}`;
}

interface FieldProps {
  readonly label: ReactNode;
  readonly hint?: ReactNode;
  /** What is wrong with the value, shown beside it. */
  readonly problem?: string | undefined;
  /** The label is there for screen readers only. */
  readonly labelHidden?: boolean;
}

interface FrameProps extends FieldProps {
  readonly id: string;
  readonly children: ReactNode;
}

/** Label above, remark and problem below, all tied to the control for screen readers. */
function FieldFrame({ id, label, hint, problem, labelHidden = false, children }: FrameProps) {
  return (
    <div>
      <label htmlFor={id} className={labelHidden ? 'sr-only' : 'mb-1 block font-medium'}>
        {label}
      </label>
      {children}
      {hint !== undefined && (
        <p id={`${id}-hint`} className="mt-1 text-sm text-ink-soft">
          {hint}
        </p>
      )}
      <p
        id={`${id}-problem`}
        role={problem === undefined ? undefined : 'alert'}
        className="text-sm text-madder empty:hidden"
      >
        {problem}
      </p>
    </div>
  );
}

function described(id: string, { hint, problem }: Pick<FieldProps, 'hint' | 'problem'>): string | undefined {
  const ids = [hint !== undefined && `${id}-hint`, problem !== undefined && `${id}-problem`].filter(Boolean);
  return ids.length === 0 ? undefined : ids.join(' ');
}

export function TextField({
  label,
  hint,
  problem,
  labelHidden,
  ...input
}: FieldProps & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId();
  return (
    <FieldFrame id={id} label={label} hint={hint} problem={problem} labelHidden={labelHidden ?? false}>
      <input
        {...input}
        id={id}
        aria-invalid={problem !== undefined || undefined}
        aria-describedby={described(id, { hint, problem })}
        className={boxClass(problem)}
      />
    </FieldFrame>
  );
}

/** Grows with its text. */
export function TextArea({
  label,
  hint,
  problem,
  labelHidden,
  ...area
}: FieldProps & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const id = useId();
  return (
    <FieldFrame id={id} label={label} hint={hint} problem={problem} labelHidden={labelHidden ?? false}>
      <textarea
        rows={2}
        {...area}
        id={id}
        aria-invalid={problem !== undefined || undefined}
        aria-describedby={described(id, { hint, problem })}
        className={`${boxClass(problem)} field-sizing-content min-h-16 resize-y`}
      />
    </FieldFrame>
  );
}

interface SelectProps extends FieldProps {
  readonly value: string;
  readonly options: ReadonlyArray<readonly [value: string, words: string]>;
  readonly onChange: (value: string) => void;
  readonly disabled?: boolean;
}

/** The system's own list: best with screen readers and on telephones. */
export function Select({ label, hint, problem, labelHidden, value, options, onChange, disabled }: SelectProps) {
  const id = useId();
  return (
    <FieldFrame id={id} label={label} hint={hint} problem={problem} labelHidden={labelHidden ?? false}>
      <select
        id={id}
        value={value}
        disabled={disabled}
        aria-describedby={described(id, { hint, problem })}
        onChange={(event) => onChange(event.target.value)}
        className={boxClass(problem)}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </FieldFrame>
  );
}

export function Checkbox({ label, ...input }: { readonly label: ReactNode } & InputHTMLAttributes<HTMLInputElement>) {
  return (
    <label className="inline-flex items-center gap-1.5">
      <input {...input} type="checkbox" className="size-4 accent-iodine" />
      {label}
    </label>
  );
}
