import type { GradeMoveView, GradeRuleRequest, GradesView, Problem } from '@salt-circle/contracts';
import {
  GRADE_STEPS,
  PART_WORDS,
  USUAL_PART_RULE,
  type GradePart,
  type GradeRule,
  type PartRule,
} from '@salt-circle/core';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { GradeParts } from '../../app/GradeParts.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Checkbox, Dialog, Select, TextField } from '../../kit/index.js';
import { Moves } from './Moves.js';
import { partName, points } from './gradeWords.js';
import { usePreviewRuleMutation, useSaveGradeRuleMutation } from './gradesApi.js';

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
    <Dialog
      open
      wide
      onClose={onClose}
      title="Weights and rules"
      description="Whose grade moves is shown before anything is kept. Students are told when weights change."
    >
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
            label="Score of peers"
            value={rule.score}
            options={[
              ['mean', 'the mean'],
              ['median', 'the median'],
              ['trimmed', 'the mean without the highest and the lowest'],
              ['adjusted', 'with the severity of reviewers taken out'],
            ]}
            onChange={(score) => change({ score: score as GradeRule['score'] })}
          />
          <Select
            label="What is not there"
            value={rule.missing}
            options={[
              ['open', 'is left out until it is'],
              ['zero', 'counts as nothing'],
            ]}
            onChange={(missing) => change({ missing: missing as GradeRule['missing'] })}
          />
          <Scale rule={rule} onChange={change} />
          <Select
            label="Rounded to"
            value={String(rule.step)}
            options={GRADE_STEPS.map((step) => [String(step), String(step)] as const)}
            onChange={(step) => change({ step: Number(step) })}
          />
          <Select
            label="Rounding"
            value={rule.rounding}
            options={[
              ['half-up', 'to the nearest, halves up'],
              ['half-even', 'to the nearest, halves to the even one'],
              ['down', 'down'],
            ]}
            onChange={(rounding) => change({ rounding: rounding as GradeRule['rounding'] })}
          />
          <TextField
            label="At most, percent"
            inputMode="decimal"
            defaultValue={String(rule.most)}
            onBlur={({ target }) => change({ most: Number(target.value.replace(',', '.')) || 0 })}
          />
        </div>
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
            Show who moves
          </Button>
          <Button
            look={moves === null ? 'plain' : 'primary'}
            disabled={moves === null}
            busy={saving.isLoading}
            onClick={() => void keep()}
          >
            Keep
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

interface PartRulesProps {
  readonly name: string;
  readonly rule: PartRule;
  readonly onChange: (rule: PartRule) => void;
}

function PartRules({ name, rule, onChange }: PartRulesProps) {
  const percent = (value: number) => points(value * 100);
  return (
    <fieldset className="border-t border-line pt-2">
      <legend className="font-medium">{name}</legend>
      <div className="flex flex-wrap items-end gap-4">
        <div className="w-56">
          <Select
            label={`How ${name} counts`}
            labelHidden
            value={rule.how}
            options={[
              ['proportion', 'in proportion'],
              ['all', 'all or nothing'],
              ['steps', 'half from 50 %, all from 80 %'],
            ]}
            onChange={(how) =>
              onChange({
                ...rule,
                how: how as PartRule['how'],
                steps:
                  how === 'steps'
                    ? [
                        { from: 0.5, gives: 0.5 },
                        { from: 0.8, gives: 1 },
                      ]
                    : [],
              })
            }
          />
        </div>
        <div className="w-40">
          <TextField
            label="Nothing below, percent"
            inputMode="decimal"
            defaultValue={percent(rule.minimum)}
            onBlur={({ target }) => onChange({ ...rule, minimum: (Number(target.value.replace(',', '.')) || 0) / 100 })}
          />
        </div>
        <Checkbox
          label="on top, as a bonus"
          checked={rule.bonus}
          onChange={({ target }) => onChange({ ...rule, bonus: target.checked })}
        />
      </div>
    </fieldset>
  );
}

interface RuleProps {
  readonly rule: GradeRule;
  readonly onChange: (next: Partial<GradeRule>) => void;
}

function Scale({ rule, onChange }: RuleProps) {
  const { scale } = rule;
  const bands = scale.kind === 'bands' ? scale.bands : [];
  return (
    <div className="space-y-2">
      <Select
        label="Said in"
        value={scale.kind}
        options={[
          ['percent', 'percent'],
          ['points', 'points'],
          ['bands', 'bands of our own'],
        ]}
        onChange={(kind) =>
          onChange({
            scale:
              kind === 'points'
                ? { kind: 'points', of: 100 }
                : kind === 'bands'
                  ? {
                      kind: 'bands',
                      bands: [
                        { name: 'not yet', from: 0 },
                        { name: 'sound', from: 50 },
                        { name: 'strong', from: 80 },
                      ],
                    }
                  : { kind: 'percent' },
          })
        }
      />
      {scale.kind === 'points' && (
        <TextField
          label="Out of"
          inputMode="decimal"
          defaultValue={String(scale.of)}
          onBlur={({ target }) =>
            onChange({ scale: { kind: 'points', of: Number(target.value.replace(',', '.')) || 0 } })
          }
        />
      )}
      {bands.map((band, index) => (
        <div key={index} className="flex gap-2">
          <TextField
            label={`Name of band ${index + 1}`}
            labelHidden
            defaultValue={band.name}
            maxLength={60}
            onBlur={({ target }) => onChange({ scale: withBand(bands, index, { ...band, name: target.value }) })}
          />
          <TextField
            label={`From how many percent band ${index + 1} is given`}
            labelHidden
            inputMode="decimal"
            defaultValue={String(band.from)}
            onBlur={({ target }) =>
              onChange({
                scale: withBand(bands, index, { ...band, from: Number(target.value.replace(',', '.')) || 0 }),
              })
            }
          />
          <Button
            small
            onClick={() => onChange({ scale: { kind: 'bands', bands: bands.filter((_, at) => at !== index) } })}
          >
            Remove
          </Button>
        </div>
      ))}
      {scale.kind === 'bands' && (
        <Button
          small
          onClick={() =>
            onChange({
              scale: {
                kind: 'bands',
                bands: [...bands, { name: 'another', from: Math.min(100, (bands.at(-1)?.from ?? 0) + 10) }],
              },
            })
          }
        >
          Add a band
        </Button>
      )}
    </div>
  );
}

type Bands = Extract<GradeRule['scale'], { kind: 'bands' }>['bands'];

function withBand(bands: Bands, index: number, band: Bands[number]): GradeRule['scale'] {
  return { kind: 'bands', bands: bands.map((one, at) => (at === index ? band : one)) };
}

const QUALITY = [
  ['closeness', 'close to the others'],
  ['substance', 'substance'],
  ['helpfulness', 'helped authors'],
  ['mark', 'marked by staff'],
] as const;

function Quality({ rule, onChange }: RuleProps) {
  return (
    <fieldset className="border-t border-line pt-2">
      <legend className="font-medium">What {PART_WORDS['review-quality']} is weighed from</legend>
      <div className="flex flex-wrap gap-4">
        {QUALITY.map(([column, words]) => (
          <div key={column} className="w-36">
            <TextField
              label={words}
              inputMode="decimal"
              defaultValue={String(rule.quality[column])}
              onBlur={({ target }) =>
                onChange({ quality: { ...rule.quality, [column]: Number(target.value.replace(',', '.')) || 0 } })
              }
            />
          </div>
        ))}
      </div>
    </fieldset>
  );
}
