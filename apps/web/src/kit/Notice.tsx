import type { ReactNode } from 'react';
import { say } from '../words/kit.js';

type Tone = 'plain' | 'soon' | 'waiting' | 'problem' | 'done';

const TONES: Readonly<Record<Tone, string>> = {
  plain: 'border-dusk bg-crust',
  soon: 'border-saffron bg-saffron-ground',
  waiting: 'border-copper bg-crust',
  problem: 'border-madder bg-crust',
  done: 'border-kelp bg-crust',
};

/** A message with a bar at its side. Problems are announced at once, everything else politely. */
export function Notice({
  tone = 'plain',
  title,
  children,
}: {
  readonly tone?: Tone;
  readonly title?: ReactNode;
  readonly children?: ReactNode;
}) {
  return (
    <div role={tone === 'problem' ? 'alert' : 'status'} className={`border-l-[3px] px-3 py-2 ${TONES[tone]}`}>
      {title !== undefined && <p className="font-medium">{title}</p>}
      {children}
    </div>
  );
}

/** What will be here, and the one step that fills it. */
export function Empty({ title, children }: { readonly title: string; readonly children?: ReactNode }) {
  return (
    <div className="max-w-prose py-10">
      <p className="text-lg font-medium">{title}</p>
      <div className="mt-1 space-y-3 text-ink-soft">{children}</div>
    </div>
  );
}

export function Loading({ what }: { readonly what: string }) {
  return (
    <p role="status" className="breathing p-5 text-ink-soft">
      {say('loading', { what })}
    </p>
  );
}
