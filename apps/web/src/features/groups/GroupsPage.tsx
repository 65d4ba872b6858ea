import type { GroupSetView } from '@salt-circle/contracts';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Dialog, Empty, Loading, Notice, TextField } from '../../kit/index.js';
import { Board } from './Board.js';
import { DivideDialog } from './DivideDialog.js';
import { useAddSetMutation, useGroupsQuery, useRemoveSetMutation, useRenameSetMutation } from './groupsApi.js';
import { ImportDialog } from './ImportDialog.js';
import { say } from '../../words/groups.js';

/** The ways in which a course is divided into groups. */
export function GroupsPage() {
  const course = useCourse();
  const { data, error } = useGroupsQuery(course.id, { refetchOnMountOrArgChange: true });
  const [chosen, setChosen] = useState<string | null>(null);
  const [adding, setAdding] = useState(false);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('groups')} />;
  const set = data.sets.find(({ id }) => id === chosen) ?? data.sets[0];
  const instructor = course.role === 'instructor';
  return (
    <div className="px-5 py-6">
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl font-semibold">{say('groupsLabel')}</h2>
        {instructor && (
          <Button look={data.sets.length === 0 ? 'primary' : 'plain'} onClick={() => setAdding(true)}>
            {say('newGroupSet')}
          </Button>
        )}
      </div>
      {data.sets.length === 0 ? (
        <Empty title={say('courseIsNotDividedInto')}>
          <p>{say('groupSetIsOneWay')}</p>
        </Empty>
      ) : (
        <div role="group" aria-label={say('groupSets')} className="mb-4 flex flex-wrap gap-2">
          {data.sets.map(({ id, title, groups }) => (
            <Button
              key={id}
              aria-pressed={id === set?.id}
              className="aria-pressed:border-iodine aria-pressed:bg-crust"
              onClick={() => setChosen(id)}
            >
              {title} <span className="text-ink-soft">{groups.length}</span>
            </Button>
          ))}
        </div>
      )}
      {set !== undefined && (
        <SetWorkspace
          key={set.id}
          set={set}
          students={data.students}
          mixes={[...(data.hasSections ? ['section' as const] : []), ...(data.hasTraits ? ['trait' as const] : [])]}
          readOnly={!instructor}
        />
      )}
      {adding && (
        <TitleDialog
          title={say('newGroupSetLabel')}
          hint={say('eGFieldTeamsOr')}
          onClose={() => setAdding(false)}
          onDone={setChosen}
        />
      )}
    </div>
  );
}

interface WorkspaceProps {
  readonly set: GroupSetView;
  readonly students: number;
  readonly mixes: ReadonlyArray<'section' | 'trait'>;
  readonly readOnly: boolean;
}

function SetWorkspace({ set, students, mixes, readOnly }: WorkspaceProps) {
  const course = useCourse();
  const [dialog, setDialog] = useState<'divide' | 'import' | 'rename' | 'remove' | null>(null);
  const [remove, removing] = useRemoveSetMutation();
  const close = () => setDialog(null);
  const sizes = set.groups.map(({ members }) => members.length);
  const [least, most] = [Math.min(...sizes), Math.max(...sizes)];
  const groups = say('groupsCounted', {
    groups: set.groups.length,
    sizes: sizes.length === 0 ? 'none' : least === most ? 'same' : 'several',
    least,
    most,
  });
  const doRemove = async () => {
    const result = await remove({ courseId: course.id, setId: set.id });
    if (result.error === undefined) close();
  };
  return (
    <section>
      <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
        <h3 className="text-lg font-semibold">
          {set.title}{' '}
          <span className="text-base font-normal text-ink-soft">
            {set.ungrouped.length === 0
              ? say('everybodyIsInOne', { groups })
              : say('ofStudentsAreInNone', { groups, ungrouped: set.ungrouped.length, students })}
          </span>
        </h3>
        {!readOnly && (
          <div className="flex flex-wrap gap-2">
            <Button small onClick={() => setDialog('divide')}>
              {say('divideLabel2')}
            </Button>
            <Button small onClick={() => setDialog('import')}>
              {say('readFromFile')}
            </Button>
            <Button small onClick={() => setDialog('rename')}>
              {say('rename')}
            </Button>
            <Button small onClick={() => setDialog('remove')}>
              {say('removeLabel')}
            </Button>
          </div>
        )}
      </div>
      {set.usedBy.length > 0 && (
        <div className="mb-3">
          <Notice tone="soon" title={say('underWay', { usedBy: set.usedBy.join(', ') })}>
            {say('movingSomebodyDoesNotChange')}
          </Notice>
        </div>
      )}
      <Board set={set} readOnly={readOnly} />
      {dialog === 'divide' && <DivideDialog set={set} students={students} mixes={mixes} onClose={close} />}
      {dialog === 'import' && <ImportDialog set={set} onClose={close} />}
      {dialog === 'rename' && <TitleDialog title={say('renameOf', { title: set.title })} start={set} onClose={close} />}
      <Dialog
        open={dialog === 'remove'}
        onClose={close}
        title={say('removeOf', { title: set.title })}
        description={say('itsGroupsAreGoneThen')}
      >
        <div className="space-y-3">
          {removing.error !== undefined && <ProblemNotice error={removing.error} />}
          <Button look="destructive" busy={removing.isLoading} onClick={() => void doRemove()}>
            {say('removeGroupSet')}
          </Button>
        </div>
      </Dialog>
    </section>
  );
}

interface TitleDialogProps {
  readonly title: string;
  readonly hint?: string;
  /** The set that is renamed; absent for a new one. */
  readonly start?: GroupSetView;
  readonly onClose: () => void;
  readonly onDone?: (id: string) => void;
}

function TitleDialog({ title, hint, start, onClose, onDone }: TitleDialogProps) {
  const course = useCourse();
  const [text, setText] = useState(start?.title ?? '');
  const [add, adding] = useAddSetMutation();
  const [rename, renaming] = useRenameSetMutation();
  const error = adding.error ?? renaming.error;
  const go = async () => {
    if (start !== undefined) {
      const result = await rename({ courseId: course.id, setId: start.id, title: text });
      if (result.error === undefined) onClose();
      return;
    }
    const result = await add({ courseId: course.id, title: text });
    if (result.data === undefined) return;
    onDone?.(result.data.id);
    onClose();
  };
  return (
    <Dialog open onClose={onClose} title={title}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void go();
        }}
        className="space-y-3"
      >
        <TextField
          label={say('name')}
          hint={hint}
          value={text}
          maxLength={200}
          onChange={({ target }) => setText(target.value)}
        />
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="primary" type="submit" busy={adding.isLoading || renaming.isLoading}>
          {start === undefined ? say('makeIt') : say('renameLabel')}
        </Button>
      </form>
    </Dialog>
  );
}
