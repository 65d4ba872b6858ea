import type { GradeRow, GradesView, Problem } from '@salt-circle/contracts';
import type { GradeLine, GradePartName } from '@salt-circle/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { ItemInput } from '../../app/form/ItemInput.js';
import { useAnswers } from '../../app/form/useAnswers.js';
import { Person } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useSavingState } from '../../app/saving/useSaving.js';
import { useMe } from '../../app/session/useMe.js';
import { Steps } from '../../app/boards/Steps.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, SaveMark, Sheet, TextArea, TextField } from '../../kit/index.js';
import { Arithmetic } from './Arithmetic.js';
import { points, qualityWords } from './gradeWords.js';
import { useOverrideGradeMutation } from './gradesApi.js';

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
  const row = view.rows.find((one) => one.id === id);
  return (
    <Sheet
      onClose={onClose}
      title={row === undefined ? 'Grade' : <Person label={row.person} />}
      aside={<Steps rows={rows} id={id} onShow={onShow} />}
    >
      {row !== undefined && <OnePerson key={row.id} view={view} row={row} />}
    </Sheet>
  );
}

function OnePerson({ view, row }: { readonly view: GradesView; readonly row: GradeRow }) {
  const exchange = useExchange();
  const [giving, setGiving] = useState<GradePartName | '' | null>(null);
  const { grade, draftId } = row;
  const evidence = ({ part }: GradeLine): string | null => {
    const base = `/exchanges/${exchange.id}`;
    if (part === 'handing-in') return draftId === null ? null : `${base}/drafts/${draftId}`;
    if (part === 'peer-score' || part === 'instructor-mark')
      return draftId === null ? null : `${base}/check/${draftId}`;
    if (part === 'replies' || part === 'reflection') return draftId === null ? null : `${base}/after/${draftId}`;
    return row.reviewIds[0] === undefined ? null : `/reviews/${row.reviewIds[0]}`;
  };
  const instead = (part: GradePartName | '', words: string) =>
    giving === part ? (
      <GiveInstead row={row} part={part} most={part === '' ? view.rule.most : 100} onDone={() => setGiving(null)} />
    ) : (
      <button type="button" className="min-h-6 text-sm text-dusk underline" onClick={() => setGiving(part)}>
        {words}
      </button>
    );
  return (
    <div className="space-y-6">
      <section aria-label="The grade">
        <p className="mb-2 text-3xl font-semibold tabular-nums">{grade.words ?? 'none yet'}</p>
        <Arithmetic
          grade={grade}
          rule={view.rule}
          grounds={row.grounds}
          evidence={evidence}
          below={(line) => instead(line.part, line.override === null ? 'Give something else' : 'Change')}
        />
        <div className="mt-2">
          {instead('', grade.override === null ? 'Give another grade as a whole' : 'Change the grade as a whole')}
        </div>
      </section>
      {row.reviewIds.length > 0 && <Reviewing view={view} row={row} />}
    </div>
  );
}

interface GiveInsteadProps {
  readonly row: GradeRow;
  readonly part: GradePartName | '';
  /** In percent. */
  readonly most: number;
  readonly onDone: () => void;
}

function GiveInstead({ row, part, most, onDone }: GiveInsteadProps) {
  const exchange = useExchange();
  const line = row.grade.lines.find((one) => one.part === part);
  const known = part === '' ? row.grade.override : (line?.override ?? null);
  const scale = part === '' ? 1 : 100;
  const [value, setValue] = useState(known === null ? '' : points(known.value * scale));
  const [reason, setReason] = useState(known?.reason ?? '');
  const [save, { isLoading }] = useOverrideGradeMutation();
  const [problem, setProblem] = useState<Problem | null>(null);
  const go = async (next: number | null) => {
    const target = { exchangeId: exchange.id, participantId: row.id, part };
    const result = await save({ ...target, value: next === null ? null : next / scale, reason });
    if (result.error === undefined) onDone();
    else setProblem(result.error as Problem);
  };
  const at = (path: string) => problem?.fields.find((one) => one.path === path)?.sentence;
  const number = Number(value);
  return (
    <div className="my-2 space-y-2 border-l-[3px] border-iodine pl-3">
      <TextField
        label={`Percent, 0 to ${most}`}
        type="number"
        min={0}
        max={most}
        step="any"
        value={value}
        problem={at('value')}
        onChange={({ target }) => setValue(target.value)}
      />
      <TextArea
        label="Why"
        hint="Stays on record; the student reads it with the grade."
        value={reason}
        maxLength={2_000}
        problem={at('reason')}
        onChange={({ target }) => setReason(target.value)}
      />
      {problem !== null && problem.fields.length === 0 && <ProblemNotice error={problem} />}
      <div className="flex flex-wrap gap-2">
        <Button
          small
          look="primary"
          busy={isLoading}
          disabled={value.trim() === '' || Number.isNaN(number) || reason.trim() === ''}
          onClick={() => void go(number)}
        >
          Give it
        </Button>
        {known !== null && (
          <Button small busy={isLoading} onClick={() => void go(null)}>
            Take it back
          </Button>
        )}
        <Button small onClick={onDone}>
          Leave it
        </Button>
      </div>
    </div>
  );
}

/** The form by which reviewing is marked, beside that person’s reviews; saved as it is filled in. */
function Reviewing({ view, row }: { readonly view: GradesView; readonly row: GradeRow }) {
  const exchange = useExchange();
  const me = useMe();
  const prefix = `${me.id}:grade:${row.id}:`;
  const { answers, change } = useAnswers({ items: view.reviewingForm }, row.mark.answers, prefix, {
    url: `/api/exchanges/${exchange.id}/grades/${row.id}/reviewing`,
  });
  const { state, savedAt } = useSavingState(prefix);
  const counts = view.parts.some(({ part }) => part === 'review-quality') && view.rule.quality.mark > 0;
  return (
    <section aria-label="Reviewing" className="border-t border-line pt-4">
      <div className="flex items-start justify-between gap-3">
        <h3 className="text-lg font-semibold">Reviewing</h3>
        <SaveMark state={state} savedAt={savedAt} />
      </div>
      <p className="text-sm text-ink-soft">
        {qualityWords(row.grounds)}
        {!counts && '. The mark is not part of the grade.'}
        {row.mark.by !== null && `. Last marked by ${row.mark.by}`}
      </p>
      <p className="my-2 flex flex-wrap gap-x-3">
        {row.reviewIds.map((id, index) => (
          <Link key={id} to={`/reviews/${id}`} className="text-dusk underline">
            Review {index + 1}
          </Link>
        ))}
      </p>
      <div className="space-y-4">
        {view.reviewingForm.map((item) => (
          <div key={item.id}>
            <p className="font-medium">{item.title}</p>
            {item.guidance !== '' && <p className="text-sm text-ink-soft">{item.guidance}</p>}
            <ItemInput item={item} answer={answers[item.id]} onChange={(part) => change(item.id, part)} />
          </div>
        ))}
      </div>
    </section>
  );
}
