import type { GradeRow, GradesView } from '@salt-circle/contracts';
import { shareWords, type GradeLine, type GradingWork, wordsBy, listed } from '@salt-circle/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { PeopleBoard, usePersonColumns } from '../../app/boards/PeopleBoard.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useMe } from '../../app/session/useMe.js';
import { useExchange } from '../../app/useExchange.js';
import { useTake } from '../../app/useTake.js';
import { When } from '../../app/time/When.js';
import { Button, buttonClass, Loading, Menu, StateMark, type BoardColumn } from '../../kit/index.js';
import { GradersDialog } from './GradersDialog.js';
import { GradeSheet } from './GradeSheet.js';
import { partName } from './gradeWords.js';
import { GradebookDialog, gradebookWords } from './GradebookDialog.js';
import { useGradebookQuery, useGradesQuery } from './gradesApi.js';
import { ReleaseGradesDialog } from './ReleaseGradesDialog.js';
import { MarkingFormsDialog } from './MarkingFormsDialog.js';
import { RuleDialog } from './RuleDialog.js';
import { asked, gradedOf, isOf, progressWords, workWords } from './work.js';
import { say } from '../../words/grades.js';

const SHOWN = wordsBy(say, {
  mine: 'mineToGradeLabel',
  unmarked: 'reviewingNotMarked',
  open: 'somethingOpen',
  changed: 'changedSinceOverridden',
  late: 'late',
});
type Shown = keyof typeof SHOWN;

const SHOWN_ROWS = {
  open: ({ grade }: GradeRow) => grade.open,
  unmarked: ({ work }: GradeRow) => work.reviewing.state === 'open' || work.reviewing.state === 'half',
  changed: ({ grade }: GradeRow) => grade.changed || grade.lines.some(({ changed }) => changed),
  late: ({ grounds }: GradeRow) => grounds.late.percent + grounds.late.points > 0,
};

/** Everybody’s grade, part by part; each opens into its arithmetic. */
export function GradesPage() {
  const exchange = useExchange();
  const [provisional, setProvisional] = useState(false);
  const usual = usePolling(30_000);
  const { data, error } = useGradesQuery(exchange.id, {
    refetchOnMountOrArgChange: true,
    pollingInterval: provisional ? 20_000 : usual,
  });
  if (data !== undefined && data.provisional !== provisional) setProvisional(data.provisional);
  const [shown, setShown] = useState<Shown | null>(null);
  const [open, setOpen] = useState<string | null>(null);
  const [dialog, setDialog] = useState<'rule' | 'release' | 'graders' | 'form' | 'gradebook' | null>(null);
  const me = useMe();
  const { data: gradebook } = useGradebookQuery(
    { exchangeId: exchange.id, state: null },
    { refetchOnMountOrArgChange: true, pollingInterval: usual, skip: data?.mayRule !== true },
  );
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('grades')} />;
  const works = asked(data);
  const holds: Readonly<Record<Shown, (row: GradeRow) => boolean>> = {
    mine: (row) => isOf(row, works, me.id) && ['open', 'half'].includes(gradedOf(row, works)),
    ...SHOWN_ROWS,
  };
  const rows = shown === null ? data.rows : data.rows.filter(holds[shown]);
  const released = data.rows.filter((row) => row.released).length;
  const { timeZone } = exchange.course;
  return (
    <div className="px-5 py-5">
      <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl font-semibold">
          {say('gradesLabel')}{' '}
          <span className="text-base font-normal text-ink-soft">
            {say('whoSees', {
              who:
                data.release !== null && released < data.rows.length
                  ? say('studentsSeeThemFrom', { when: <When at={data.release} timeZone={timeZone} /> })
                  : say('ofStudentsSeeTheirs', { released, students: data.rows.length }),
              progress: progressWords(data.rows, works),
            })}
          </span>
        </h2>
        <div className="flex flex-wrap gap-2">
          {(Object.keys(SHOWN) as Shown[])
            .filter((key) => key === shown || data.rows.some(holds[key]))
            .map((key) => (
              <Button
                key={key}
                aria-pressed={shown === key}
                className="aria-pressed:border-iodine aria-pressed:bg-crust"
                onClick={() => setShown(shown === key ? null : key)}
              >
                {SHOWN[key]} {data.rows.filter(holds[key]).length}
              </Button>
            ))}
          <Link className={buttonClass('plain')} to="../insights">
            {say('insights')}
          </Link>
          <Files exchangeId={exchange.id} />
          {data.mayRule && data.graders.length > 1 && (
            <Button onClick={() => setDialog('graders')}>{say('shareOutLabel')}</Button>
          )}
          {data.mayRule && <Button onClick={() => setDialog('form')}>{say('formsForMarking')}</Button>}
          {gradebook !== undefined && gradebook.platform !== null && (
            <Button onClick={() => setDialog('gradebook')}>{gradebookWords(gradebook)}</Button>
          )}
          {data.mayRule && <Button onClick={() => setDialog('rule')}>{say('weightsAndRules')}</Button>}
          {data.mayRule && (
            <Button look="primary" onClick={() => setDialog('release')}>
              {say('release')}
            </Button>
          )}
        </div>
      </div>
      {data.problem !== null && <p className="mb-3 text-copper">{data.problem}</p>}
      {data.parts.length === 0 && (
        <div className="mb-3 max-w-prose">
          <p className="font-semibold">{say('noGradeIsPlannedHere')}</p>
          <p className="text-ink-soft">{say('sayUnderWeightsAndRules')}</p>
        </div>
      )}
      <Board view={data} rows={rows} open={open} onOpen={setOpen} />
      {dialog === 'rule' && <RuleDialog view={data} onClose={() => setDialog(null)} />}
      {dialog === 'graders' && <GradersDialog view={data} onClose={() => setDialog(null)} />}
      {dialog === 'form' && <MarkingFormsDialog view={data} onClose={() => setDialog(null)} />}
      {dialog === 'gradebook' && gradebook !== undefined && (
        <GradebookDialog key={gradebook.columns} view={gradebook} onClose={() => setDialog(null)} />
      )}
      {dialog === 'release' && <ReleaseGradesDialog view={data} chosen={rows} onClose={() => setDialog(null)} />}
    </div>
  );
}

