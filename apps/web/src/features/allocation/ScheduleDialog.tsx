import type { AllocationView, Problem, ScheduleKind, WishesView } from '@salt-circle/contracts';
import { NIGHTLY_HOUR } from '@salt-circle/core';
import { useState } from 'react';
import { problemOf } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { DateInput } from '../../app/time/DateInput.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Dialog, TextField } from '../../kit/index.js';
import { useSetAllocationPlanMutation } from './allocationApi.js';
import { asBody } from './Wishes.js';
import { say } from '../../words/allocation.js';

const kindsOfSchedule = (): ReadonlyArray<readonly [ScheduleKind, string, string]> => [
  ['command', say('onlyWhenISaySo'), say('youLookAtPreviewAnd')],
  ['at-due', say('whenDraftsAreDue'), say('appliedAtOnceIfEverybody')],
  ['at', say('atSetTime'), say('sameAtTimeOfYour')],
  ['nightly', say('everyNight'), say('at00ThoseWhoHave', { nightlyhour: NIGHTLY_HOUR })],
];

/** When drafts are allocated without anybody being there. */
export function ScheduleDialog({
  view,
  wishes,
  onClose,
}: {
  readonly view: AllocationView;
  /** As they stand beside the board: planned runs go by them. */
  readonly wishes: WishesView;
  readonly onClose: () => void;
}) {
  const exchange = useExchange();
  const { schedule } = view;
  const [kind, setKind] = useState<ScheduleKind>(schedule.kind);
  const [at, setAt] = useState<string | null>(schedule.at);
  const [party, setParty] = useState(String(schedule.party));
  const [patience, setPatience] = useState(String(schedule.patience));
  const [problem, setProblem] = useState<Problem | null>(null);
  const [save, { isLoading }] = useSetAllocationPlanMutation();
  const put = async () => {
    const { revision } = view;
    const answer = await save({
      id: exchange.id,
      revision,
      wishes: asBody(wishes),
      schedule: kind,
      at: kind === 'at' ? at : null,
      party: Number(party),
      patience: Number(patience),
    });
    if (answer.error === undefined) onClose();
    else setProblem(problemOf(answer.error));
  };
  const wrong = (path: string) => problem?.fields.find((field) => field.path === path)?.sentence;
  return (
    <Dialog open onClose={onClose} title={say('whenDraftsAreAllocatedLabel')}>
      <div className="space-y-4">
        <fieldset className="space-y-2">
          <legend className="sr-only">{say('when')}</legend>
          {kindsOfSchedule().map(([value, words, about]) => (
            <label key={value} className="flex gap-2">
              <input
                type="radio"
                name="schedule"
                className="mt-1 size-4 shrink-0 accent-iodine"
                checked={kind === value}
                onChange={() => setKind(value)}
              />
              <span>
                <span className="font-medium">{words}</span>
                <span className="block text-sm text-ink-soft">{about}</span>
              </span>
            </label>
          ))}
        </fieldset>
        {kind === 'at' && (
          <DateInput
            label={say('time')}
            hint=""
            value={at}
            timeZone={exchange.course.timeZone}
            problem={wrong('at')}
            onChange={setAt}
          />
        )}
        {kind === 'nightly' && (
          <div className="grid grid-cols-2 gap-3">
            <TextField
              label={say('fewestPeopleForRound')}
              inputMode="numeric"
              value={party}
              problem={wrong('party')}
              onChange={({ target }) => setParty(target.value)}
            />
            <TextField
              label={say('mostNightsToWait')}
              inputMode="numeric"
              value={patience}
              problem={wrong('patience')}
              onChange={({ target }) => setPatience(target.value)}
            />
          </div>
        )}
        {kind !== 'command' && <p className="text-sm text-ink-soft">{say('itGoesByWishesBeside')}</p>}
        {problem !== null && problem.fields.length === 0 && <ProblemNotice error={problem} />}
        <Button look="primary" busy={isLoading} onClick={() => void put()}>
          {say('save')}
        </Button>
      </div>
    </Dialog>
  );
}
