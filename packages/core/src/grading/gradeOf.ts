import type { GradePart, GradePartName } from '../setup/gradeParts.js';
import { USUAL_PART_RULE, type GradeRule, type PartRule, type Rounding } from './gradeRule.js';

/** What somebody did for one part. */
export interface PartEvidence {
  /** As much as was done of what was asked for, in the unit of the part; null while there is nothing to go by. */
  readonly got: number | null;
  /** More than 0. */
  readonly of: number;
  /** Nothing of it was asked of this person: the part leaves the sum. */
  readonly excused: boolean;
}

/** What somebody of the staff gives instead of what was worked out. */
export interface Override {
  /** 0 to 1 of a part, or 0 to {@link GradeRule.most} percent of the whole. */
  readonly value: number;
  readonly reason: string;
  /** What was worked out when it was set: where that has changed since, it should be looked at again. Null: nothing was. */
  readonly computed: number | null;
}

export interface GradeEvidence {
  readonly parts: Readonly<Partial<Record<GradePartName, PartEvidence>>>;
  /** Percentage points of the grade that are lost for handing in late, 0 or more. */
  readonly lateLoses: number;
  readonly overrides: Readonly<Partial<Record<GradePartName, Override>>>;
  readonly override: Override | null;
}

/** How a part stands in a grade. `open`: there is nothing to go by yet, so it is left out until there is. */
export type LineState = 'counts' | 'excused' | 'open';

export interface GradeLine {
  readonly part: GradePartName;
  readonly weight: number;
  readonly bonus: boolean;
  readonly state: LineState;
  readonly got: number | null;
  readonly of: number | null;
  /** What the rule gives, 0 to 1; null where there is nothing to go by. */
  readonly computed: number | null;
  /** What is given in the end, 0 to 1. */
  readonly share: number | null;
  readonly override: Override | null;
  /** What was worked out has changed since it was overridden. */
  readonly changed: boolean;
  /** Percentage points of the grade that it brings, before anything is lost or rounded; 0 where it does not count. */
  readonly brings: number;
}

export interface Grade {
  readonly lines: readonly GradeLine[];
  /** Sum of the weights of what counts and is no bonus. */
  readonly weights: number;
  readonly lateLoses: number;
  /** What was worked out, in percent, not rounded; null where nothing counts. */
  readonly computed: number | null;
  /** What is given in the end, in percent, not rounded. */
  readonly percent: number | null;
  readonly override: Override | null;
  readonly changed: boolean;
  /** Rounded, in percent or points; null without a grade. */
  readonly value: number | null;
  /** In words of the scale: "87%", "17.5 of 20", the name of a band; null without a grade. */
  readonly words: string | null;
  /** Some part is open: the grade may still change. */
  readonly open: boolean;
}

/** What two numbers that should be the same may differ by. */
const SAME = 1e-9;

/**
 * A grade with all its lines: parts in proportion to their weights, of those that count; a bonus on top, in the same proportion; less what
 * being late loses; within 0 and the most that can be; rounded once, at the end.
 *
 * Common practice of grading by weighted parts; no published source.
 */
export function gradeOf(parts: readonly GradePart[], rule: GradeRule, evidence: GradeEvidence): Grade {
  const bare = parts.map((part) => bareLine(part, rule, evidence));
  const weights = bare.reduce(
    (sum, { state, bonus, weight }) => (state === 'counts' && !bonus ? sum + weight : sum),
    0,
  );
  const lines = bare.map((line): GradeLine => {
    const counts = line.state === 'counts' && weights > 0 && line.share !== null;
    return { ...line, brings: counts ? (line.weight / weights) * (line.share ?? 0) * 100 : 0 };
  });
  const { override } = evidence;
  const earned = lines.reduce((sum, { brings }) => sum + brings, 0) - evidence.lateLoses;
  const computed = weights === 0 ? null : Math.max(0, Math.min(rule.most, earned));
  const percent = override?.value ?? computed;
  const { value, words } = said(percent, rule);
  return {
    ...{ lines, weights, computed, percent, override, value, words },
    lateLoses: evidence.lateLoses,
    changed: override !== null && differs(override.computed, computed),
    open: lines.some(({ state }) => state === 'open'),
  };
}

