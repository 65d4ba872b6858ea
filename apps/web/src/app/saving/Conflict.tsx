import type { Problem } from '@salt-circle/contracts';
import type { ReactNode } from 'react';
import { Button, Notice } from '../../kit/index.js';
import { saveQueue } from '../store.js';

export interface ConflictProps {
  readonly saveKey: string;
  readonly problem: Problem;
  /** Of what the server holds. */
  readonly revision: number;
  /** What the server holds, to look at. */
  readonly theirs: ReactNode;
  readonly onTake: () => void;
}

/** Two tabs changed the same: both are shown, somebody chooses, nothing is overwritten before. */
export function Conflict({ saveKey, problem, revision, theirs, onTake }: ConflictProps) {
  return (
    <div className="my-2">
      <Notice tone="problem" title={problem.sentence}>
        <p>{problem.whatToDo}</p>
        <div className="my-2 max-h-40 overflow-y-auto border-l-2 border-line pl-3">
          <p className="text-sm text-ink-soft">Saved elsewhere:</p>
          {theirs}
        </div>
        <div className="flex gap-2">
          <Button small onClick={() => saveQueue.keepMine(saveKey, revision)}>
            Keep what is here
          </Button>
          <Button
            small
            onClick={() => {
              saveQueue.takeTheirs(saveKey, revision);
              onTake();
            }}
          >
            Take the other one
          </Button>
        </div>
      </Notice>
    </div>
  );
}
