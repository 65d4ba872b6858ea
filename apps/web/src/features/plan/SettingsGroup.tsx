import { useId, useState, type ReactNode } from 'react';
import { say } from '../../words/plan.js';

export interface SettingsGroupProps {
  readonly title: string;
  /** One line that says what is set, shown while folded. */
  readonly summary: ReactNode;
  readonly startOpen?: boolean;
  readonly children: ReactNode;
}

export function SettingsGroup({ title, summary, startOpen = false, children }: SettingsGroupProps) {
  const [open, setOpen] = useState(startOpen);
  const id = useId();
  return (
    <section className="border-b border-line py-3">
      <h3>
        {/* A div, because a disabled fieldset would disable a button, and folding is no change. */}
        <div
          role="button"
          tabIndex={0}
          aria-expanded={open}
          aria-controls={id}
          onClick={() => setOpen(!open)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' && event.key !== ' ') return;
            event.preventDefault();
            setOpen(!open);
          }}
          className="grid w-full grid-cols-[1fr_auto] gap-x-4 text-left sm:grid-cols-[10rem_1fr_auto]"
        >
          <span className="font-semibold">{title}</span>
          <span className="order-last col-span-2 font-normal text-ink-soft sm:order-none sm:col-span-1">
            {open ? '' : summary}
          </span>
          <span className="text-sm text-ink-soft">{open ? say('fold') : say('open')}</span>
        </div>
      </h3>
      <div id={id} hidden={!open} className="mt-3 space-y-4">
        {open && children}
      </div>
    </section>
  );
}
