import { say } from '../words/grading.js';
import { listed } from '../words/listed.js';
import { wordsBy } from '../words/wordsBy.js';
import type { PartRule, QualityColumn, Rounding, ScoreMethod } from './gradeRule.js';

/** How one score is made of several. */
export const SCORE_WORDS: Readonly<Record<ScoreMethod, string>> = wordsBy(say, {
  mean: 'mean',
  median: 'median',
  trimmed: 'trimmed',
  practice: 'byPractice',
  adjusted: 'adjusted',
});

export const ROUNDING_WORDS: Readonly<Record<Rounding, string>> = wordsBy(say, {
  'half-up': 'halfUp',
  'half-even': 'halfEven',
  down: 'down',
});

export const QUALITY_WORDS: Readonly<Record<QualityColumn, string>> = wordsBy(say, {
  closeness: 'closeToOthers',
  staff: 'closeToStaff',
  substance: 'substance',
  helpfulness: 'helpedAuthors',
  mark: 'markedByStaff',
});

export const HOW_WORDS: Readonly<Record<PartRule['how'], string>> = wordsBy(say, {
  proportion: 'inProportion',
  all: 'allOrNothing',
  steps: 'inSteps',
});

/** A share in percent, to a tenth: "62.5%". */
export function shareWords(share: number): string {
  return `${Number((share * 100).toFixed(1))}%`;
}

/** How what was done becomes what is given: "in steps: 50% from 50% on, 100% from 80% on; nothing below 20%". */
export function partRuleWords({ how, steps, minimum }: PartRule): string {
  const ascending = [...steps].sort((a, b) => a.from - b.from);
  const each = ascending.map(({ from, gives }) => say('step', { gives: shareWords(gives), from: shareWords(from) }));
  const words = how === 'steps' ? say('stepsGiven', { steps: listed(each, 'comma') }) : HOW_WORDS[how];
  return minimum > 0 ? say('nothingBelow', { how: words, share: shareWords(minimum) }) : words;
}

export const MISSING_WORDS = wordsBy(say, { open: 'leftOut', zero: 'countsAsNothing' });
