import type { GradeRow, GradesReleaseRequest, GradesView } from '@salt-circle/contracts';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { DateInput } from '../../app/time/DateInput.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Dialog, Select } from '../../kit/index.js';
import { useReleaseGradesMutation } from './gradesApi.js';
import { say } from '../../words/grades.js';

interface ReleaseGradesDialogProps {
  readonly view: GradesView;
  /** As the board shows them. */
  readonly chosen: readonly GradeRow[];
  readonly onClose: () => void;
}

/** Grades apart from feedback: what is about to be seen by whom, and then one press. */
export function ReleaseGradesDialog({ view, chosen, onClose }: ReleaseGradesDialogProps) {
  const exchange = useExchange();
  const some = chosen.length < view.rows.length;
  const [how, setHow] = useState<GradesReleaseRequest['how']>(some ? 'some' : 'all');
  const [at, setAt] = useState<string | null>(null);
  const [release, { isLoading, error }] = useReleaseGradesMutation();
  const rows = how === 'some' ? chosen : view.rows;
  const without = rows.filter(({ grade }) => grade.words === null).length;
  const open = rows.filter(({ grade }) => grade.open && grade.words !== null).length;
  const go = async () => {
    const participantIds = how === 'some' ? chosen.map(({ id }) => id) : [];
    const done = await release({ exchangeId: exchange.id, how, at: how === 'all' ? at : null, participantIds });
    if (done.error === undefined) onClose();
  };
  const any = view.release !== null || view.rows.some((row) => row.released);
  return (
    <Dialog open onClose={onClose} title={say('releaseGrades')} description={say('feedbackAndGradesAreReleased')}>
      <div className="space-y-4">
        <Select
          label={say('whoSeesTheirs')}
          value={how}
          options={[
            ['all', say('allStudents', { rows: view.rows.length })],
            ...(some ? [['some', say('shownNow', { chosen: chosen.length })] as const] : []),
            ...(any ? [['none', say('nobodyTakeItBack')] as const] : []),
          ]}
          onChange={(next) => setHow(next as typeof how)}
        />
        {how === 'all' && (
          <DateInput
            label={say('from')}
            value={at}
            timeZone={exchange.course.timeZone}
            hint={say('blankNow')}
            onChange={setAt}
          />
        )}
        {how !== 'none' && (
          <p>
            {[
              say('studentsGetGrade', { rows: rows.length - without, without }),
              ...(open > 0 ? [say('somePartIsOpenSo', { open })] : []),
            ].join(' ')}
          </p>
        )}
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="primary" busy={isLoading} onClick={() => void go()}>
          {how === 'none' ? say('withdrawRelease') : say('releaseLabel')}
        </Button>
      </div>
    </Dialog>
  );
}
