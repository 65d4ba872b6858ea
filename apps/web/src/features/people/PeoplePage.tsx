import type { PersonRow } from '@salt-circle/contracts';
import { counted, type Role } from '@salt-circle/core';
import { useMemo, useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useCourse } from '../../app/useCourse.js';
import {
  BoardTable,
  Button,
  Dialog,
  Empty,
  Loading,
  Menu,
  Select,
  sortedRows,
  TextField,
  type BoardColumn,
  type BoardSort,
} from '../../kit/index.js';
import { NameOrder, useNameKey } from '../../app/boards/nameOrder.js';
import { CampusDialog } from './CampusDialog.js';
import { PersonDialog } from './PersonDialog.js';
import {
  useCourseCampusQuery,
  useInviteMutation,
  usePeopleQuery,
  useSendPasswordLinkMutation,
  useSetActiveMutation,
} from './peopleApi.js';
import { RosterDialog } from './RosterDialog.js';

const ROLES: Readonly<Record<Role, string>> = { instructor: 'instructor', assistant: 'assistant', student: 'student' };
const PLACES: Readonly<Record<PersonRow['place'], string>> = {
  taken: 'taken',
  invited: 'invited',
  open: 'not invited',
};

const SOURCES: Readonly<Record<PersonRow['source'], string>> = {
  hand: 'by hand',
  roster: 'roster',
  campus: 'campus',
  archive: 'archive',
};

/** Who is in the course: from a roster, by hand, dropped and taken back. */
export function PeoplePage() {
  const course = useCourse();
  const { data, error } = usePeopleQuery(course.id, { refetchOnMountOrArgChange: true });
  const [editing, setEditing] = useState<PersonRow | 'new' | null>(null);
  const [importing, setImporting] = useState(false);
  const [asking, setAsking] = useState(false);
  const { data: linked } = useCourseCampusQuery(course.id, { refetchOnMountOrArgChange: true });
  const campus = linked?.campus ?? null;
  const [search, setSearch] = useState('');
  const [section, setSection] = useState('');
  const [invite, inviting] = useInviteMutation();
  const instructor = course.role === 'instructor';
  const rows = useMemo(() => found(data?.people ?? [], search, section), [data, search, section]);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what="the people" />;
  const students = data.people.filter(({ role, active }) => role === 'student' && active);
  const without = data.people.filter(({ active, place, email }) => active && place === 'open' && email !== '');
  return (
    <div className="px-5 py-6">
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl font-semibold">
          People{' '}
          <span className="text-base font-normal text-ink-soft">
            {counted(students.length, '1 student', '# students')}
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
            {campus !== null && (
              <Button onClick={() => setAsking(true)}>
                {campus.missing > 0
                  ? `From ${campus.name}: ${campus.missing} not there any more…`
                  : `From ${campus.name}…`}
              </Button>
            )}
            <Button look="primary" onClick={() => setImporting(true)}>
              Read a roster…
            </Button>
          </div>
        )}
      </div>
      {inviting.data !== undefined && (
        <p role="status" className="mb-3 text-kelp">
          {counted(inviting.data.invited, '1 invitation is', '# invitations are')} in the outbox.
        </p>
      )}
      {inviting.error !== undefined && <ProblemNotice error={inviting.error} />}
      {students.length === 0 && (
        <Empty title="There are no students in the course yet.">
          <p>
            {campus !== null && `${campus.name} can say who they are. `}Read a roster: a CSV file, rows pasted from a
            spreadsheet, or a OneRoster bundle. Nothing changes before you have seen what it would do.
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
        <NameOrder />
      </div>
      <PeopleTable rows={rows} instructor={instructor} onEdit={setEditing} />
      {editing !== null && (
        <PersonDialog
          person={editing === 'new' ? null : editing}
          sections={data.sections}
          onClose={() => setEditing(null)}
        />
      )}
      {asking && campus !== null && <CampusDialog campus={campus} onClose={() => setAsking(false)} />}
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
  const [sort, setSort] = useState<BoardSort>({ key: 'name', down: false });
  const nameKey = useNameKey();
  const withSource = rows.some(({ source }) => source !== 'hand');
  const withTrait = rows.some(({ trait }) => trait !== null);
  const plain = (key: string, head: string, of: (row: PersonRow) => string | null): BoardColumn<PersonRow> => ({
    key,
    head,
    sort: of,
    cell: of,
  });
  const columns: ReadonlyArray<BoardColumn<PersonRow>> = [
    { key: 'name', head: 'Name', sort: nameKey, cell: (one) => <NameCell person={one} /> },
    plain('email', 'Address', ({ email }) => (email === '' ? 'none' : email)),
    plain('role', 'Role', ({ role }) => ROLES[role]),
    plain('section', 'Section', ({ section }) => section),
    plain('campusId', 'Campus id', ({ campusId }) => campusId),
    ...(withTrait ? [plain('trait', 'Mixed by', ({ trait }) => trait)] : []),
    ...(withSource ? [plain('source', 'From', ({ source }) => SOURCES[source])] : []),
    plain('place', 'Place', ({ place }) => PLACES[place]),
    {
      key: 'acts',
      head: 'What can be done',
      headHidden: true,
      right: true,
      cell: (one) => instructor && <RowMenu person={one} onEdit={onEdit} />,
    },
  ];
  return (
    <BoardTable
      label="People of the course"
      columns={columns}
      rows={sortedRows(rows, columns, sort)}
      rowKey={({ id }) => id}
      sort={sort}
      onSort={setSort}
    />
  );
}

function NameCell({ person: { name, you, active } }: { readonly person: PersonRow }) {
  return (
    <span className={active ? '' : 'text-ink-soft'}>
      {name} {you && <span className="font-normal text-ink-soft">you</span>}
      {!active && <span className="font-normal">dropped</span>}
    </span>
  );
}

function RowMenu({ person, onEdit }: { readonly person: PersonRow; readonly onEdit: (person: PersonRow) => void }) {
  const course = useCourse();
  const [setActive, { error }] = useSetActiveMutation();
  const [invite] = useInviteMutation();
  const [sendLink, link] = useSendPasswordLinkMutation();
  const { id, active, place, you, email, source } = person;
  const [asking, setAsking] = useState(false);
  const move = {
    words: active ? 'Drop from the course (all work is kept)' : 'Take back, with all work',
    onPick: () =>
      active && person.partnerOf.length > 0
        ? setAsking(true)
        : void setActive({ courseId: course.id, id, active: !active }),
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
            ...(active && place !== 'taken' && email !== '' ? [mail] : []),
            ...(active && place === 'taken' && !you && source !== 'campus' ? [password] : []),
          ],
          [move],
        ]}
      />
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`Drop ${person.name}?`}
        description="Reviews of partners go by who is in the group. Whoever is left without a partner is shown on the Allocation page, with what can be done."
      >
        <ul className="mb-4 list-disc pl-5">
          {person.partnerOf.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
        <Button
          look="destructive"
          onClick={() => {
            setAsking(false);
            void setActive({ courseId: course.id, id, active: false });
          }}
        >
          Drop from the course, keep the work
        </Button>
      </Dialog>
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
