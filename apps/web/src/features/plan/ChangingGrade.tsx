import type { GradePart } from '@salt-circle/core';
import { useState } from 'react';
import { problemOf } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Checkbox } from '../../kit/index.js';
import { GradeParts } from '../../app/GradeParts.js';
import { tellWords, useSetRulesMutation } from './planApi.js';
import { say } from '../../words/plan.js';

interface ChangingGradeProps {
  readonly parts: readonly GradePart[];
  readonly students: number;
  readonly readOnly: boolean;
  readonly onUnmoved: (sentences: readonly string[]) => void;
}

/** The parts of the grade once students have been told of them: changed by a step of their own, with a notice. */
export function ChangingGrade({ parts, students, readOnly, onUnmoved }: ChangingGradeProps) {
  const exchange = useExchange();
  const [wanted, setWanted] = useState(parts);
  const [tell, setTell] = useState(true);
  const [set, { isLoading, error }] = useSetRulesMutation();
  const want = (next: readonly GradePart[]) => {
    setWanted(next);
    onUnmoved(JSON.stringify(next) === JSON.stringify(parts) ? [] : [say('partsOfGradeAreNot')]);
  };
  const go = async () => {
    const done = await set({ exchangeId: exchange.id, gradeParts: wanted, tell });
    if (done.error === undefined) onUnmoved([]);
  };
  const changed = JSON.stringify(wanted) !== JSON.stringify(parts);
  const fields = error === undefined ? [] : problemOf(error).fields;
  return (
    <>
      <GradeParts
        parts={wanted}
        problemAt={(path) => fields.find((one) => one.path === path)?.sentence}
        onChange={want}
      />
      {changed && !readOnly && (
        <div className="mt-3 flex flex-wrap items-center gap-3 border-t border-line pt-3">
          <p className="text-copper">{say('notChangedYetStudentsRead')}</p>
          <Checkbox label={tellWords(students)} checked={tell} onChange={({ target }) => setTell(target.checked)} />
          <Button look="primary" small busy={isLoading} onClick={() => void go()}>
            {say('changeGrade')}
          </Button>
          <Button small onClick={() => want(parts)}>
            {say('putBack')}
          </Button>
        </div>
      )}
      {error !== undefined && fields.length === 0 && <ProblemNotice error={error} />}
    </>
  );
}
