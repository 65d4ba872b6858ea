import type { GradeRow, GradesView } from '@salt-circle/contracts';
import type { GradingWork } from '@salt-circle/core';
import { useLocation, useParams } from 'react-router';
import { useDraftFeedbackQuery } from '../../app/moderation/checkApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { Loading, Select } from '../../kit/index.js';
import { useAssignGraderMutation } from './gradesApi.js';
import { MarkDraft } from './MarkDraft.js';
import { MarkReviewing } from './MarkReviewing.js';
import { workWords } from './work.js';
import { say } from '../../words/grades.js';

/** The form for what is beside it: of the draft, or of the reviewing. */
export function Marking({ view, row }: { readonly view: GradesView; readonly row: GradeRow }) {
  const { reviewId } = useParams();
  const { pathname } = useLocation();
  const work: GradingWork = pathname.includes(`/${row.id}/given/`) ? 'reviewing' : 'draft';
  return (
    <div>
      <Grader view={view} row={row} work={work} />
      {work === 'draft' ? (
        <DraftMarks view={view} row={row} />
      ) : (
        <MarkReviewing
          key={view.reviewingEach ? reviewId : row.id}
          view={view}
          row={row}
          reviewId={view.reviewingEach ? reviewId : undefined}
        />
      )}
    </div>
  );
}

function DraftMarks({ view, row }: { readonly view: GradesView; readonly row: GradeRow }) {
  const exchange = useExchange();
  const target = { exchangeId: exchange.id, draftId: row.draftId ?? '' };
  const { data, error } = useDraftFeedbackQuery(target, { skip: row.draftId === null });
  if (row.draftId === null) return null;
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('marksWord')} />;
  return <MarkDraft feedback={data} draftId={row.draftId} ownForm={view.draftForm !== null} />;
}

interface GraderProps {
  readonly view: GradesView;
  readonly row: GradeRow;
  readonly work: GradingWork;
}

/** Whose this is, and how far it is. */
function Grader({ view, row, work }: GraderProps) {
  const exchange = useExchange();
  const [assign, { error }] = useAssignGraderMutation();
  const { grader } = row.work[work];
  if (row.work[work].state === 'none') {
    return (
      <p className="pb-3 text-ink-soft">{work === 'draft' ? say('nothingWasHandedIn') : say('noReviewOfThisPerson')}</p>
    );
  }
  return (
    <div className="flex flex-wrap items-center justify-between gap-3 pb-3">
      <p className="text-ink-soft">{say('workOf', { work, state: workWords({ ...row.work[work], grader: null }) })}</p>
      {view.graders.length > 1 && (
        <div className="w-52">
          <Select
            label={say('whoGradesThis')}
            labelHidden
            value={grader?.id ?? ''}
            options={[['', say('anybodyGradesThis')], ...view.graders.map(({ id, name }) => [id, name] as const)]}
            onChange={(id) =>
              void assign({
                ...{ exchangeId: exchange.id, participantId: row.id, work },
                graderId: id === '' ? null : id,
              })
            }
          />
        </div>
      )}
      {error !== undefined && <ProblemNotice error={error} />}
    </div>
  );
}
