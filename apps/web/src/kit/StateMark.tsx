import { wordsBy } from '@salt-circle/core';
import { say } from '../words/kit.js';

export type MarkState = 'not-begun' | 'in-progress' | 'done' | 'late' | 'excused';

const WORDS: Readonly<Record<MarkState, string>> = wordsBy(say, {
  'not-begun': 'notBegun',
  'in-progress': 'inProgress',
  done: 'done',
  late: 'late',
  excused: 'excused',
});

export const MARK_COLOURS: Readonly<Record<MarkState, string>> = {
  'not-begun': 'text-ink-soft',
  'in-progress': 'text-copper',
  done: 'text-kelp',
  late: 'text-madder',
  excused: 'text-ink-soft',
};

export interface StateMarkProps {
  readonly state: MarkState;
  /** Share done, 0 to 1, of what is in progress. */
  readonly share?: number;
  /** Said instead of the general word, e.g. "7 of 11". */
  readonly word?: string;
  /** The word stands beside the mark already. */
  readonly wordHidden?: boolean;
  readonly size?: number;
}

/** One of the five states of work: a shape, a colour and a word, the same everywhere. */
export function StateMark({ state, share = 0, word = WORDS[state], wordHidden = true, size = 14 }: StateMarkProps) {
  return (
    <span className={`inline-flex items-center gap-1.5 ${MARK_COLOURS[state]}`} title={wordHidden ? word : undefined}>
      <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true" className="shrink-0">
        <MarkShape state={state} share={share} />
      </svg>
      <span className={wordHidden ? 'sr-only' : state === 'done' || state === 'not-begun' ? 'text-ink-soft' : ''}>
        {word}
      </span>
    </span>
  );
}

/** The shape alone, in a box of 16 by 16, for pictures that draw many of them. */
export function MarkShape({ state, share }: { readonly state: MarkState; readonly share: number }) {
  const ring = <circle cx="8" cy="8" r="6.6" fill="none" stroke="currentColor" strokeWidth="1.6" />;
  switch (state) {
    case 'not-begun':
      return ring;
    case 'in-progress':
      return (
        <>
          {ring}
          <path d={sector(Math.min(Math.max(share, 0.06), 0.94))} fill="currentColor" />
        </>
      );
    case 'done':
      return <circle cx="8" cy="8" r="7.4" fill="currentColor" />;
    case 'late':
      return <path d="M8 8 L8 0.6 A7.4 7.4 0 1 0 15.4 8 Z" fill="currentColor" />;
    case 'excused':
      return (
        <>
          {ring}
          <path d="M3.4 12.6 L12.6 3.4" stroke="currentColor" strokeWidth="1.6" />
        </>
      );
  }
}

/** A slice of the disc, clockwise from the top. */
function sector(share: number): string {
  const angle = share * 2 * Math.PI;
  const x = 8 + 6.6 * Math.sin(angle);
  const y = 8 - 6.6 * Math.cos(angle);
  return `M8 8 L8 1.4 A6.6 6.6 0 ${share > 0.5 ? 1 : 0} 1 ${x.toFixed(3)} ${y.toFixed(3)} Z`;
}
