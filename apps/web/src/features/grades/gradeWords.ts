import type { GradeGroundsView } from '@salt-circle/contracts';
import {
  counted,
  PART_WORDS,
  partRuleWords,
  QUALITY_COLUMNS,
  QUALITY_WORDS,
  ROUNDING_WORDS,
  SCORE_WORDS,
  shareWords,
  USUAL_PART_RULE,
  type Grade,
  type GradeLine,
  type GradePartName,
  type GradeRule,
} from '@salt-circle/core';

/** Percentage points, to two places at most. */
export function points(value: number): string {
  return String(Number(value.toFixed(2)));
}

const UNITS: Readonly<Partial<Record<GradePartName, readonly [one: string, many: string]>>> = {
  'reviews-done': ['of # review submitted', 'of # reviews submitted'],
  'form-completed': ['of # required answer given', 'of # required answers given'],
  'notes-made': ['of # note asked for', 'of # notes asked for'],
  replies: ['of # review answered', 'of # reviews answered'],
};

/** What was done for a part, in words: "3 of 4 notes asked for". */
export function doneWords({ part, got, of, state }: GradeLine, grounds: GradeGroundsView, rule: GradeRule): string {
  if (state === 'excused') return 'nothing was asked';
  if (got === null || of === null) return 'nothing to go by yet';
  const unit = UNITS[part];
  if (unit !== undefined)
    return `${got} ${counted(of, unit[0].replace('#', String(of)), unit[1].replace('#', String(of)))}`;
  switch (part) {
    case 'handing-in':
      return got >= 1 ? 'handed in' : 'not handed in';
    case 'reflection':
      return got >= 1 ? 'handed in' : 'not handed in';
    case 'peer-score':
      return `${shareWords(got)}, ${scoreWords(grounds, rule)}`;
    case 'instructor-mark':
      return `${shareWords(got)}, by the review of the staff`;
    default:
      return `${shareWords(got)}, ${qualityWords(grounds)}`;
  }
}

function scoreWords({ reviews, interval }: GradeGroundsView, { score }: GradeRule): string {
  const from = counted(reviews, 'from 1 review', 'from # reviews');
  const between =
    interval === null ? '' : `, between ${shareWords(interval.low)} and ${shareWords(interval.high)} 95 times in 100`;
  return `${SCORE_WORDS[score]} ${from}${between}`;
}

export function qualityWords({ quality }: GradeGroundsView): string {
  const said = QUALITY_COLUMNS.flatMap((column) => {
    const value = quality[column];
    return value === null ? [] : [`${QUALITY_WORDS[column]} ${shareWords(value)}`];
  });
  return said.length === 0 ? 'nothing to go by' : said.join(', ');
}

/** How what was done became the share that is given. */
export function ruleWords({ part, share: given, computed }: GradeLine, rule: GradeRule): string {
  if (computed === null || given === null) return '';
  const own = rule.parts[part] ?? USUAL_PART_RULE;
  // What is a share anyway, such as a score, need not be said to count as one.
  return own.how === 'proportion' && own.minimum === 0 && !(part in UNITS) ? '' : partRuleWords(own);
}

/** The lines as one sum: "(10 × 100 + 30 × 62.5) ÷ 40 = 71.88 percent". What is rounded here was not when it was worked out. */
export function sumWords(grade: Grade, rule: GradeRule): string {
  const counting = grade.lines.filter(({ state }) => state === 'counts');
  if (grade.computed === null || counting.length === 0) return 'Nothing counts yet, so there is no grade.';
  const times = ({ weight, share: given }: GradeLine) => `${weight} × ${points((given ?? 0) * 100)}`;
  const late = grade.lateLoses > 0 ? ` − ${points(grade.lateLoses)} for being late` : '';
  const sum = counting.reduce((all, { brings }) => all + brings, 0) - grade.lateLoses;
  const bounds = sum > rule.most ? `, at most ${rule.most}` : sum < 0 ? ', not below 0' : '';
  return `(${counting.map(times).join(' + ')}) ÷ ${grade.weights}${late} = ${points(sum)} percent${bounds}.`;
}

export function roundingWords({ scale, step, rounding }: GradeRule): string {
  const unit = { percent: 'percent', bands: 'percent, and said as the band that it falls in' };
  const words = scale.kind === 'points' ? `${step === 1 ? 'point' : 'points'} of ${scale.of}` : unit[scale.kind];
  return `Rounded to ${step} ${words}: ${ROUNDING_WORDS[rounding]}.`;
}

export function partName(part: GradePartName): string {
  const words = PART_WORDS[part];
  return words.charAt(0).toUpperCase() + words.slice(1);
}
