import type { PersonRow } from '@salt-circle/contracts';
import { type Role, wordsBy } from '@salt-circle/core';
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
import { PlatformDialog } from './PlatformDialog.js';
import { PersonDialog } from './PersonDialog.js';
import {
  useCoursePlatformQuery,
  useInviteMutation,
  usePeopleQuery,
  useSendPasswordLinkMutation,
  useSetActiveMutation,
} from './peopleApi.js';
import { RosterDialog } from './RosterDialog.js';
import { say } from '../../words/people.js';

const ROLES: Readonly<Record<Role, string>> = wordsBy(say, {
  instructor: 'instructorWord',
  assistant: 'assistantWord',
  student: 'studentWord',
});
const PLACES: Readonly<Record<PersonRow['place'], string>> = wordsBy(say, {
  taken: 'taken',
  invited: 'invited',
  open: 'notInvited',
});

const SOURCES: Readonly<Record<PersonRow['source'], string>> = wordsBy(say, {
  hand: 'byHand',
  roster: 'roster',
  platform: 'platform',
  archive: 'archive',
});

/** Who is in the course: from a roster, by hand, dropped and taken back. */
export function PeoplePage() {
  const course = useCourse();
  const { data, error } = usePeopleQuery(course.id, { refetchOnMountOrArgChange: true });
  const [editing, setEditing] = useState<PersonRow | 'new' | null>(null);
  const [importing, setImporting] = useState(false);
  const [asking, setAsking] = useState(false);
  const { data: linked } = useCoursePlatformQuery(course.id, { refetchOnMountOrArgChange: true });
  const platform = linked?.platform ?? null;
  const [search, setSearch] = useState('');
  const [section, setSection] = useState('');
  const [invite, inviting] = useInviteMutation();
  const instructor = course.role === 'instructor';
  const rows = useMemo(() => found(data?.people ?? [], search, section), [data, search, section]);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('people')} />;
  const students = data.people.filter(({ role, active }) => role === 'student' && active);
  const without = data.people.filter(({ active, place, email }) => active && place === 'open' && email !== '');
  return (
    <div className="px-5 py-6">
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl font-semibold">
          {say('peopleStudents', {
            students: students.length,
            span: (words) => <span className="text-base font-normal text-ink-soft">{words}</span>,
          })}
        </h2>
        {instructor && (
          <div className="flex flex-wrap gap-2">
            {without.length > 0 && (
              <Button
                busy={inviting.isLoading}
                onClick={() => void invite({ courseId: course.id, enrolmentIds: without.map(({ id }) => id) })}
              >
                {say('inviteWhosePlaceIsOpen', { without: without.length })}
              </Button>
            )}
            <Button onClick={() => setEditing('new')}>{say('addPerson')}</Button>
            {platform !== null && (
              <Button onClick={() => setAsking(true)}>
                {platform.missing > 0
                  ? say('fromNotThereAnyMore', { name: platform.name, missing: platform.missing })
                  : say('from', { name: platform.name })}
              </Button>
            )}
            <Button look="primary" onClick={() => setImporting(true)}>
              {say('readRoster')}
            </Button>
          </div>
        )}
      </div>
      {inviting.data !== undefined && (
        <p role="status" className="mb-3 text-kelp">
          {say('invitationsAreInOutbox', { invited: inviting.data.invited })}
        </p>
      )}
      {inviting.error !== undefined && <ProblemNotice error={inviting.error} />}
      {students.length === 0 && (
        <Empty title={say('thereAreNoStudentsIn')}>
          <p>{platform !== null ? say('canSayWhoTheyAre', { name: platform.name }) : say('readRosterCsvFileRows')}</p>
        </Empty>
      )}
      <div className="mb-3 flex flex-wrap gap-3">
        <div className="w-80 max-w-full">
          <TextField
            label={say('find')}
            labelHidden
            placeholder={say('findByNameAddressOr')}
            value={search}
            onChange={({ target }) => setSearch(target.value)}
          />
        </div>
        {data.sections.length > 0 && (
          <Select
            label={say('section')}
            labelHidden
            value={section}
            options={[['', say('allSections')], ...data.sections.map((one) => [one, one] as const)]}
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
      {asking && platform !== null && <PlatformDialog platform={platform} onClose={() => setAsking(false)} />}
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
    { key: 'name', head: say('name'), sort: nameKey, cell: (one) => <NameCell person={one} /> },
    plain('email', say('address'), ({ email }) => (email === '' ? 'none' : email)),
    plain('role', say('role'), ({ role }) => ROLES[role]),
    plain('section', say('section'), ({ section }) => section),
    plain('campusId', say('campusId'), ({ campusId }) => campusId),
    ...(withTrait ? [plain('trait', say('mixedBy'), ({ trait }) => trait)] : []),
    ...(withSource ? [plain('source', say('fromLabel'), ({ source }) => SOURCES[source])] : []),
    plain('place', say('place'), ({ place }) => PLACES[place]),
    {
      key: 'acts',
      head: say('whatCanBeDone'),
      headHidden: true,
      right: true,
      cell: (one) => instructor && <RowMenu person={one} onEdit={onEdit} />,
    },
  ];
  return (
    <BoardTable
      label={say('peopleOfCourse')}
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
      {name} {you && <span className="font-normal text-ink-soft">{say('you')}</span>}
      {!active && <span className="font-normal">{say('dropped')}</span>}
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
    words: active ? say('dropFromCourseAllWork') : say('takeBackWithAllWork'),
    onPick: () =>
      active && person.partnerOf.length > 0
        ? setAsking(true)
        : void setActive({ courseId: course.id, id, active: !active }),
    disabled: you,
  };
  const mail = {
    words: place === 'invited' ? say('inviteAgain') : say('inviteByMail'),
    onPick: () => void invite({ courseId: course.id, enrolmentIds: [id] }),
  };
  const password = {
    words: say('sendLinkForNewPassword'),
    onPick: () => void sendLink({ courseId: course.id, id }),
  };
  return (
    <>
      <Menu
        trigger={
          <Button small aria-label={say('whatCanBeDoneWith', { name: person.name })}>
            {say('more')}
          </Button>
        }
        groups={[
          [
            { words: say('change'), onPick: () => onEdit(person) },
            ...(active && place !== 'taken' && email !== '' ? [mail] : []),
            ...(active && place === 'taken' && !you && source !== 'platform' ? [password] : []),
          ],
          [move],
        ]}
      />
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        title={say('drop', { name: person.name })}
        description={say('reviewsOfPartnersGoBy')}
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
          {say('dropFromCourseKeepWork')}
        </Button>
      </Dialog>
      {error !== undefined && <ProblemNotice error={error} />}
      {link.error !== undefined && <ProblemNotice error={link.error} />}
      {link.isSuccess && (
        <p role="status" className="text-sm whitespace-nowrap text-kelp">
          {say('linkIsOnItsWay')}
        </p>
      )}
    </>
  );
}
