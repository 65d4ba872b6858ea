import type { PersonalDatesView, PlanView } from '@salt-circle/contracts';
import { type PersonalDateName, exactly, listed, wordsBy } from '@salt-circle/core';
import { useState } from 'react';
import { problemOf } from '../../../app/api.js';
import { ProblemNotice } from '../../../app/ProblemNotice.js';
import { useNow } from '../../../app/time/useNow.js';
import { useExchange } from '../../../app/useExchange.js';
import { Button, Checkbox, Dialog, Select, TextField } from '../../../kit/index.js';
import { afterRelease } from '../../../app/time/afterRelease.js';
import { DateInput } from '../../../app/time/DateInput.js';
import { useRemovePersonalDatesMutation, useSetPersonalDatesMutation, type PersonalDatesBody } from '../planApi.js';
import { SettingsGroup } from '../SettingsGroup.js';
import { say } from '../../../words/plan.js';

/** Of the others nothing goes by yet: what is set of them is kept as it is. */
const OWN_DATES = ['draftsDue', 'reviewsDue'] as const satisfies readonly PersonalDateName[];
const OWN_DATE_WORDS = wordsBy(say, { draftsDue: 'draftsDue', reviewsDue: 'reviewsDue' });

const BLANK: PersonalDatesBody = {
  studentId: null,
  groupId: null,
  draftsDue: null,
  reviewsDue: null,
  repliesDue: null,
  revisionDue: null,
  excused: false,
  reason: '',
};

/** Extensions and excuses, for a student or a group. */
export function Extensions({ plan, readOnly }: { readonly plan: PlanView; readonly readOnly: boolean }) {
  const exchange = useExchange();
  const [editing, setEditing] = useState<PersonalDatesBody | null>(null);
  const [remove, removing] = useRemovePersonalDatesMutation();
  const count = plan.own.length;
  return (
    <SettingsGroup
      title={say('extensions')}
      summary={count === 0 ? say('nobodyHasOtherDueTimes') : say('studentsOrGroupsHaveOther', { count })}
    >
      <ul>
        {plan.own.map((one) => (
          <li key={one.id} className="flex flex-wrap items-baseline justify-between gap-3 border-b border-line py-1.5">
            <span>
              <strong>{one.name}</strong> <OwnWords one={one} timeZone={exchange.course.timeZone} />
            </span>
            {!readOnly && (
              <span className="flex gap-2">
                <Button small onClick={() => setEditing(one)} aria-label={say('changeTimesOf', { name: one.name })}>
                  {say('change')}
                </Button>
                <Button
                  small
                  busy={removing.isLoading}
                  onClick={() => void remove({ exchangeId: exchange.id, id: one.id })}
                  aria-label={say('removeTimesOf', { name: one.name })}
                >
                  {say('remove')}
                </Button>
              </span>
            )}
          </li>
        ))}
      </ul>
      {removing.error !== undefined && <ProblemNotice error={removing.error} />}
      {!readOnly && (
        <Button small onClick={() => setEditing(BLANK)}>
          {say('extendOrExcuse')}
        </Button>
      )}
      {editing !== null && (
        <ExtensionDialog
          key={editing.studentId ?? editing.groupId}
          plan={plan}
          start={editing}
          onClose={() => setEditing(null)}
        />
      )}
    </SettingsGroup>
  );
}

function OwnWords({ one, timeZone }: { readonly one: PersonalDatesView; readonly timeZone: string }) {
  const now = useNow();
  const times = OWN_DATES.flatMap((date) => {
    const at = one[date];
    return at === null ? [] : [say('ownDueTime', { date, when: exactly(Date.parse(at), timeZone, now) })];
  });
  return (
    <>
      {listed([...(one.excused ? [say('excused')] : []), ...times], 'comma')}
      {one.reason !== '' && <span className="text-ink-soft"> {say('reasonSaid', { reason: one.reason })}</span>}
    </>
  );
}

interface DialogProps {
  readonly plan: PlanView;
  readonly start: PersonalDatesBody;
  readonly onClose: () => void;
}

function ExtensionDialog({ plan, start, onClose }: DialogProps) {
  const exchange = useExchange();
  const now = useNow();
  const [own, setOwn] = useState<PersonalDatesBody>(start);
  const [save, { isLoading, error }] = useSetPersonalDatesMutation();
  const wrong = error === undefined ? [] : problemOf(error).fields;
  const { choices } = plan;
  const groups = choices.groupSets.flatMap((set) =>
    set.groups.map(({ id, title }): [string, string] => [`group:${id}`, `${title} (${set.title})`]),
  );
  const students = choices.students.map(({ id, name }): [string, string] => [`student:${id}`, name]);
  const whose =
    own.studentId !== null ? `student:${own.studentId}` : own.groupId !== null ? `group:${own.groupId}` : '';
  const choose = (value: string) => {
    const [kind, id = null] = value.split(':') as [string, string | undefined];
    setOwn({ ...own, studentId: kind === 'student' ? id : null, groupId: kind === 'group' ? id : null });
  };
  const go = async () => {
    const { studentId, groupId, draftsDue, reviewsDue, repliesDue, revisionDue, excused, reason } = own;
    const body = { studentId, groupId, draftsDue, reviewsDue, repliesDue, revisionDue, excused, reason };
    const result = await save({ exchangeId: exchange.id, body });
    if (result.data !== undefined) onClose();
  };
  return (
    <Dialog open wide onClose={onClose} title={say('extendOrExcuseLabel')} description={say('dueTimesOfOneStudent')}>
      <div className="space-y-3">
        <Select
          label={say('whose')}
          value={whose}
          options={[['', say('chooseStudentOrGroup')], ...students, ...groups]}
          problem={wrong.find(({ path }) => path === 'studentId')?.sentence}
          onChange={choose}
        />
        <Checkbox
          label={say('excusedNothingIsAskedAnd')}
          checked={own.excused}
          onChange={({ target }) => setOwn({ ...own, excused: target.checked })}
        />
        {!own.excused &&
          OWN_DATES.map((name) => {
            const common = plan.dates[name];
            return (
              <DateInput
                key={name}
                label={OWN_DATE_WORDS[name]}
                value={own[name]}
                timeZone={exchange.course.timeZone}
                hint={
                  common === null
                    ? ''
                    : say('forEverybody', { when: exactly(Date.parse(common), exchange.course.timeZone, now) })
                }
                problem={wrong.find(({ path }) => path === name)?.sentence}
                remark={name === 'draftsDue' || name === 'reviewsDue' ? afterRelease(own[name], plan.dates) : undefined}
                onChange={(at) => setOwn({ ...own, [name]: at })}
              />
            );
          })}
        <TextField
          label={say('reason')}
          hint={say('forRecordOnlyStaffSee')}
          value={own.reason}
          maxLength={500}
          onChange={({ target }) => setOwn({ ...own, reason: target.value })}
        />
        {error !== undefined && wrong.length === 0 && <ProblemNotice error={error} />}
        <Button look="primary" busy={isLoading} onClick={() => void go()}>
          {say('save')}
        </Button>
      </div>
    </Dialog>
  );
}
