import { pairKey, type Pair } from '@salt-circle/core';
import { Button, Key } from '../../../kit/index.js';
import type { Model } from '../model.js';
import { say } from '../../../words/allocation.js';

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
    own: say('ownDraft'),
    given: applied === undefined ? say('inThisPreview') : applied.locked ? say('allocatedHeld') : say('allocated'),
    apart: say('keptApart'),
    free: say('notAllocated'),
  }[meeting];
  return (
    <div className="mb-2 flex min-h-9 flex-wrap items-center gap-x-3 gap-y-1">
      <p id="matrix-cell" aria-live="polite" className="min-w-64 flex-1">
        {times > 0
          ? say('andDraftByMetTimes', {
              strong: <strong>{model.reviewerName(pair.reviewerId)}</strong>,
              strong2: <strong>{model.authorName(pair.draftId)}</strong>,
              words,
              times,
              given: model.given(pair.reviewerId),
              load: model.load(pair.draftId),
              span: (words) => <span className="text-ink-soft">{words}</span>,
            })
          : say('andDraftByWritesReviews', {
              strong: <strong>{model.reviewerName(pair.reviewerId)}</strong>,
              strong2: <strong>{model.authorName(pair.draftId)}</strong>,
              words,
              given: model.given(pair.reviewerId),
              load: model.load(pair.draftId),
              span: (words) => <span className="text-ink-soft">{words}</span>,
            })}
        {carried !== null && (
          <span className="text-copper">
            {' '}
            {say('carryingWithMPutsIt', {
              reviewerName: model.reviewerName(carried.reviewerId),
              authorName: model.authorName(carried.draftId),
            })}
          </span>
        )}
      </p>
      {meeting !== 'own' && (
        <span className="flex flex-wrap gap-1.5">
          {!preview && (given || meeting === 'free') && (
            <Button small onClick={onToggle}>
              {given ? say('takeAway') : say('add')} <Key>{say('enter')}</Key>
            </Button>
          )}
          {!preview && (given || carried !== null) && (
            <Button small onClick={onCarry}>
              {carried === null ? say('move') : say('putHere')} <Key>M</Key>
            </Button>
          )}
          {!preview && given && (
            <Button small onClick={onHold}>
              {applied?.locked === true ? say('letGo') : say('hold')} <Key>H</Key>
            </Button>
          )}
          <Button small onClick={onApart}>
            {apart ? say('allowAgain') : say('keepApart')} <Key>K</Key>
          </Button>
        </span>
      )}
    </div>
  );
}
