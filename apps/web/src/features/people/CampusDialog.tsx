import type { CourseCampusView, RosterApplied } from '@salt-circle/contracts';
import { counted } from '@salt-circle/core';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Checkbox, Dialog, Notice } from '../../kit/index.js';
import {
  useApplyCampusPeopleMutation,
  usePreviewCampusPeopleMutation,
  useSetNightlyMutation,
  useUnlinkCampusMutation,
} from './peopleApi.js';
import { RosterChanges, RosterProblems } from './RosterChanges.js';

type Campus = NonNullable<CourseCampusView['campus']>;

/** Who is in the course as the campus has it, looked at before anything is taken over. */
export function CampusDialog({ campus, onClose }: { readonly campus: Campus; readonly onClose: () => void }) {
  const course = useCourse();
  const [preview, previewing] = usePreviewCampusPeopleMutation();
  const [apply, applying] = useApplyCampusPeopleMutation();
  const [dropMissing, setDropMissing] = useState(false);
  const shown = previewing.data;
  if (applying.data !== undefined) return <Done applied={applying.data} onClose={onClose} />;
  const changes =
    shown === undefined ? 0 : shown.add.length + shown.update.length + (dropMissing ? shown.missing.length : 0);
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`People of ${campus.name}`}
      description={`This course is “${campus.title}” there. Nothing changes before you have seen what it would do.`}
    >
      <div className="space-y-4">
        <p>
          {campus.fetchedAt === null ? (
            'The campus has not been asked yet.'
          ) : (
            <>
              Last asked <When at={campus.fetchedAt} timeZone={course.timeZone} />.
            </>
          )}
        </p>
        {campus.fault !== null && <Notice tone="problem">{campus.fault}</Notice>}
        <Button
          look={shown === undefined ? 'primary' : 'plain'}
          busy={previewing.isLoading}
          disabled={!campus.givesPeople}
          onClick={() => void preview(course.id)}
        >
          {shown === undefined ? 'Ask now' : 'Ask again'}
        </Button>
        {!campus.givesPeople && <p className="text-copper">{campus.name} does not tell who is in the course.</p>}
        {previewing.error !== undefined && <ProblemNotice error={previewing.error} />}
        {shown !== undefined && previewing.error === undefined && (
          <>
            <p>{shown.read}</p>
            <RosterProblems problems={shown.problems} />
            <RosterChanges shown={shown} numbered={false} />
            {shown.missing.length > 0 && (
              <p>
                <Checkbox
                  label={`Drop ${shown.missing.length === 1 ? 'the student' : `the ${shown.missing.length} students`} whom the campus does not name any more (their work is kept)`}
                  checked={dropMissing}
                  onChange={({ target }) => setDropMissing(target.checked)}
                />
              </p>
            )}
            {applying.error !== undefined && <ProblemNotice error={applying.error} />}
            <Button
              look="primary"
              className="sticky bottom-0"
              disabled={changes === 0 || previewing.isLoading}
              busy={applying.isLoading}
              onClick={() => void apply({ courseId: course.id, fingerprint: shown.fingerprint, dropMissing })}
            >
              {changes === 0 ? 'Nothing to apply' : 'Apply'}
            </Button>
          </>
        )}
        <Standing campus={campus} />
      </div>
    </Dialog>
  );
}

/** What goes on by itself, and how it ends. */
function Standing({ campus }: { readonly campus: Campus }) {
  const course = useCourse();
  const [setNightly, setting] = useSetNightlyMutation();
  const [unlink, unlinking] = useUnlinkCampusMutation();
  const [asking, setAsking] = useState(false);
  const error = setting.error ?? unlinking.error;
  return (
    <div className="space-y-3 border-t border-line pt-3">
      <p>
        <Checkbox
          label="Every night, take over who is new or called otherwise; nobody is dropped by itself"
          checked={campus.nightly === 'add'}
          onChange={({ target }) => void setNightly({ courseId: course.id, nightly: target.checked ? 'add' : 'off' })}
        />
      </p>
      {error !== undefined && <ProblemNotice error={error} />}
      {asking ? (
        <p className="flex flex-wrap items-center gap-2">
          People, work and grades stay; the campus gets no grades any more.
          <Button small look="destructive" busy={unlinking.isLoading} onClick={() => void unlink(course.id)}>
            Unlink from {campus.name}
          </Button>
          <Button small onClick={() => setAsking(false)}>
            Leave it
          </Button>
        </p>
      ) : (
        <Button small onClick={() => setAsking(true)}>
          Unlink…
        </Button>
      )}
    </div>
  );
}

function Done({ applied, onClose }: { readonly applied: RosterApplied; readonly onClose: () => void }) {
  const { added, updated, dropped } = applied;
  return (
    <Dialog open onClose={onClose} title="Taken over">
      <Notice tone="done" title={`${added} added, ${updated} updated, ${dropped} dropped.`}>
        <p>{counted(added, 'Who is new comes', 'Who are new come')} in by the campus: no invitation is needed.</p>
      </Notice>
      <Button look="primary" className="mt-4" onClick={onClose}>
        Close
      </Button>
    </Dialog>
  );
}
