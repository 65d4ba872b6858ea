import type { GradeGroundsView } from '@salt-circle/contracts';
import { counted, PART_WORDS, type Grade, type GradeLine, type GradePartName, type GradeRule } from '@salt-circle/core';

/** A share in percent, to a tenth where that says more. */
export function share(value: number): string {
  return `${Number((value * 100).toFixed(1))}\u00a0%`;
}

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
export function doneWords({ part, got, of, state }: GradeLine, grounds: GradeGroundsView): string {
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
      return `${share(got)}, ${scoreWords(grounds)}`;
    case 'instructor-mark':
      return `${share(got)}, by the review of the staff`;
    default:
      return `${share(got)}, ${qualityWords(grounds)}`;
  }
}

const METHODS: Readonly<Record<GradeRule['score'], string>> = {
  mean: 'the mean',
  median: 'the median',
  trimmed: 'the mean without the highest and the lowest',
  adjusted: 'with the severity of reviewers taken out',
};

function scoreWords({ reviews, method, interval }: GradeGroundsView): string {
  const from = counted(reviews, 'from 1 review', 'from # reviews');
  const between =
    interval === null ? '' : `, between ${share(interval.low)} and ${share(interval.high)} 95 times in 100`;
  return `${METHODS[method]} ${from}${between}`;
}

const COLUMNS = {
  closeness: 'close to the others',
  substance: 'substance',
  helpfulness: 'helped authors',
  mark: 'marked',
} as const;

export function qualityWords({ quality }: GradeGroundsView): string {
  const said = (Object.keys(COLUMNS) as Array<keyof typeof COLUMNS>).flatMap((column) => {
    const value = quality[column];
    return value === null ? [] : [`${COLUMNS[column]} ${share(value)}`];
  });
  return said.length === 0 ? 'nothing to go by' : said.join(', ');
}

/** How what was done became the share that is given. */
export function ruleWords({ part, share: given, computed }: GradeLine, rule: GradeRule): string {
  const own = rule.parts[part];
  if (computed === null || given === null) return '';
  const counted = part in UNITS;
  if (own === undefined || own.how === 'proportion') {
    const minimum = own !== undefined && own.minimum > 0 ? `nothing below ${share(own.minimum)}` : '';
    return [counted ? 'in proportion' : '', minimum].filter(Boolean).join(', ');
  }
  return own.how === 'all' ? 'all or nothing' : 'in steps';
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

const ROUNDED: Readonly<Record<GradeRule['rounding'], string>> = {
  'half-up': 'to the nearest',
  'half-even': 'to the nearest, halves to the even one',
  down: 'down',
};

export function roundingWords({ scale, step, rounding }: GradeRule): string {
  const unit = { percent: 'percent', bands: 'percent, then the band it falls in' };
  const words = scale.kind === 'points' ? `${step === 1 ? 'point' : 'points'} of ${scale.of}` : unit[scale.kind];
  return `Rounded ${ROUNDED[rounding]} ${step} ${words}.`;
}

export function partName(part: GradePartName): string {
  const words = PART_WORDS[part];
  return words.charAt(0).toUpperCase() + words.slice(1);
}
