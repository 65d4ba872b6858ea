import type { LibraryCard } from '@salt-circle/contracts';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useCoursesQuery } from '../../app/api.js';
import { useLibraryQuery } from '../../app/libraryApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useNow } from '../../app/time/useNow.js';
import { relatively } from '../../app/time/words.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Dialog, Loading, Menu, Select, TextField } from '../../kit/index.js';
import { FormImportDialog } from './FormImportDialog.js';
import { formFileAddress, SaveFormDialog } from './SaveFormDialog.js';
import { useAddEntryMutation, useCopyEntryMutation, useRemoveEntryMutation } from './libraryPageApi.js';
import { say } from '../../words/library.js';

const shelves = () =>
  [
    {
      kind: 'form',
      title: say('reviewForms'),
      empty: say('noneYetMakeOneRead'),
    },
    {
      kind: 'shorthand',
      title: say('shorthandSets'),
      empty: say('noneYetSetOfShort'),
    },
    {
      kind: 'template',
      title: say('exchangeTemplates'),
      empty: say('noneYetOnPlanPage'),
    },
  ] as const;

/** What a course keeps to be used again. */
export function LibraryPage() {
  const course = useCourse();
  const { data, error } = useLibraryQuery(course.id, { refetchOnMountOrArgChange: true });
  const [adding, setAdding] = useState<'form' | 'shorthand' | null>(null);
  const [importing, setImporting] = useState(false);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('library')} />;
  const instructor = course.role === 'instructor';
  return (
    <div className="px-5 py-6">
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl font-semibold">{say('libraryLabel')}</h2>
        {instructor && (
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => setImporting(true)}>{say('readFormFromFileLabel')}</Button>
            <Button onClick={() => setAdding('shorthand')}>{say('newShorthandSet')}</Button>
            <Button look="primary" onClick={() => setAdding('form')}>
              {say('newForm')}
            </Button>
          </div>
        )}
      </div>
      <div className="grid gap-8 lg:grid-cols-3">
        {shelves().map(({ kind, title, empty }) => {
          const entries = data.entries.filter((one) => one.kind === kind);
          return (
            <section key={kind} aria-label={title}>
              <h3 className="mb-1 font-semibold">
                {title} <span className="font-normal text-ink-soft">{entries.length}</span>
              </h3>
              {entries.length === 0 && <p className="text-ink-soft">{empty}</p>}
              <ul>
                {entries.map((entry) => (
                  <Entry key={entry.id} entry={entry} instructor={instructor} />
                ))}
              </ul>
            </section>
          );
        })}
      </div>
      {adding !== null && <NewEntry kind={adding} onClose={() => setAdding(null)} />}
      {importing && <FormImportDialog onClose={() => setImporting(false)} />}
    </div>
  );
}

const PATHS: Readonly<Record<LibraryCard['kind'], string | null>> = {
  form: 'forms',
  shorthand: 'shorthand',
  template: null,
};
const filesOfForms = (): ReadonlyArray<readonly [format: string, words: string]> => [
  ['json', say('saveAsFormFileJson')],
  ['case', say('saveAsCase11')],
  ['csv', say('saveAsTableCsv')],
];

