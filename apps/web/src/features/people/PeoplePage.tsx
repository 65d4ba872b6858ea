import type { PersonRow } from '@salt-circle/contracts';
import type { Role } from '@salt-circle/core';
import { useMemo, useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Empty, Loading, Menu, Select, TextField } from '../../kit/index.js';
import { PersonDialog } from './PersonDialog.js';
import { useInviteMutation, usePeopleQuery, useSendPasswordLinkMutation, useSetActiveMutation } from './peopleApi.js';
import { RosterDialog } from './RosterDialog.js';

const ROLES: Readonly<Record<Role, string>> = { instructor: 'instructor', assistant: 'assistant', student: 'student' };
const PLACES: Readonly<Record<PersonRow['place'], string>> = {
  taken: 'taken',
  invited: 'invited',
  open: 'not invited',
};
/** Rows drawn at once; more are found by searching. */
const SHOWN = 300;

/** Who is in the course: from a roster, by hand, dropped and taken back. */
export function PeoplePage() {
  const course = useCourse();
  const { data, error } = usePeopleQuery(course.id, { refetchOnMountOrArgChange: true });
  const [editing, setEditing] = useState<PersonRow | 'new' | null>(null);
  const [importing, setImporting] = useState(false);
  const [search, setSearch] = useState('');
  const [section, setSection] = useState('');
  const [invite, inviting] = useInviteMutation();
  const instructor = course.role === 'instructor';
  const rows = useMemo(() => found(data?.people ?? [], search, section), [data, search, section]);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what="the people" />;
  const students = data.people.filter(({ role, active }) => role === 'student' && active);
  const without = data.people.filter(({ active, place }) => active && place === 'open');
  return (
    <div className="px-5 py-6">
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl font-semibold">
          People{' '}
          <span className="text-base font-normal text-ink-soft">
            {students.length === 1 ? '1 student' : `${students.length} students`}
          </span>
        </h2>
        {instructor && (
          <div className="flex flex-wrap gap-2">
            {without.length > 0 && (
              <Button
                busy={inviting.isLoading}
                onClick={() => void invite({ courseId: course.id, enrolmentIds: without.map(({ id }) => id) })}
              >
                Invite {without.length} whose place is open
              </Button>
            )}
            <Button onClick={() => setEditing('new')}>Add a person…</Button>
            <Button look="primary" onClick={() => setImporting(true)}>
              Read a roster…
            </Button>
          </div>
        )}
      </div>
      {inviting.data !== undefined && (
        <p role="status" className="mb-3 text-kelp">
          {inviting.data.invited === 1 ? '1 invitation is' : `${inviting.data.invited} invitations are`} in the outbox.
        </p>
      )}
      {inviting.error !== undefined && <ProblemNotice error={inviting.error} />}
      {students.length === 0 && (
        <Empty title="There are no students in the course yet.">
          <p>
            Read a roster: a CSV file, rows pasted from a spreadsheet, or a OneRoster bundle. Nothing changes before you
            have seen what it would do.
          </p>
        </Empty>
      )}
      <div className="mb-3 flex flex-wrap gap-3">
        <div className="w-80 max-w-full">
          <TextField
            label="Find"
            labelHidden
            placeholder="Find by name, address or campus id"
            value={search}
            onChange={({ target }) => setSearch(target.value)}
          />
        </div>
        {data.sections.length > 0 && (
          <Select
            label="Section"
            labelHidden
            value={section}
            options={[['', 'All sections'], ...data.sections.map((one) => [one, one] as const)]}
            onChange={setSection}
          />
        )}
      </div>
      <PeopleTable rows={rows} instructor={instructor} onEdit={setEditing} />
      {editing !== null && (
        <PersonDialog
          person={editing === 'new' ? null : editing}
          sections={data.sections}
          onClose={() => setEditing(null)}
        />
      )}
      {importing && <RosterDialog onClose={() => setImporting(false)} />}
    </div>
  );
}

