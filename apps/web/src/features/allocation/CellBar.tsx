import { counted, pairKey, type Pair } from '@salt-circle/core';
import { Button, Key } from '../../kit/index.js';
import type { Model } from './model.js';

export interface CellBarProps {
  readonly model: Model;
  readonly pair: Pair;
  readonly carried: Pair | null;
  readonly preview: boolean;
  readonly onToggle: () => void;
  readonly onCarry: () => void;
  readonly onHold: () => void;
  readonly onApart: () => void;
}

/** What the cell is, and what can be done with it. */
export function CellBar({ model, pair, carried, preview, onToggle, onCarry, onHold, onApart }: CellBarProps) {
  const meeting = model.meeting(pair);
  const applied = model.applied.get(pairKey(pair));
  const given = meeting === 'given';
  const times = model.times.get(pairKey(pair)) ?? 0;
  const apart = model.isApart(pair);
  const words = {
    own: 'own draft',
    given: applied === undefined ? 'in this preview' : `allocated${applied.locked ? ', held' : ''}`,
    apart: 'kept apart',
    free: 'not allocated',
  }[meeting];
  return (
    <div className="mb-2 flex min-h-9 flex-wrap items-center gap-x-3 gap-y-1">
      <p id="matrix-cell" aria-live="polite" className="min-w-64 flex-1">
        <strong>{model.reviewerName(pair.reviewerId)}</strong> and the draft by{' '}
        <strong>{model.authorName(pair.draftId)}</strong>: {words}
        {times > 0 && `, met ${counted(times, 'once', '# times')} before`}.{' '}
        <span className="text-ink-soft">
          Writes {counted(model.given(pair.reviewerId), '1 review', '# reviews')}; the draft gets{' '}
          {model.load(pair.draftId)}.
        </span>
        {carried !== null && (
          <span className="text-copper">
            {' '}
            Carrying {model.reviewerName(carried.reviewerId)} with {model.authorName(carried.draftId)}; M puts it here.
          </span>
        )}
      </p>
      {meeting !== 'own' && (
        <span className="flex flex-wrap gap-1.5">
          {!preview && (given || meeting === 'free') && (
            <Button small onClick={onToggle}>
              {given ? 'Take away' : 'Add'} <Key>Enter</Key>
            </Button>
          )}
          {!preview && (given || carried !== null) && (
            <Button small onClick={onCarry}>
              {carried === null ? 'Move' : 'Put here'} <Key>M</Key>
            </Button>
          )}
          {!preview && given && (
            <Button small onClick={onHold}>
              {applied?.locked === true ? 'Let go' : 'Hold'} <Key>H</Key>
            </Button>
          )}
          <Button small onClick={onApart}>
            {apart ? 'Allow again' : 'Keep apart'} <Key>K</Key>
          </Button>
        </span>
      )}
    </div>
  );
}
