import type { GradeRow, GradesReleaseRequest, GradesView } from '@salt-circle/contracts';
import { counted } from '@salt-circle/core';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { DateInput } from '../../app/time/DateInput.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Dialog, Select } from '../../kit/index.js';
import { useReleaseGradesMutation } from './gradesApi.js';

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
    <Dialog
      open
      onClose={onClose}
      title="Release grades"
      description="Feedback and grades are released apart. Whoever sees a grade is told by mail, and again when it is corrected."
    >
      <div className="space-y-4">
        <Select
          label="Who sees theirs"
          value={how}
          options={[
            ['all', `all ${view.rows.length} students`],
            ...(some ? [['some', `the ${chosen.length} shown now`] as const] : []),
            ...(any ? [['none', 'nobody: take it back'] as const] : []),
          ]}
          onChange={(next) => setHow(next as typeof how)}
        />
        {how === 'all' && (
          <DateInput label="From" value={at} timeZone={exchange.course.timeZone} hint="Blank: now." onChange={setAt} />
        )}
        {how !== 'none' && (
          <p>
            {counted(rows.length - without, '1 student gets a grade', '# students get a grade')}
            {without > 0 && `, ${counted(without, '1 has none yet', '# have none yet')}`}
            {open > 0 &&
              `; of ${counted(open, '1 some part is open, so that it can still change', '# some part is open, so that they can still change')}`}
            .
          </p>
        )}
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="primary" busy={isLoading} onClick={() => void go()}>
          {how === 'none' ? 'Take it back' : 'Release'}
        </Button>
      </div>
    </Dialog>
  );
}
