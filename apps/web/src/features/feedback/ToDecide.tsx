import type { ReactNode } from 'react';
import { labelWords } from '../../app/People.js';
import { Empty } from '../../kit/index.js';
import type { Remark } from './remarks.js';
import { say } from '../../words/feedback.js';

interface ToDecideProps {
  readonly open: readonly Remark[];
  readonly all: number;
  readonly show: (noteId: string) => ReactNode;
  readonly decide: (key: string) => ReactNode;
}

/** What is still to be decided: notes in the order of the draft, then next steps. */
export function ToDecide({ open, all, show, decide }: ToDecideProps) {
  if (open.length === 0) {
    return (
      <Empty title={all === 0 ? say('nothingHereAsksForDecision') : say('everythingIsDecided')}>
        {all > 0 && <p>{say('yourPlanOfChangesIs')}</p>}
      </Empty>
    );
  }
  return (
    <ul className="space-y-3 py-3">
      {open.map((remark) => (
        <li key={remark.key}>
          {remark.note !== null ? (
            show(remark.note.id)
          ) : (
            <div className="border-l-[3px] border-line px-2.5 py-1 text-sm">
              <p>
                <span className="font-semibold">{say('nextStep')}</span>{' '}
                <span className="text-ink-soft">
                  {say('ofItem', { reviewer: labelWords(remark.by), item: remark.itemTitle })}
                </span>
              </p>
              <p className="whitespace-pre-wrap">{remark.words}</p>
              {decide(remark.key)}
            </div>
          )}
        </li>
      ))}
    </ul>
  );
}
