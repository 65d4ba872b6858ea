import type { GradeGroundsView } from '@salt-circle/contracts';
import {
  listed,
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
import { capitalised } from '../../app/capitalised.js';
import { say } from '../../words/grades.js';

/** Percentage points, to two places at most. */
export function points(value: number): string {
  return String(Number(value.toFixed(2)));
}

/** Parts of which there is a number: "3 of 4 notes asked for". */
const COUNTED = {
  'reviews-done': 'ofReviewSubmitted',
  'form-completed': 'ofRequiredAnswerGiven',
  'notes-made': 'ofNoteAskedFor',
  replies: 'ofReviewAnswered',
} as const satisfies Partial<Record<GradePartName, string>>;

function isCounted(part: GradePartName): part is keyof typeof COUNTED {
  return part in COUNTED;
}

/** What was done for a part, in words: "3 of 4 notes asked for". */
export function doneWords({ part, got, of, state }: GradeLine, grounds: GradeGroundsView, rule: GradeRule): string {
  if (state === 'excused') return say('nothingWasAsked');
  if (got === null || of === null) return say('nothingToGoByYet');
  if (isCounted(part)) return say(COUNTED[part], { got, of });
  const share = shareWords(got);
  switch (part) {
    case 'handing-in':
    case 'reflection':
      return got >= 1 ? say('handedIn') : say('notHandedIn');
    case 'peer-score':
      return say('sharedBy', { share, grounds: scoreWords(grounds, rule) });
    case 'instructor-mark':
      return say('byReviewOfStaff', { shareWords: share });
    default:
      return say('sharedBy', { share, grounds: qualityWords(grounds) });
  }
}

function scoreWords({ reviews, interval }: GradeGroundsView, { score }: GradeRule): string {
  const made = { score: SCORE_WORDS[score], reviews };
  if (interval === null) return say('fromReviews', made);
  return say('betweenAnd95TimesIn', { ...made, low: shareWords(interval.low), high: shareWords(interval.high) });
}

export function qualityWords({ quality }: GradeGroundsView): string {
  const said = QUALITY_COLUMNS.flatMap((column) => {
    const value = quality[column];
    return value === null ? [] : [say('shareOfColumn', { column: QUALITY_WORDS[column], share: shareWords(value) })];
  });
  return said.length === 0 ? say('nothingToGoBy') : listed(said, 'comma');
}

/** How what was done became the share that is given. */
export function ruleWords({ part, share: given, computed }: GradeLine, rule: GradeRule): string {
  if (computed === null || given === null) return '';
  const own = rule.parts[part] ?? USUAL_PART_RULE;
  // What is a share anyway, such as a score, need not be said to count as one.
  return own.how === 'proportion' && own.minimum === 0 && !isCounted(part) ? '' : partRuleWords(own);
}

/** The lines as one sum: "(10 × 100 + 30 × 62.5) ÷ 40 = 71.88 percent". What is rounded here was not when it was worked out. */
export function sumWords(grade: Grade, rule: GradeRule): string {
  const counting = grade.lines.filter(({ state }) => state === 'counts');
  if (grade.computed === null || counting.length === 0) return say('nothingCountsYetSoThere');
  const times = ({ weight, share: given }: GradeLine) => `${weight} × ${points((given ?? 0) * 100)}`;
  const sum = counting.reduce((all, { brings }) => all + brings, 0) - grade.lateLoses;
  const slots = {
    parts: counting.map(times).join(' + '),
    weights: grade.weights,
    sum: points(sum),
    bounds: sum > rule.most ? 'most' : sum < 0 ? 'least' : 'none',
    most: rule.most,
  };
  return grade.lateLoses > 0 ? say('sumLessLate', { ...slots, late: points(grade.lateLoses) }) : say('sumIs', slots);
}

export function roundingWords({ scale, step, rounding }: GradeRule): string {
  const how = ROUNDING_WORDS[rounding];
  switch (scale.kind) {
    case 'points':
      return say('pointOf', { step, of: scale.of, how });
    case 'percent':
      return say('roundedToOf', { step, how });
    case 'bands':
      return say('roundedInBands', { step, how });
  }
}

export function partName(part: GradePartName): string {
  return capitalised(PART_WORDS[part]);
}