function found(people: readonly PersonRow[], search: string, section: string): PersonRow[] {
  const wanted = search.trim().toLowerCase();
  return people.filter(
    (one) =>
      (section === '' || one.section === section) &&
      [one.name, one.email, one.campusId ?? ''].some((text) => text.toLowerCase().includes(wanted)),
  );
}

interface TableProps {
  readonly rows: readonly PersonRow[];
  readonly instructor: boolean;
  readonly onEdit: (person: PersonRow) => void;
}

function PeopleTable({ rows, instructor, onEdit }: TableProps) {
  const withTrait = rows.some(({ trait }) => trait !== null);
  const heads = ['Name', 'Address', 'Role', 'Section', 'Campus id', ...(withTrait ? ['Mixed by'] : []), 'Place'];
  return (
    <>
      <div className="overflow-x-auto">
        <table className="w-full text-left">
          <thead>
            <tr className="border-b border-ink text-sm text-ink-soft">
              {heads.map((words) => (
                <th key={words} scope="col" className="px-2 py-1.5 font-semibold">
                  {words}
                </th>
              ))}
              <th scope="col">
                <span className="sr-only">What can be done</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.slice(0, SHOWN).map((one) => (
              <tr key={one.id} className={`border-b border-line ${one.active ? '' : 'text-ink-soft'}`}>
                <th scope="row" className="px-2 py-1.5 font-semibold">
                  {one.name} {one.you && <span className="font-normal text-ink-soft">you</span>}
                  {!one.active && <span className="font-normal">dropped</span>}
                </th>
                <td className="px-2 py-1.5">{one.email}</td>
                <td className="px-2 py-1.5">{ROLES[one.role]}</td>
                <td className="px-2 py-1.5">{one.section}</td>
                <td className="px-2 py-1.5">{one.campusId}</td>
                {withTrait && <td className="px-2 py-1.5">{one.trait}</td>}
                <td className="px-2 py-1.5">{PLACES[one.place]}</td>
                <td className="px-2 py-1 text-right">{instructor && <RowMenu person={one} onEdit={onEdit} />}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {rows.length > SHOWN && (
        <p className="mt-2 text-ink-soft">
          The first {SHOWN} of {rows.length}. Find others by name.
        </p>
      )}
    </>
  );
}

function RowMenu({ person, onEdit }: { readonly person: PersonRow; readonly onEdit: (person: PersonRow) => void }) {
  const course = useCourse();
  const [setActive, { error }] = useSetActiveMutation();
  const [invite] = useInviteMutation();
  const [sendLink, link] = useSendPasswordLinkMutation();
  const { id, active, place, you } = person;
  const move = {
    words: active ? 'Drop from the course (all work is kept)' : 'Take back, with all work',
    onPick: () => void setActive({ courseId: course.id, id, active: !active }),
    disabled: you,
  };
  const mail = {
    words: place === 'invited' ? 'Invite again' : 'Invite by mail',
    onPick: () => void invite({ courseId: course.id, enrolmentIds: [id] }),
  };
  const password = {
    words: 'Send a link for a new password',
    onPick: () => void sendLink({ courseId: course.id, id }),
  };
  return (
    <>
      <Menu
        trigger={
          <Button small aria-label={`What can be done with ${person.name}`}>
            More
          </Button>
        }
        groups={[
          [
            { words: 'Change…', onPick: () => onEdit(person) },
            ...(active && place !== 'taken' ? [mail] : []),
            ...(active && place === 'taken' && !you ? [password] : []),
          ],
          [move],
        ]}
      />
      {error !== undefined && <ProblemNotice error={error} />}
      {link.error !== undefined && <ProblemNotice error={link.error} />}
      {link.isSuccess && (
        <p role="status" className="text-sm whitespace-nowrap text-kelp">
          A link is on its way
        </p>
      )}
    </>
  );
}