/** All of it for other programs. */
function Files({ exchangeId }: { readonly exchangeId: string }) {
  const { busy, problem, take } = useTake();
  const base = `/exchanges/${exchangeId}`;
  return (
    <div>
      <Menu
        trigger={<Button busy={busy}>{say('takeAlong')}</Button>}
        groups={[
          [
            { words: say('gradesAsSpreadsheetXlsx'), onPick: () => void take(`${base}/grades.xlsx`) },
            { words: say('gradesAsTableCsv'), onPick: () => void take(`${base}/grades.csv`) },
            { words: say('allNotesForProgramsJson'), onPick: () => void take(`${base}/notes.jsonld`) },
          ],
        ]}
      />
      {problem !== null && <ProblemNotice error={problem} />}
    </div>
  );
}

interface BoardProps {
  readonly view: GradesView;
  readonly rows: readonly GradeRow[];
  readonly open: string | null;
  readonly onOpen: (id: string | null) => void;
}

function Board({ view, rows, open, onOpen }: BoardProps) {
  const exchange = useExchange();
  const person = usePersonColumns<GradeRow>((row) => (
    <Link
      to={`/exchanges/${exchange.id}/grades/${row.id}`}
      className="text-ink no-underline hover:underline"
      title={say('gradeWithDraftAndReviews')}
    >
      {row.person.name}
    </Link>
  ));
  const works = asked(view);
  const lineOf = (row: GradeRow, index: number) => row.grade.lines[index];
  const columns: Array<BoardColumn<GradeRow>> = [
    ...person,
    {
      key: 'marks',
      head: say('marks'),
      sort: (row) => ['graded', 'half', 'open', 'nothing'].indexOf(gradedOf(row, works)),
      cell: (row) => <MarksCell row={row} works={works} />,
    },
    ...view.parts.map(({ part, weight }, index): BoardColumn<GradeRow> => ({
      key: part,
      head: `${partName(part)} (${weight})`,
      right: true,
      most: true,
      sort: (row) => lineOf(row, index)?.share ?? null,
      cell: (row) => <PartCell line={lineOf(row, index)} onOpen={() => onOpen(row.id)} />,
    })),
    {
      key: 'grade',
      head: say('grade'),
      right: true,
      most: true,
      sort: ({ grade }) => grade.percent,
      cell: ({ id, grade, correction }) => (
        <button type="button" className="min-h-6 font-semibold hover:underline" onClick={() => onOpen(id)}>
          {grade.words ?? <span className="font-normal text-ink-soft">{say('noneYet')}</span>}
          {grade.override !== null && <span title={say('somethingElseThanWhatWas')}> *</span>}
          {correction !== null && (
            <span className="block text-sm font-normal text-copper">{say('was', { correction })}</span>
          )}
        </button>
      ),
    },
    {
      key: 'seen',
      head: say('released'),
      sort: ({ released }) => (released ? 1 : 0),
      cell: ({ released }) => (
        <StateMark state={released ? 'done' : 'not-begun'} word={released ? say('releasedWord') : say('notReleased')} />
      ),
    },
  ];
  return (
    <PeopleBoard
      label={say('gradesLabel')}
      rows={rows}
      columns={columns}
      beside={(shown) =>
        open !== null && <GradeSheet view={view} rows={shown} id={open} onShow={onOpen} onClose={() => onOpen(null)} />
      }
      stopsOf={({ id, person: { name = '' } }) => [{ to: `/exchanges/${exchange.id}/grades/${id}`, words: name }]}
    />
  );
}

const MARKED = { graded: 'done', half: 'in-progress', open: 'not-begun' } as const;

function MarksCell({ row, works }: { readonly row: GradeRow; readonly works: readonly GradingWork[] }) {
  const graded = gradedOf(row, works);
  if (graded === 'nothing') return <span className="text-ink-soft">{say('none')}</span>;
  const words = works.map((work) =>
    say(work === 'draft' ? 'markOfDraft' : 'markOfReviewing', { state: workWords(row.work[work]) }),
  );
  return <StateMark state={MARKED[graded]} share={0.5} word={listed(words, 'comma')} />;
}

function PartCell({ line, onOpen }: { readonly line: GradeLine | undefined; readonly onOpen: () => void }) {
  if (line === undefined) return null;
  if (line.state === 'excused') return <StateMark state="excused" word={say('excused')} wordHidden={false} />;
  if (line.share === null) return <span className="text-ink-soft">{say('open')}</span>;
  return (
    <button
      type="button"
      className="min-h-6 tabular-nums hover:underline"
      onClick={onOpen}
      title={say('howItCameAbout')}
    >
      {shareWords(line.share)}
      {line.override !== null && <span className={line.changed ? 'text-copper' : ''}> *</span>}
    </button>
  );
}
