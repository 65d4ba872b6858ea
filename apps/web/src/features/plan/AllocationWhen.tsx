import { wordsBy } from '@salt-circle/core';
import type { PlanView, ScheduleKind } from '@salt-circle/contracts';
import { useState } from 'react';
import { problemOf } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { DateInput } from '../../app/time/DateInput.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Select, TextField } from '../../kit/index.js';
import { useSetScheduleMutation } from './planApi.js';
import { say } from '../../words/plan.js';

const kindsOfAllocation = (): ReadonlyArray<readonly [ScheduleKind, string]> => [
  ['command', say('whenYouSaySoOn')],
  ['at-due', say('byThemselvesWhenDraftsAre')],
  ['at', say('byThemselvesAtSetTime')],
  ['nightly', say('everyNightAsDraftsCome')],
];
const HINTS: Readonly<Record<ScheduleKind, string>> = wordsBy(say, {
  command: 'nobodyHasDraftToReview',
  'at-due': 'appliedAtOnceIfEverybody',
  at: 'appliedAtOnceIfEverybody',
  nightly: 'reviewingIsOpenAsLong',
});

interface AllocationWhenProps {
  readonly plan: PlanView;
  readonly onUnmoved: (sentences: readonly string[]) => void;
}

/** What of it is set, apart from the count of its changes. */
const plain = ({ kind, at, party, patience }: PlanView['allocation']) => JSON.stringify([kind, at, party, patience]);

/** When drafts are allocated. It is saved by a step of its own: the Allocation page may be changing it as well. */
export function AllocationWhen({ plan, onUnmoved }: AllocationWhenProps) {
  const exchange = useExchange();
  const saved = plan.allocation;
  const [wanted, setWanted] = useState(saved);
  const want = (next: PlanView['allocation']) => {
    setWanted(next);
    onUnmoved(plain(next) === plain(saved) ? [] : [say('whenDraftsAreAllocatedIs')]);
  };
  const [set, { isLoading, error }] = useSetScheduleMutation();
  const fields = error === undefined ? [] : problemOf(error).fields;
  const wrong = (path: string) => fields.find((one) => one.path === path)?.sentence;
  const changed = plain(wanted) !== plain(saved);
  const number = (name: 'party' | 'patience', label: string) => (
    <TextField
      label={label}
      type="number"
      min={0}
      value={Number.isNaN(wanted[name]) ? '' : wanted[name]}
      problem={wrong(name)}
      onChange={({ target }) => want({ ...wanted, [name]: target.valueAsNumber })}
    />
  );
  const go = async () => {
    const { kind: schedule, at, party, patience } = wanted;
    const done = await set({ exchangeId: exchange.id, revision: saved.revision, schedule, at, party, patience });
    if (done.error === undefined) onUnmoved([]);
  };
  return (
    <div className="space-y-2">
      <Select
        label={say('draftsAreAllocated')}
        value={wanted.kind}
        options={kindsOfAllocation()}
        hint={HINTS[wanted.kind]}
        problem={wrong('schedule')}
        onChange={(kind) => want({ ...wanted, kind: kind as ScheduleKind })}
      />
      {wanted.kind === 'at' && (
        <DateInput
          label={say('at')}
          hint=""
          value={wanted.at}
          timeZone={exchange.course.timeZone}
          problem={wrong('at')}
          onChange={(at) => want({ ...wanted, at })}
        />
      )}
      {wanted.kind === 'nightly' && (
        <div className="grid grid-cols-2 gap-3">
          {number('party', say('fewestPeopleForRound'))}
          {number('patience', say('mostNightsToWait'))}
        </div>
      )}
      {changed && (
        <p className="flex flex-wrap items-center gap-3">
          <span className="text-copper">{say('notSetYet')}</span>
          <Button small look="primary" busy={isLoading} onClick={() => void go()}>
            {say('setWhenDraftsAreAllocated')}
          </Button>
          <Button small onClick={() => want(saved)}>
            {say('putBack')}
          </Button>
        </p>
      )}
      {error !== undefined && fields.length === 0 && <ProblemNotice error={error} />}
    </div>
  );
}
