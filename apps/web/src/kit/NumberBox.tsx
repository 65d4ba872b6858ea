export interface NumberBoxProps {
  readonly label: string;
  readonly value: number | null;
  /** What an empty box, or one that holds no number, means: null is passed on, or taken as this number. */
  readonly blank: number | null;
  readonly min?: number;
  readonly max?: number;
  readonly step?: number | 'any';
  readonly strong?: boolean;
  readonly onChange: (value: number | null) => void;
}

/** A small box for a number among words. */
export function NumberBox({ label, value, blank, min, max, step = 1, strong = false, onChange }: NumberBoxProps) {
  return (
    <input
      type="number"
      aria-label={label}
      min={min}
      max={max}
      step={step}
      value={Number.isFinite(value) ? (value ?? '') : ''}
      onChange={({ target }) => onChange(Number.isNaN(target.valueAsNumber) ? blank : target.valueAsNumber)}
      className={`w-18 rounded border border-edge bg-paper px-1.5 py-0.5 ${strong ? 'font-semibold' : ''}`}
    />
  );
}
