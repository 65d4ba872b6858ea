import { exactly } from '@salt-circle/core';
import { useId, useState } from 'react';
import { useNow } from './useNow.js';
import { readLocal, toLocal } from './localDate.js';
import { say } from '../../words/app.js';

export interface DateInputProps {
  readonly label: string;
  readonly labelHidden?: boolean;
  readonly value: string | null;
  readonly timeZone: string;
  /** Beside the field: what a blank means, or how long it is until then. */
  readonly hint: string;
  readonly problem?: string | undefined;
  /** May be meant, but should be looked at. */
  readonly remark?: string | undefined;
  readonly onChange: (iso: string | null) => void;
}

/** A date and time in a time zone, hours that clocks skip or go through twice included. */
export function DateInput({
  label,
  labelHidden = false,
  value,
  timeZone,
  hint,
  problem,
  remark,
  onChange,
}: DateInputProps) {
  const id = useId();
  const now = useNow();
  /** A reading that means no instant, kept in the field until it is mended. */
  const [unreal, setUnreal] = useState<string | null>(null);
  const local = unreal ?? toLocal(value, timeZone);
  const reading = readLocal(local, timeZone);
  const type = (text: string) => {
    const next = readLocal(text, timeZone);
    setUnreal(next.kind === 'never' ? text : null);
    if (next.kind === 'never') return;
    onChange(next.kind === 'empty' ? null : next.kind === 'once' ? next.iso : next.isos[0]);
  };
  const skipped = reading.kind === 'never';
  const wrong = skipped
    ? say('clocksInSkipOnThat', { place: place(timeZone), local: local.slice(11), next: reading.next.slice(11) })
    : problem;
  return (
    <div className="grid grid-cols-1 items-center gap-x-4 gap-y-1 sm:grid-cols-[9.5rem_14rem_1fr]">
      <label htmlFor={id} className={labelHidden ? 'sr-only' : ''}>
        {label}
      </label>
      <input
        id={id}
        type="datetime-local"
        max="2099-12-31T23:59"
        value={local}
        onChange={(event) => type(event.target.value)}
        aria-invalid={wrong !== undefined || undefined}
        aria-describedby={`${id}-about`}
        className={`rounded border bg-paper px-2.5 py-1.5 ${wrong === undefined ? 'border-edge' : 'border-madder'}`}
      />
      <div id={`${id}-about`} className="text-sm">
        <p
          role={wrong === undefined ? undefined : 'alert'}
          className={wrong === undefined ? 'text-ink-soft' : 'text-madder'}
        >
          {wrong ?? hint}
        </p>
        {remark !== undefined && <p className="text-saffron">{remark}</p>}
        {reading.kind === 'twice' && (
          <label className="flex items-center gap-2 text-saffron">
            {say('clocksShowThisTimeTwice')}
            <select
              value={value ?? ''}
              onChange={(event) => onChange(event.target.value)}
              className="rounded border border-line bg-paper px-1 text-ink"
            >
              {reading.isos.map((iso, index) => (
                <option key={iso} value={iso}>
                  {say(index === 0 ? 'firstOfTwo' : 'secondOfTwo', { when: exactly(Date.parse(iso), timeZone, now) })}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
    </div>
  );
}

/** "Europe/Tallinn" as "Tallinn". */
function place(timeZone: string): string {
  return (timeZone.split('/').at(-1) ?? timeZone).replaceAll('_', ' ');
}
