import type { GroupSetView } from '@salt-circle/contracts';
import { RowsDialog } from '../../app/RowsDialog.js';
import { useCourse } from '../../app/useCourse.js';
import { useImportGroupsMutation } from './groupsApi.js';
import { say } from '../../words/groups.js';

/** Who is in which group, from a file or pasted rows. */
export function ImportDialog({ set, onClose }: { readonly set: GroupSetView; readonly onClose: () => void }) {
  const course = useCourse();
  const [read, { data, error, isLoading }] = useImportGroupsMutation();
  return (
    <RowsDialog
      title={say('groupsOfFromFile', { title: set.title })}
      description={say('presentGroupsOfSetAre')}
      hint={say('rowPerPersonWithColumns')}
      header="group, email"
      lookLabel={say('seeWhatItWouldMake')}
      read={async (source, apply) => (await read({ courseId: course.id, setId: set.id, ...source, apply })).data}
      data={data}
      error={error}
      busy={isLoading}
      onClose={onClose}
    >
      {({ groups, without }) => (
        <>
          <ul className="max-h-60 overflow-y-auto">
            {groups.map(({ title, members }) => (
              <li key={title}>
                <strong>{title}</strong> <span className="text-ink-soft">{members.join(', ')}</span>
              </li>
            ))}
          </ul>
          {without.length > 0 && (
            <p className="text-saffron">
              {without.length > 20
                ? say('inNoGroupAndOthers', { without: without.slice(0, 20).join(', '), without2: without.length - 20 })
                : say('inNoGroup', { without: without.slice(0, 20).join(', ') })}
            </p>
          )}
        </>
      )}
    </RowsDialog>
  );
}
