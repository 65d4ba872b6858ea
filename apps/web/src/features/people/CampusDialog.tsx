import type { CourseCampusView, RosterApplied } from '@salt-circle/contracts';
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
import { say } from '../../words/people.js';

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
      title={say('peopleOf', { name: campus.name })}
      description={say('thisCourseIsThereNothing', { title: campus.title })}
    >
      <div className="space-y-4">
        <p>
          {campus.fetchedAt === null ? (
            say('campusHasNotBeenAsked')
          ) : (
            <>{say('lastAsked', { when: <When at={campus.fetchedAt} timeZone={course.timeZone} /> })}</>
          )}
        </p>
        {campus.fault !== null && <Notice tone="problem">{campus.fault}</Notice>}
        <Button
          look={shown === undefined ? 'primary' : 'plain'}
          busy={previewing.isLoading}
          disabled={!campus.givesPeople}
          onClick={() => void preview(course.id)}
        >
          {shown === undefined ? say('askNow') : say('askAgain')}
        </Button>
        {!campus.givesPeople && <p className="text-copper">{say('doesNotTellWhoIs', { name: campus.name })}</p>}
        {previewing.error !== undefined && <ProblemNotice error={previewing.error} />}
        {shown !== undefined && previewing.error === undefined && (
          <>
            <p>{shown.read}</p>
            <RosterProblems problems={shown.problems} />
            <RosterChanges shown={shown} numbered={false} />
            {shown.missing.length > 0 && (
              <p>
                <Checkbox
                  label={
                    shown.missing.length === 1
                      ? say('dropStudentWhomCampusDoes')
                      : say('dropStudentsWhomCampusDoes', { missing: shown.missing.length })
                  }
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
              {changes === 0 ? say('nothingToApply') : say('apply')}
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
          label={say('everyNightTakeOverWho')}
          checked={campus.nightly === 'add'}
          onChange={({ target }) => void setNightly({ courseId: course.id, nightly: target.checked ? 'add' : 'off' })}
        />
      </p>
      {error !== undefined && <ProblemNotice error={error} />}
      {asking ? (
        <p className="flex flex-wrap items-center gap-2">
          {say('peopleWorkAndGradesStay')}
          <Button small look="destructive" busy={unlinking.isLoading} onClick={() => void unlink(course.id)}>
            {say('unlinkFrom', { name: campus.name })}
          </Button>
          <Button small onClick={() => setAsking(false)}>
            {say('leaveIt')}
          </Button>
        </p>
      ) : (
        <Button small onClick={() => setAsking(true)}>
          {say('unlink')}
        </Button>
      )}
    </div>
  );
}

function Done({ applied, onClose }: { readonly applied: RosterApplied; readonly onClose: () => void }) {
  const { added, updated, dropped } = applied;
  return (
    <Dialog open onClose={onClose} title={say('takenOver')}>
      <Notice tone="done" title={say('addedUpdatedDropped', { added, updated, dropped })}>
        <p>{say('whoAreNewComeIn', { added })}</p>
      </Notice>
      <Button look="primary" className="mt-4" onClick={onClose}>
        {say('close')}
      </Button>
    </Dialog>
  );
}
