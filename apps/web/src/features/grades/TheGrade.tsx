import type { GradeRow, GradesView, Problem } from '@salt-circle/contracts';
import type { GradeLine, GradePartName } from '@salt-circle/core';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, TextArea, TextField } from '../../kit/index.js';
import { Arithmetic } from './Arithmetic.js';
import { points } from './gradeWords.js';
import { useOverrideGradeMutation } from './gradesApi.js';
import { say } from '../../words/grades.js';

/** How one person’s grade came about, and giving something else. */
export function TheGrade({ view, row }: { readonly view: GradesView; readonly row: GradeRow }) {
  const exchange = useExchange();
  const [giving, setGiving] = useState<GradePartName | '' | null>(null);
  const { grade, draftId } = row;
  const evidence = ({ part }: GradeLine): string | null => {
    const desk = `/exchanges/${exchange.id}/grades/${row.id}`;
    if (part === 'handing-in' || part === 'instructor-mark') return draftId === null ? null : desk;
    if (part === 'peer-score') return draftId === null ? null : `/exchanges/${exchange.id}/check/${draftId}`;
    if (part === 'replies' || part === 'reflection')
      return draftId === null ? null : `/exchanges/${exchange.id}/after/${draftId}`;
    return row.reviewIds[0] === undefined ? null : `${desk}/given/${row.reviewIds[0]}`;
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
    <section aria-label={say('gradeLabel')}>
      <p className="mb-2 text-3xl font-semibold tabular-nums">{grade.words ?? say('noneYet')}</p>
      <Arithmetic
        grade={grade}
        rule={view.rule}
        grounds={row.grounds}
        evidence={evidence}
        below={(line) => instead(line.part, line.override === null ? say('giveSomethingElse') : say('change'))}
      />
      <div className="mt-2">
        {instead('', grade.override === null ? say('giveAnotherGradeAsWhole') : say('changeGradeAsWhole'))}
      </div>
    </section>
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
        label={say('percent0To', { most })}
        type="number"
        min={0}
        max={most}
        step="any"
        value={value}
        problem={at('value')}
        onChange={({ target }) => setValue(target.value)}
      />
      <TextArea
        label={say('why')}
        hint={say('staysOnRecordStudentReads')}
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
          {say('giveIt')}
        </Button>
        {known !== null && (
          <Button small busy={isLoading} onClick={() => void go(null)}>
            {say('removeOverride')}
          </Button>
        )}
        <Button small onClick={onDone}>
          {say('leaveIt')}
        </Button>
      </div>
    </div>
  );
}
