import type { PersonRow } from '@salt-circle/contracts';
import type { Role } from '@salt-circle/core';
import { useState, type FormEvent } from 'react';
import { problemOf } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Checkbox, Dialog, Select, TextField } from '../../kit/index.js';
import { useAddPersonMutation, useChangePersonMutation, type PersonBody } from './peopleApi.js';
import { say } from '../../words/people.js';

export interface PersonDialogProps {
  /** Null for a new one. */
  readonly person: PersonRow | null;
  readonly sections: readonly string[];
  readonly onClose: () => void;
}

export function PersonDialog({ person, sections, onClose }: PersonDialogProps) {
  const course = useCourse();
  const [body, setBody] = useState<PersonBody>({
    name: person?.name ?? '',
    email: person?.email ?? '',
    role: person?.role ?? 'student',
    campusId: person?.campusId ?? null,
    section: person?.section ?? null,
  });
  const [invite, setInvite] = useState(true);
  const [add, adding] = useAddPersonMutation();
  const [change, changing] = useChangePersonMutation();
  const error = adding.error ?? changing.error;
  const wrong = error === undefined ? [] : problemOf(error).fields;
  const at = (path: string) => wrong.find((one) => one.path === path)?.sentence;
  const set = (part: Partial<PersonBody>) => setBody({ ...body, ...part });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const result =
      person === null
        ? await add({ courseId: course.id, body: { ...body, invite } })
        : await change({ courseId: course.id, id: person.id, body });
    if (result.error === undefined) onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={person === null ? say('addPersonLabel') : say('changeOf', { name: person.name })}
    >
      <form onSubmit={(event) => void submit(event)} className="space-y-3">
        <TextField
          label={say('name')}
          value={body.name}
          maxLength={200}
          problem={at('name')}
          onChange={({ target }) => set({ name: target.value })}
        />
        <TextField
          label={say('emailAddress')}
          type="email"
          value={body.email}
          hint={
            person?.place === 'invited' ? say('withAnotherAddressInvitationThat') : say('whereInvitationsAndMailOf')
          }
          problem={at('email')}
          onChange={({ target }) => set({ email: target.value })}
        />
        <Select
          label={say('role')}
          value={body.role}
          options={[
            ['student', say('student')],
            ['assistant', say('assistantSeesEverythingCantRelease')],
            ['instructor', say('instructor')],
          ]}
          problem={at('role')}
          onChange={(role) => set({ role: role as Role })}
        />
        <TextField
          label={say('section')}
          list="sections"
          hint={say('mayBeLeftEmpty')}
          value={body.section ?? ''}
          maxLength={200}
          onChange={({ target }) => set({ section: target.value === '' ? null : target.value })}
        />
        <datalist id="sections">
          {sections.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
        <TextField
          label={say('campusId')}
          hint={say('mayBeLeftEmpty')}
          value={body.campusId ?? ''}
          maxLength={200}
          problem={at('campusId')}
          onChange={({ target }) => set({ campusId: target.value === '' ? null : target.value })}
        />
        {person === null && (
          <div>
            <Checkbox
              label={say('inviteByMailToTake')}
              checked={invite}
              onChange={({ target }) => setInvite(target.checked)}
            />
          </div>
        )}
        {error !== undefined && wrong.length === 0 && <ProblemNotice error={error} />}
        <Button look="primary" type="submit" busy={adding.isLoading || changing.isLoading}>
          {person === null ? say('add') : say('save')}
        </Button>
      </form>
    </Dialog>
  );
}
