import type { AnswerView } from '@salt-circle/contracts';
import type { FormItem } from '@salt-circle/core';
import { Conflict } from '../saving/Conflict.js';
import { useSavingState } from '../saving/useSaving.js';
import { AnswerWords } from './AnswerWords.js';

interface SaveTroubleProps {
  /** Undefined for the overall comment. */
  readonly item: FormItem | undefined;
  readonly saveKey: string;
  readonly onReplace: (theirs: AnswerView | null) => void;
}

/** Below an answer that is not saved: why, or what somebody else has saved in the meantime, to choose from. */
export function SaveTrouble({ item, saveKey, onReplace }: SaveTroubleProps) {
  const { state, problem } = useSavingState(saveKey);
  if (problem === null) return null;
  if (state === 'refused') {
    return (
      <p className="text-sm text-madder" role="alert">
        {problem.sentence}
      </p>
    );
  }
  if (state !== 'conflict') return null;
  const theirs = problem.current as AnswerView | null | undefined;
  return (
    <Conflict
      saveKey={saveKey}
      problem={problem}
      revision={theirs?.revision ?? 0}
      theirs={<AnswerWords item={item} answer={theirs ?? undefined} />}
      onTake={() => onReplace(theirs ?? null)}
    />
  );
}
