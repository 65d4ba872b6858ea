export interface PlainInputProps {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  readonly strong?: boolean;
  readonly autoFocus?: boolean;
  readonly onChange: (value: string) => void;
}

/** Looks like the text it edits, until one goes there. */
export function PlainInput({
  label,
  value,
  placeholder,
  strong = false,
  autoFocus = false,
  onChange,
}: PlainInputProps) {
  return (
    <textarea
      rows={1}
      aria-label={label}
      value={value}
      placeholder={placeholder}
      autoFocus={autoFocus}
      // One line: these are names and hints, and a line break in them would not be shown.
      onChange={(event) => onChange(event.target.value.replace(/\n/g, ' '))}
      className={`field-sizing-content block w-full resize-none rounded border border-transparent bg-transparent px-1.5 py-0.5 placeholder:font-normal placeholder:text-ink-soft placeholder:italic disabled:placeholder:text-transparent enabled:hover:border-line focus:border-edge focus:bg-paper ${strong ? 'font-semibold' : 'text-ink-soft focus:text-ink'}`}
    />
  );
}
