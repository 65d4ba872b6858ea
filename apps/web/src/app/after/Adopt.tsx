import { wordsBy } from '@salt-circle/core';
import type { AdoptResult, DecisionsView, NotAdopted } from '@salt-circle/contracts';
import { useState } from 'react';
import { Button } from '../../kit/index.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { useAdoptMutation, useUndoAdoptionMutation } from './afterApi.js';
import { say } from '../../words/app.js';

export const NOT_ADOPTED: Readonly<Record<NotAdopted, string>> = wordsBy(say, {
  already: 'itHasBeenPutInto',
  gone: 'itsPassageIsNotIn',
  'no-text': 'itIsNotOnTyped',
  conflict: 'anotherEditHasChangedSame',
});

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
            {say('adoptEdit')}
          </Button>
        )
      ) : (
        <>
          <span className="text-kelp">{say('adopted')}</span>{' '}
          {adoption.undoable && decisions.mayAdopt && (
            <Button
              small
              look="quiet"
              busy={undoing.isLoading}
              onClick={() => void undo({ exchangeId, id: adoption.id })}
            >
              {say('takeItOutAgain')}
            </Button>
          )}
        </>
      )}
      {adoption === undefined && rivals > 0 && (
        <span className="block text-copper">
          {rivals === 1 ? say('anotherEditOfSameWords') : say('otherEditsOfSameWords', { rivals })}
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
          {say('adoptAllProposedEdits', { noteIds: noteIds.length })}
        </Button>
      )}
      {left > 0 && (
        <p role="alert" className="text-copper">
          {say('wereNotPutInWords', { left })}
        </p>
      )}
      {error !== undefined && <ProblemNotice error={error} />}
    </div>
  );
}
