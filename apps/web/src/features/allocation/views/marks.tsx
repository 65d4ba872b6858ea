import type { BoardPair } from '@salt-circle/contracts';
import { MARK_COLOURS, MarkShape } from '../../../kit/index.js';
import type { Meeting } from '../model.js';
import { say } from '../../../words/allocation.js';

interface CellMarkProps {
  readonly meeting: Meeting;
  readonly applied: BoardPair | undefined;
  /** The two have met in an earlier exchange. */
  readonly met: boolean;
  readonly size: number;
}

/** A shape for each thing that can be where a reviewer and a draft meet. */
export function CellMark({ meeting, applied, met, size }: CellMarkProps) {
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true">
      <Shape meeting={meeting} applied={applied} met={met} />
    </svg>
  );
}

/** 0 to 1, of what must be answered. */
export function doneOf(applied: Pick<BoardPair, 'answered' | 'required'> | undefined): number {
  return applied === undefined || applied.required === 0 ? 0.5 : applied.answered / applied.required;
}

function Shape({ meeting, applied, met }: Omit<CellMarkProps, 'size'>) {
  switch (meeting) {
    case 'own':
      return <path d="M1 15 L15 1" strokeWidth="2" className="stroke-line" />;
    case 'apart':
      return <path d="M3 3 L13 13 M13 3 L3 13" strokeWidth="2.6" className="stroke-madder" />;
    case 'free':
      return met ? (
        <path d="M8 3.5 L12.5 8 L8 12.5 L3.5 8 Z" fill="none" strokeWidth="1.6" className="stroke-saffron" />
      ) : null;
    case 'given': {
      const begun = applied !== undefined && applied.state !== 'not-begun';
      const state = !begun ? 'not-begun' : applied.state === 'submitted' ? 'done' : 'in-progress';
      return (
        <>
          <g className={MARK_COLOURS[state]}>
            <MarkShape state={state} share={doneOf(applied)} />
          </g>
          {applied?.locked === true && <path d="M0 0 H5.5 L0 5.5 Z" className="fill-iodine" />}
          {met && <path d="M16 10.5 V16 H10.5 Z" className="fill-saffron" />}
        </>
      );
    }
  }
}

const PAIR = {
  reviewerId: '',
  draftId: '',
  reviewId: '',
  locked: false,
  self: false,
  answered: 1,
  required: 2,
  notes: 0,
} as const;
const legend = (): ReadonlyArray<readonly [string, Omit<CellMarkProps, 'size'>]> => [
  [say('allocatedMark'), { meeting: 'given', applied: undefined, met: false }],
  [say('begunMark'), { meeting: 'given', applied: { ...PAIR, state: 'in-progress' }, met: false }],
  [say('submittedMark'), { meeting: 'given', applied: { ...PAIR, state: 'submitted' }, met: false }],
  [say('heldMark'), { meeting: 'given', applied: { ...PAIR, state: 'not-begun', locked: true }, met: false }],
  [say('keptApart'), { meeting: 'apart', applied: undefined, met: false }],
  [say('metBefore'), { meeting: 'free', applied: undefined, met: true }],
  [say('ownDraft'), { meeting: 'own', applied: undefined, met: false }],
];

export function MarkLegend() {
  return (
    <ul className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-sm text-ink-soft" aria-label={say('marks')}>
      {legend().map(([words, mark]) => (
        <li key={words} className="flex items-center gap-1.5">
          <CellMark {...mark} size={14} /> {words}
        </li>
      ))}
    </ul>
  );
}
