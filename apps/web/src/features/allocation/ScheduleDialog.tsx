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

const KINDS: ReadonlyArray<readonly [ScheduleKind, string, string]> = [
  ['command', 'Only when I say so', 'You look at a preview and apply it.'],
  [
    'at-due',
    'When drafts are due',
    'Applied at once, if everybody can be placed evenly. Otherwise nothing is applied, and you are told.',
  ],
  ['at', 'At a set time', 'The same, at a time of your choice.'],
  [
    'nightly',
    'Every night',
    `At ${NIGHTLY_HOUR}:00 those who have handed in and wait are allocated among themselves and to the drafts with the fewest reviews. Reviewing is open as long as drafts are, for courses that go on without fixed dates.`,
  ],
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
    <Dialog open onClose={onClose} title="When drafts are allocated">
      <div className="space-y-4">
        <fieldset className="space-y-2">
          <legend className="sr-only">When</legend>
          {KINDS.map(([value, words, about]) => (
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
            label="Time"
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
              label="Fewest people for a round"
              inputMode="numeric"
              value={party}
              problem={wrong('party')}
              onChange={({ target }) => setParty(target.value)}
            />
            <TextField
              label="Most nights to wait"
              inputMode="numeric"
              value={patience}
              problem={wrong('patience')}
              onChange={({ target }) => setPatience(target.value)}
            />
          </div>
        )}
        {kind !== 'command' && (
          <p className="text-sm text-ink-soft">
            It goes by the wishes beside the board, as they stand now; whom and how many students review, by the plan.
          </p>
        )}
        {problem !== null && problem.fields.length === 0 && <ProblemNotice error={problem} />}
        <Button look="primary" busy={isLoading} onClick={() => void put()}>
          Save
        </Button>
      </div>
    </Dialog>
  );
}