function bareLine(
  { part, weight }: GradePart,
  rule: GradeRule,
  { parts, overrides }: GradeEvidence,
): Omit<GradeLine, 'brings'> {
  const evidence = parts[part];
  const override = overrides[part] ?? null;
  const partRule = rule.parts[part] ?? USUAL_PART_RULE;
  const excused = evidence?.excused === true;
  const got = evidence?.got ?? null;
  const of = evidence?.of ?? null;
  const computed =
    got === null || of === null ? (rule.missing === 'zero' && !excused ? 0 : null) : shareOf(got / of, partRule);
  const share = override?.value ?? computed;
  const state: LineState = excused && override === null ? 'excused' : share === null ? 'open' : 'counts';
  return {
    ...{ part, weight, bonus: partRule.bonus, state, got, of, computed, override },
    share: state === 'excused' ? null : share,
    changed: override !== null && differs(override.computed, computed),
  };
}

function differs(then: number | null, now: number | null): boolean {
  if (then === null || now === null) return then !== now;
  return Math.abs(then - now) > SAME;
}

/** @param done as much as was done, as a share of what was asked for; more than all counts as all */
export function shareOf(done: number, { how, steps, minimum }: PartRule): number {
  const share = Math.max(0, Math.min(1, done));
  if (share < minimum - SAME) return 0;
  if (how === 'proportion') return share;
  if (how === 'all') return share >= 1 - SAME ? 1 : 0;
  return steps.reduce((best, { from, gives }) => (share >= from - SAME ? Math.max(best, gives) : best), 0);
}

function said(percent: number | null, rule: GradeRule): Pick<Grade, 'value' | 'words'> {
  if (percent === null) return { value: null, words: null };
  const { scale, step, rounding } = rule;
  const value = rounded(scale.kind === 'points' ? (percent / 100) * scale.of : percent, step, rounding);
  return { value, words: givenWords(givenGrade({ value }, rule)) };
}

/** A grade as somebody is given it: a figure or a name on its scale, apart from any language. */
export type GivenGrade =
  | { readonly scale: 'none' }
  | { readonly scale: 'percent'; readonly value: number }
  | { readonly scale: 'points'; readonly value: number; readonly of: number }
  | { readonly scale: 'bands'; readonly name: string };

/** @param value rounded, in percent or points; null without a grade */
export function givenGrade({ value }: Pick<Grade, 'value'>, { scale }: Pick<GradeRule, 'scale'>): GivenGrade {
  if (value === null) return { scale: 'none' };
  if (scale.kind === 'points') return { scale: 'points', value, of: scale.of };
  if (scale.kind === 'percent') return { scale: 'percent', value };
  const band = scale.bands.reduce<(typeof scale.bands)[number] | null>(
    (best, one) => (one.from <= value + SAME && (best === null || one.from > best.from) ? one : best),
    null,
  );
  return band === null ? { scale: 'none' } : { scale: 'bands', name: band.name };
}

/** "87%", "17.5 of 20", the name of a band; null for no grade. */
export function givenWords(given: GivenGrade): string | null {
  switch (given.scale) {
    case 'none':
      return null;
    case 'percent':
      return `${given.value}%`;
    case 'points':
      return `${given.value} of ${given.of}`;
    case 'bands':
      return given.name;
  }
}

export function isSameGrade(one: GivenGrade, other: GivenGrade): boolean {
  const [a, b] = [one, other].map((given) =>
    JSON.stringify([
      given.scale,
      'value' in given ? given.value : null,
      'of' in given ? given.of : null,
      'name' in given ? given.name : null,
    ]),
  );
  return a === b;
}

/**
 * To a multiple of the step. What is half-way but for the rounding of binary numbers is half-way.
 *
 * @param step more than 0
 */
export function rounded(value: number, step: number, rounding: Rounding): number {
  const steps = value / step;
  const below = Math.floor(steps + SAME);
  const beyond = steps - below;
  const half = Math.abs(beyond - 0.5) < SAME;
  const up = rounding !== 'down' && (half ? rounding === 'half-up' || below % 2 !== 0 : beyond > 0.5);
  // Written in whole steps, so that 0.1 added three times is 0.3.
  return Number(((below + (up ? 1 : 0)) * step).toFixed(6));
}
