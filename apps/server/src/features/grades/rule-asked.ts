import type { GradeRuleRequest } from '@salt-circle/contracts';
import {
  checkGradeParts,
  checkGradeRule,
  checkMarkingForms,
  formMaximum,
  type AdjustProblem,
  type GradePart,
  type GradeRule,
} from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { ExchangeContext } from '../../permissions/access.js';
import { formOf } from '../../queries/review-form.js';
import { markingFormsOf } from '../../queries/grade-rule.js';
import { gradeProblem } from '../../platform/problems/plan-sentences.js';
import { invalid } from '../../platform/problems/sentences.js';
import { say } from '../../words/grades.js';

/** @throws ProblemError `invalid` for what cannot be a rule of this exchange */
export async function asked(
  manager: EntityManager,
  context: ExchangeContext,
  request: GradeRuleRequest,
): Promise<{ readonly parts: GradePart[]; readonly rule: GradeRule }> {
  const parts = request.gradeParts.map(({ part, weight }) => ({ part, weight }));
  const { scale } = request;
  const rule: GradeRule = {
    parts: Object.fromEntries(
      request.parts.map(({ part, how, steps, minimum, bonus }) => [
        part,
        { how, steps: steps.map(({ from, gives }) => ({ from, gives })), minimum, bonus },
      ]),
    ),
    scale:
      scale.kind === 'points'
        ? { kind: 'points', of: scale.of ?? 0 }
        : scale.kind === 'bands'
          ? { kind: 'bands', bands: (scale.bands ?? []).map(({ name, from }) => ({ name: name.trim(), from })) }
          : { kind: 'percent' },
    step: request.step,
    rounding: request.rounding,
    missing: request.missing,
    most: request.most,
    score: request.score,
    scoreTold: request.scoreTold,
    quality: { ...request.quality },
  };
  const gradeContext = {
    formHasPoints: formMaximum(await formOf(manager, context)) !== null,
    hasReplies: context.exchange.repliesDue !== null,
  };
  const problems = [
    ...checkGradeParts(parts, gradeContext),
    ...checkGradeRule(rule, parts),
    ...checkMarkingForms(parts, rule, markingFormsOf(context.exchange)),
  ];
  if (problems.length > 0) throw invalid(problems.map(gradeProblem));
  return { parts, rule };
}

/** Why severity is not taken out as it should be, and what was done. */
export function adjustSentence(problem: AdjustProblem): string {
  switch (problem.code) {
    case 'too-few':
      return say('thereAreTooFewScores');
    case 'no-spread':
      return say('allScoresAreSameThere');
    case 'one-draft-each':
      return say('everyReviewerHasScoredOne');
    case 'one-review-each':
      return say('everyDraftHasOneScore');
    case 'not-connected':
      return say('courseFallsIntoPartsThat', { drafts: problem.drafts.length, drafts2: problem.drafts.join(', ') });
  }
}
