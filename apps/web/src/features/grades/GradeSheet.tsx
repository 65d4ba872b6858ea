import type { GradeRow, GradesView } from '@salt-circle/contracts';
import { Link } from 'react-router';
import { Steps } from '../../app/boards/Steps.js';
import { Person } from '../../app/People.js';
import { useExchange } from '../../app/useExchange.js';
import { buttonClass, Sheet } from '../../kit/index.js';
import { MarkReviewing } from './MarkReviewing.js';
import { TheGrade } from './TheGrade.js';
import { say } from '../../words/grades.js';

interface GradeSheetProps {
  readonly view: GradesView;
  /** As they are listed: previous and next go by it. */
  readonly rows: readonly GradeRow[];
  readonly id: string;
  readonly onShow: (id: string) => void;
  readonly onClose: () => void;
}

/** One person’s grade beside the board: its arithmetic, giving something else, and marking the reviewing. */
export function GradeSheet({ view, rows, id, onShow, onClose }: GradeSheetProps) {
  const exchange = useExchange();
  const row = view.rows.find((one) => one.id === id);
  return (
    <Sheet
      onClose={onClose}
      title={row === undefined ? say('grade') : <Person label={row.person} />}
      aside={<Steps rows={rows} id={id} onShow={onShow} />}
    >
      {row !== undefined && (
        <div key={row.id} className="space-y-6">
          <TheGrade view={view} row={row} />
          <Link className={buttonClass('plain')} to={`/exchanges/${exchange.id}/grades/${row.id}`}>
            {say('gradeWithDraftAndReviews')}
          </Link>
          {row.reviewIds.length > 0 && !view.reviewingEach && <MarkReviewing view={view} row={row} ways />}
        </div>
      )}
    </Sheet>
  );
}
