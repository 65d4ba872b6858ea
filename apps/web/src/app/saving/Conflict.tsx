import type { Problem } from '@salt-circle/contracts';
import type { ReactNode } from 'react';
import { Button, Notice } from '../../kit/index.js';
import { saveQueue } from '../store.js';
import { say } from '../../words/app.js';

export interface ConflictProps {
  readonly saveKey: string;
  readonly problem: Problem;
  /** Of what the server holds. */
  readonly revision: number;
  /** What the server holds, to look at. */
  readonly theirs: ReactNode;
  readonly onTake: () => void;
  /** For what can stand one below the other. */
  readonly onBoth?: () => void;
}

/** The same was changed in two places: both are shown, somebody chooses, nothing is overwritten before. */
export function Conflict({ saveKey, problem, revision, theirs, onTake, onBoth }: ConflictProps) {
  const giveWay = () => saveQueue.takeTheirs(saveKey, revision);
  return (
    <div className="my-2">
      <Notice tone="problem" title={problem.sentence}>
        <p>{problem.whatToDo}</p>
        <div className="my-2 max-h-40 overflow-y-auto border-l-2 border-line pl-3">
          <p className="text-sm text-ink-soft">{say('savedElsewhere')}</p>
          {theirs}
        </div>
        <div className="flex flex-wrap gap-2">
          <Button small onClick={() => saveQueue.keepMine(saveKey, revision)}>
            {say('keepWhatIsHere')}
          </Button>
          <Button
            small
            onClick={() => {
              giveWay();
              onTake();
            }}
          >
            {say('takeOtherOne')}
          </Button>
          {onBoth !== undefined && (
            <Button
              small
              onClick={() => {
                giveWay();
                onBoth();
              }}
            >
              {say('keepBothOtherOneBelow')}
            </Button>
          )}
        </div>
      </Notice>
    </div>
  );
}
