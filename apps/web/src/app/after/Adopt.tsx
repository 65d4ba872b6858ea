import type { AdoptResult, DecisionsView, NotAdopted } from '@salt-circle/contracts';
import { counted } from '@salt-circle/core';
import { useState } from 'react';
import { Button } from '../../kit/index.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { useAdoptMutation, useUndoAdoptionMutation } from './afterApi.js';

export const NOT_ADOPTED: Readonly<Record<NotAdopted, string>> = {
  already: 'It has been put into your text already.',
  gone: 'Its passage is not in your text any more as it was, so it was not put in. Change the words by hand.',
  'no-text': 'It is not on a typed text, so it cannot be put in from here.',
  conflict: 'Another edit has changed the same words, so it was not put in.',
};

interface AdoptProps {
  readonly exchangeId: string;
  readonly noteId: string;
  readonly decisions: DecisionsView;
  /** Other notes that propose something for the same words. */
  readonly rivals: number;
}

/** Puts a proposed edit into the text that its author goes on with, and takes it out again. */
export function Adopt({ exchangeId, noteId, decisions, rivals }: AdoptProps) {
  const [adopt, adopting] = useAdoptMutation();
  const [undo, undoing] = useUndoAdoptionMutation();
  const [result, setResult] = useState<AdoptResult | null>(null);
  const adoption = decisions.adoptions.find((one) => one.noteId === noteId);
  const error = adopting.error ?? undoing.error;
  const why = result?.skipped.find((one) => one.noteId === noteId)?.why;
  const go = async () => setResult((await adopt({ exchangeId, noteIds: [noteId] })).data ?? null);
  return (
    <span className="text-sm">
      {adoption === undefined ? (
        decisions.mayAdopt && (
          <Button small busy={adopting.isLoading} onClick={() => void go()}>
            Adopt the edit
          </Button>
        )
      ) : (
        <>
          <span className="text-kelp">adopted</span>{' '}
          {adoption.undoable && decisions.mayAdopt && (
            <Button
              small
              look="quiet"
              busy={undoing.isLoading}
              onClick={() => void undo({ exchangeId, id: adoption.id })}
            >
              Take it out again
            </Button>
          )}
        </>
      )}
      {adoption === undefined && rivals > 0 && (
        <span className="block text-copper">
          {rivals === 1 ? 'Another edit' : `${rivals} other edits`} of the same words: adopt one of them.
        </span>
      )}
      {why !== undefined && (
        <span role="alert" className="block text-copper">
          {NOT_ADOPTED[why]}
        </span>
      )}
      {error !== undefined && <ProblemNotice error={error} />}
    </span>
  );
}

interface AdoptAllProps {
  readonly exchangeId: string;
  /** Notes whose edits nobody has adopted yet, and that no other edit of the same words stands against. */
  readonly noteIds: readonly string[];
}

/** Puts several proposed edits into the text at once, and says what was left out. */
export function AdoptAll({ exchangeId, noteIds }: AdoptAllProps) {
  const [adopt, { isLoading, error, data }] = useAdoptMutation();
  const left = data?.skipped.length ?? 0;
  if (noteIds.length < 2 && left === 0) return error === undefined ? null : <ProblemNotice error={error} />;
  return (
    <div className="no-print text-sm">
      {noteIds.length > 1 && (
        <Button small busy={isLoading} onClick={() => void adopt({ exchangeId, noteIds })}>
          Adopt all {noteIds.length} proposed edits
        </Button>
      )}
      {left > 0 && (
        <p role="alert" className="text-copper">
          {counted(left, 'One was', '# were')} not put in: the words are not in your text any more as they were.
        </p>
      )}
      {error !== undefined && <ProblemNotice error={error} />}
    </div>
  );
}
