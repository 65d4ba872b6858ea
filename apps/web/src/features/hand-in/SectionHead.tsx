import type { Deliverable } from '@salt-circle/core';
import type { ReactNode } from 'react';
import { StateMark } from '../../kit/index.js';
import { say } from '../../words/hand-in.js';

export interface SectionHeadProps {
  readonly deliverable: Deliverable;
  readonly number: number;
  readonly filled: boolean;
  readonly aside?: ReactNode;
}

/** Which part of the hand-in this is, whether it is needed, and whether it is there. */
export function SectionHead({ deliverable, number, filled, aside }: SectionHeadProps) {
  const { title, required, description } = deliverable;
  return (
    <header className="mb-2">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h2 className="flex items-center gap-2 text-lg font-semibold">
          <StateMark
            state={filled ? 'done' : 'not-begun'}
            word={filled ? say('added') : required ? say('missing') : say('leftOut')}
          />
          {say('sectionTitle', { number, title })}
          <span className="text-sm font-normal text-ink-soft">
            {filled ? say('added') : required ? say('requiredStillMissing') : say('mayBeLeftOut')}
          </span>
        </h2>
        {aside}
      </div>
      {description !== '' && <p className="max-w-prose text-sm text-ink-soft">{description}</p>}
    </header>
  );
}
