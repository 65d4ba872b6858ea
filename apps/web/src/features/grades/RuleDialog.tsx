import type { GradeMoveView, GradeRuleRequest, GradesView, Problem } from '@salt-circle/contracts';
import {
  GRADE_STEPS,
  MISSING_WORDS,
  ROUNDING_WORDS,
  SCORE_WORDS,
  USUAL_PART_RULE,
  type GradePart,
  type GradeRule,
} from '@salt-circle/core';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { GradeParts } from '../../app/GradeParts.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Checkbox, Dialog, Select } from '../../kit/index.js';
import { Moves } from './Moves.js';
import { partName } from './gradeWords.js';
import { usePreviewRuleMutation, useSaveGradeRuleMutation } from './gradesApi.js';
import { entriesOf, NumberField, PartRules, Quality, Scale } from './RuleFields.js';
import { say } from '../../words/grades.js';

/** What a grade is made of, with whose moves by how much before it is kept. */
export function RuleDialog({ view, onClose }: { readonly view: GradesView; readonly onClose: () => void }) {
  const exchange = useExchange();
  const [parts, setParts] = useState(view.parts);
  const [rule, setRule] = useState(view.rule);
  const [moves, setMoves] = useState<readonly GradeMoveView[] | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [preview, previewing] = usePreviewRuleMutation();
  const [save, saving] = useSaveGradeRuleMutation();
  const asked = { exchangeId: exchange.id, ...requestOf(view.revision, parts, rule) };
  const problemAt = (path: string) => problem?.fields.find((one) => one.path === path)?.sentence;
  const change = (next: Partial<GradeRule>) => {
    setRule({ ...rule, ...next });
    setMoves(null);
  };
  const look = async () => {
    const result = await preview(asked);
    setProblem(result.error === undefined ? null : (result.error as Problem));
    setMoves(result.data ?? null);
  };
  const keep = async () => {
    const result = await save(asked);
    if (result.error === undefined) onClose();
    else setProblem(result.error as Problem);
  };
  const others = problem?.fields.filter(({ path }) => !path.startsWith('gradeParts')) ?? [];
  return (
    <Dialog open wide onClose={onClose} title={say('weightsAndRulesLabel')} description={say('whoseGradeMovesIsShown')}>
      <div className="space-y-5">
        <GradeParts
          parts={parts}
          problemAt={problemAt}
          onChange={(next) => {
            setParts(next);
            setMoves(null);
          }}
        />
        {parts.map(({ part }) => (
          <PartRules
            key={part}
            name={partName(part)}
            rule={rule.parts[part] ?? USUAL_PART_RULE}
            onChange={(own) => change({ parts: { ...rule.parts, [part]: own } })}
          />
        ))}
        <div className="grid gap-4 sm:grid-cols-2">
          <Select
            label={say('scoreOfPeers')}
            value={rule.score}
            options={entriesOf(SCORE_WORDS)}
            onChange={(score) => change({ score: score as GradeRule['score'] })}
          />
          <Select
            label={say('whatIsNotThere')}
            value={rule.missing}
            options={entriesOf(MISSING_WORDS)}
            onChange={(missing) => change({ missing: missing as GradeRule['missing'] })}
          />
          <Scale rule={rule} onChange={change} />
          <Select
            label={say('roundedTo')}
            value={String(rule.step)}
            options={GRADE_STEPS.map((step) => [String(step), String(step)] as const)}
            onChange={(step) => change({ step: Number(step) })}
          />
          <Select
            label={say('rounding')}
            value={rule.rounding}
            options={entriesOf(ROUNDING_WORDS)}
            onChange={(rounding) => change({ rounding: rounding as GradeRule['rounding'] })}
          />
          <NumberField label={say('atMostPercent')} value={rule.most} onChange={(most) => change({ most })} />
        </div>
        {rule.score === 'adjusted' && (
          <div>
            <Checkbox
              label={say('studentsAreShownBetweenWhat')}
              checked={rule.scoreTold}
              onChange={({ target }) => change({ scoreTold: target.checked })}
            />
          </div>
        )}
        <Quality rule={rule} onChange={change} />
        {others.map(({ path, sentence }) => (
          <p key={path} className="text-madder">
            {sentence}
          </p>
        ))}
        {problem !== null && problem.fields.length === 0 && <ProblemNotice error={problem} />}
        {moves !== null && <Moves moves={moves} />}
        <div className="flex gap-2">
          <Button look={moves === null ? 'primary' : 'plain'} busy={previewing.isLoading} onClick={() => void look()}>
            {say('showWhoMoves')}
          </Button>
          <Button
            look={moves === null ? 'plain' : 'primary'}
            disabled={moves === null}
            busy={saving.isLoading}
            onClick={() => void keep()}
          >
            {say('save')}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}

function requestOf(revision: number, parts: readonly GradePart[], rule: GradeRule): GradeRuleRequest {
  const { parts: named, scale, ...rest } = rule;
  const kept = parts.flatMap(({ part }) => {
    const own = named[part];
    return own === undefined ? [] : [{ part, ...own }];
  });
  const request = { ...rest, scale, revision, gradeParts: [...parts], parts: kept };
  return structuredClone(request) as unknown as GradeRuleRequest;
}
