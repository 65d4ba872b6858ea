import type { PartRule, QualityColumn, Rounding, ScoreMethod } from './gradeRule.js';

/** How one score is made of several. */
export const SCORE_WORDS: Readonly<Record<ScoreMethod, string>> = {
  mean: 'the mean',
  median: 'the median',
  trimmed: 'the mean without the highest and the lowest',
  practice: 'the mean, weighted by how near each reviewer came to the key in practice',
  adjusted: 'with the severity of reviewers taken out',
};

export const ROUNDING_WORDS: Readonly<Record<Rounding, string>> = {
  'half-up': 'to the nearest, halves up',
  'half-even': 'to the nearest, halves to the even one',
  down: 'down',
};

export const QUALITY_WORDS: Readonly<Record<QualityColumn, string>> = {
  closeness: 'close to the others',
  staff: 'close to the staff',
  substance: 'substance',
  helpfulness: 'helped authors',
  mark: 'marked by staff',
};

export const HOW_WORDS: Readonly<Record<PartRule['how'], string>> = {
  proportion: 'in proportion',
  all: 'all or nothing',
  steps: 'in steps',
};

/** A share in percent, to a tenth: "62.5%". */
export function shareWords(share: number): string {
  return `${Number((share * 100).toFixed(1))}%`;
}

/** How what was done becomes what is given: "in steps: 50% from 50% on, 100% from 80% on; nothing below 20%". */
export function partRuleWords({ how, steps, minimum }: PartRule): string {
  const ascending = [...steps].sort((a, b) => a.from - b.from);
  const each = ascending.map(({ from, gives }) => `${shareWords(gives)} from ${shareWords(from)} on`);
  return [
    how === 'steps' ? `${HOW_WORDS.steps}: ${each.join(', ')}` : HOW_WORDS[how],
    ...(minimum > 0 ? [`nothing below ${shareWords(minimum)}`] : []),
  ].join('; ');
}

export const MISSING_WORDS = { open: 'is left out until it is there', zero: 'counts as nothing' } as const;
