import type { DecisionView } from '@salt-circle/contracts';
import { LIMITS } from '@salt-circle/contracts/plain';
import { DECISIONS, type DecisionKind, wordsBy } from '@salt-circle/core';
import { useState, type KeyboardEvent, type ReactNode } from 'react';
import { Button, Checkbox, TextField } from '../../kit/index.js';
import { isTyping } from '../boards/Walk.js';
import { selectSingleKeys } from '../layoutSlice.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { useAppSelector } from '../store.js';
import { useDecideMutation } from './afterApi.js';
import { say } from '../../words/app.js';

export const DECISION_WORDS: Readonly<Record<DecisionKind, string>> = wordsBy(say, {
  'will-change': 'willChange',
  there: 'alreadyThere',
  'will-not': 'willNot',
  'not-sure': 'notSureYet',
});

export interface DecideProps {
  readonly exchangeId: string;
  /** See `decisionKey`. */
  readonly of: string;
  readonly decision: DecisionView | null;
  /** A tick for what is to be changed. */
  readonly ticks?: boolean;
  /** Beside the decision. */
  readonly children?: ReactNode;
}

/** What its author decides about a remark: by a press, or, with the focus on it, by 1 to 4. */
export function Decide({ exchangeId, of, decision, ticks = false, children }: DecideProps) {
  const [decide, { error, isLoading }] = useDecideMutation();
  const singleKeys = useAppSelector(selectSingleKeys);
  const known = decision ?? { decision: null, why: '', done: false, revision: 0 };
  const [why, setWhy] = useState(known.why);
  const set = (part: Partial<Pick<DecisionView, 'decision' | 'why' | 'done'>>) =>
    void decide({
      ...{ exchangeId, key: of, decision: known.decision, why: known.why, done: known.done },
      ...{ revision: known.revision, ...part },
    });
  const choose = (kind: DecisionKind) => {
    if (isLoading) return;
    const next = known.decision === kind ? null : kind;
    set({ decision: next, done: next === 'will-change' && known.done });
  };
  const onKey = (event: KeyboardEvent) => {
    const kind = DECISIONS[Number(event.key) - 1];
    if (!singleKeys || kind === undefined || event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target))
      return;
    event.preventDefault();
    choose(kind);
  };
  return (
    <div className="no-print mt-1.5 text-sm" onKeyDown={onKey}>
      <div role="group" aria-label={say('whatYouDecide')} className="flex flex-wrap items-center gap-1.5">
        {DECISIONS.map((kind, index) => (
          <Button
            key={kind}
            small
            aria-pressed={known.decision === kind}
            title={singleKeys ? String(index + 1) : undefined}
            className="aria-pressed:border-iodine aria-pressed:font-semibold"
            onClick={() => choose(kind)}
          >
            {DECISION_WORDS[kind]}
          </Button>
        ))}
        {ticks && known.decision === 'will-change' && (
          <Checkbox label={say('done')} checked={known.done} onChange={({ target }) => set({ done: target.checked })} />
        )}
        {children}
      </div>
      {(known.decision === 'will-not' || known.why !== '') && (
        <TextField
          label={say('why')}
          value={why}
          maxLength={LIMITS.guidance}
          hint={say('optionalForYourselfAndYour')}
          onChange={({ target }) => setWhy(target.value)}
          onBlur={() => why !== known.why && set({ why })}
        />
      )}
      {error !== undefined && <ProblemNotice error={error} />}
    </div>
  );
}