function Entry({ entry, instructor }: { readonly entry: LibraryCard; readonly instructor: boolean }) {
  const course = useCourse();
  const now = useNow();
  const [dialog, setDialog] = useState<'copy' | 'remove' | null>(null);
  const [saving, setSaving] = useState<'case' | 'csv' | null>(null);
  const { id, kind, title, about, changedAt } = entry;
  const path = PATHS[kind];
  // What a file holds as a whole is saved at once; of the others it is told first what they leave out.
  const file = (format: string) =>
    format === 'json' ? window.location.assign(formFileAddress(course.id, id, format)) : setSaving(format as 'case');
  const files = kind === 'form' ? filesOfForms().map(([format, words]) => ({ words, onPick: () => file(format) })) : [];
  const changes = instructor
    ? [
        { words: say('copy'), onPick: () => setDialog('copy') },
        { words: say('remove'), onPick: () => setDialog('remove') },
      ]
    : [];
  return (
    <li className="flex items-center justify-between gap-3 border-b border-line py-2">
      <div className="min-w-0">
        {path === null ? (
          <strong>{title}</strong>
        ) : (
          <Link to={`${path}/${id}`} className="font-semibold text-ink underline decoration-line underline-offset-4">
            {title}
          </Link>
        )}
        <p className="text-sm text-ink-soft">
          {say('changed', { about, when: relatively(Date.parse(changedAt), now) })}
        </p>
      </div>
      {files.length + changes.length > 0 && (
        <Menu
          trigger={
            <Button small aria-label={say('whatCanBeDoneWith', { title })}>
              {say('more')}
            </Button>
          }
          groups={[files, changes].filter((group) => group.length > 0)}
        />
      )}
      {saving !== null && <SaveFormDialog entry={entry} as={saving} onClose={() => setSaving(null)} />}
      {dialog === 'copy' && <CopyDialog entry={entry} onClose={() => setDialog(null)} />}
      {dialog === 'remove' && <RemoveDialog entry={entry} onClose={() => setDialog(null)} />}
    </li>
  );
}

interface EntryDialogProps {
  readonly entry: LibraryCard;
  readonly onClose: () => void;
}

function CopyDialog({ entry, onClose }: EntryDialogProps) {
  const course = useCourse();
  const { data: courses } = useCoursesQuery();
  const [target, setTarget] = useState(course.id);
  const [copy, { isLoading, error }] = useCopyEntryMutation();
  const taught = courses?.filter(({ role }) => role === 'instructor') ?? [];
  const go = async () => {
    const result = await copy({ courseId: course.id, id: entry.id, target });
    if (result.data !== undefined) onClose();
  };
  return (
    <Dialog open onClose={onClose} title={say('copyOf', { title: entry.title })}>
      <div className="space-y-3">
        <Select
          label={say('toLibraryOf')}
          value={target}
          options={taught.map(({ id, title }) => [id, title] as const)}
          onChange={setTarget}
        />
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="primary" busy={isLoading} onClick={() => void go()}>
          {say('copyLabel')}
        </Button>
      </div>
    </Dialog>
  );
}

function RemoveDialog({ entry, onClose }: EntryDialogProps) {
  const course = useCourse();
  const [remove, { isLoading, error }] = useRemoveEntryMutation();
  const go = async () => {
    const result = await remove({ courseId: course.id, id: entry.id });
    if (result.error === undefined) onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={say('removeOf', { title: entry.title })}
      description={entry.kind === 'shorthand' ? say('reviewersOfExchangesThatUse') : say('exchangesThatWereMadeWith')}
    >
      <div className="space-y-3">
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="destructive" busy={isLoading} onClick={() => void go()}>
          {say('removeFromLibrary')}
        </Button>
      </div>
    </Dialog>
  );
}

function NewEntry({ kind, onClose }: { readonly kind: 'form' | 'shorthand'; readonly onClose: () => void }) {
  const course = useCourse();
  const navigate = useNavigate();
  const [title, setTitle] = useState('');
  const [add, { isLoading, error }] = useAddEntryMutation();
  const go = async () => {
    const result = await add({ courseId: course.id, kind, title });
    if (result.data !== undefined) void navigate(`${PATHS[kind] ?? ''}/${result.data.id}`);
  };
  return (
    <Dialog open onClose={onClose} title={kind === 'form' ? say('newFormLabel') : say('newShorthandSetLabel')}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void go();
        }}
        className="space-y-3"
      >
        <TextField
          label={say('title')}
          value={title}
          maxLength={200}
          onChange={({ target }) => setTitle(target.value)}
          hint={kind === 'shorthand' ? say('itBeginsWithUsualLabels') : undefined}
        />
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="primary" type="submit" busy={isLoading}>
          {say('makeIt')}
        </Button>
      </form>
    </Dialog>
  );
}
