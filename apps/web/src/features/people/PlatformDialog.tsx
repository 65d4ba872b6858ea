import type { CoursePlatformView, RosterApplied } from '@salt-circle/contracts';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Checkbox, Dialog, Notice } from '../../kit/index.js';
import {
  useApplyPlatformPeopleMutation,
  usePreviewPlatformPeopleMutation,
  useSetNightlyMutation,
  useUnlinkPlatformMutation,
} from './peopleApi.js';
import { RosterChanges, RosterProblems } from './RosterChanges.js';
import { say } from '../../words/people.js';

type Platform = NonNullable<CoursePlatformView['platform']>;

/** Who is in the course as the platform has it, looked at before anything is taken over. */
export function PlatformDialog({ platform, onClose }: { readonly platform: Platform; readonly onClose: () => void }) {
  const course = useCourse();
  const [preview, previewing] = usePreviewPlatformPeopleMutation();
  const [apply, applying] = useApplyPlatformPeopleMutation();
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
      title={say('peopleOf', { name: platform.name })}
      description={say('thisCourseIsThereNothing', { title: platform.title })}
    >
      <div className="space-y-4">
        <p>
          {platform.fetchedAt === null ? (
            say('platformHasNotBeenAsked')
          ) : (
            <>{say('lastAsked', { when: <When at={platform.fetchedAt} timeZone={course.timeZone} /> })}</>
          )}
        </p>
        {platform.fault !== null && <Notice tone="problem">{platform.fault}</Notice>}
        <Button
          look={shown === undefined ? 'primary' : 'plain'}
          busy={previewing.isLoading}
          disabled={!platform.givesPeople}
          onClick={() => void preview(course.id)}
        >
          {shown === undefined ? say('askNow') : say('askAgain')}
        </Button>
        {!platform.givesPeople && <p className="text-copper">{say('doesNotTellWhoIs', { name: platform.name })}</p>}
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
                      ? say('dropStudentWhomPlatformDoes')
                      : say('dropStudentsWhomPlatformDoes', { missing: shown.missing.length })
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
        <Standing platform={platform} />
      </div>
    </Dialog>
  );
}

/** What goes on by itself, and how it ends. */
function Standing({ platform }: { readonly platform: Platform }) {
  const course = useCourse();
  const [setNightly, setting] = useSetNightlyMutation();
  const [unlink, unlinking] = useUnlinkPlatformMutation();
  const [asking, setAsking] = useState(false);
  const error = setting.error ?? unlinking.error;
  return (
    <div className="space-y-3 border-t border-line pt-3">
      <p>
        <Checkbox
          label={say('everyNightTakeOverWho')}
          checked={platform.nightly === 'add'}
          onChange={({ target }) => void setNightly({ courseId: course.id, nightly: target.checked ? 'add' : 'off' })}
        />
      </p>
      {error !== undefined && <ProblemNotice error={error} />}
      {asking ? (
        <p className="flex flex-wrap items-center gap-2">
          {say('peopleWorkAndGradesStay')}
          <Button small look="destructive" busy={unlinking.isLoading} onClick={() => void unlink(course.id)}>
            {say('unlinkFrom', { name: platform.name })}
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
