import type { PlanRequest, PlanSettings } from '@salt-circle/contracts';
import { NO_PRACTICE, USUAL_AFTER, type AfterRule, type DateName, type PracticeRule } from '@salt-circle/core';
import { cleanHtml } from '../platform/html/clean-html.js';
import { datesOf } from '../permissions/exchange-facts.js';
import type { Exchange } from '../model/exchange.js';
import { datesAsked, datesFrom, datesView } from './exchange-views.js';

/** The columns of an exchange that a plan sets. */
export type PlanRow = Pick<
  Exchange,
  | DateName
  | 'title'
  | 'briefHtml'
  | 'guideHtml'
  | 'late'
  | 'deliverables'
  | 'takesPart'
  | 'handInAs'
  | 'whom'
  | 'groupSetId'
  | 'reviewsPerStudent'
  | 'selfReview'
  | 'ownHandInFirst'
  | 'names'
  | 'showNamesAtRelease'
  | 'feedbackEach'
  | 'reviewsFinal'
  | 'practice'
  | 'after'
  | 'remindHours'
  | 'gradeParts'
  | 'shorthandId'
>;

/** What the Plan page edits, of a row; dates in ISO 8601. */
export function settingsOf(exchange: Exchange): PlanSettings {
  return {
    title: exchange.title,
    briefHtml: exchange.briefHtml,
    guideHtml: exchange.guideHtml,
    dates: datesView(datesOf(exchange)),
    late: exchange.late,
    deliverables: exchange.deliverables,
    takesPart: exchange.takesPart,
    handInAs: exchange.handInAs,
    whom: exchange.whom,
    groupSetId: exchange.groupSetId,
    reviewsPerStudent: exchange.reviewsPerStudent,
    selfReview: exchange.selfReview,
    ownHandInFirst: exchange.ownHandInFirst,
    names: exchange.names,
    showNamesAtRelease: exchange.showNamesAtRelease,
    feedbackEach: exchange.feedbackEach,
    reviewsFinal: exchange.reviewsFinal,
    practice: exchange.practice,
    after: exchange.after,
    remindHours: exchange.remindHours,
    gradeParts: exchange.gradeParts,
    shorthandId: exchange.shorthandId,
  };
}

/** Field by field in one order, so that equal settings are equal texts, and rich text only as it may be shown. */
export function rowFrom(settings: PlanSettings | PlanRequest): PlanRow {
  const { late, takesPart } = settings;
  return {
    ...datesAsked(datesFrom(settings.dates), settings),
    title: settings.title.trim(),
    briefHtml: cleanHtml(settings.briefHtml, { field: 'briefHtml' }),
    guideHtml: cleanHtml(settings.guideHtml, { field: 'guideHtml' }),
    late:
      late === null
        ? null
        : { amount: late.amount, unit: late.unit, per: late.per, cap: late.cap, graceMinutes: late.graceMinutes },
    deliverables: settings.deliverables.map(({ id, kind, title, description, required, families, maxMegabytes }) => {
      const taken = kind === 'file' ? [...families] : [];
      return { id, kind, title: title.trim(), description, required, families: taken, maxMegabytes };
    }),
    takesPart: {
      kind: takesPart.kind,
      sections: [...takesPart.sections],
      groupIds: [...takesPart.groupIds],
      studentIds: [...takesPart.studentIds],
    },
    handInAs: settings.handInAs,
    whom: settings.whom,
    groupSetId: settings.groupSetId,
    reviewsPerStudent: settings.reviewsPerStudent,
    selfReview: settings.selfReview,
    ownHandInFirst: settings.ownHandInFirst,
    names: settings.names,
    showNamesAtRelease: settings.showNamesAtRelease,
    feedbackEach: settings.feedbackEach,
    reviewsFinal: settings.reviewsFinal ?? false,
    practice: practiceFrom(settings.practice ?? NO_PRACTICE),
    after: afterFrom(settings.after ?? USUAL_AFTER),
    remindHours: settings.remindHours ?? null,
    gradeParts: settings.gradeParts.map(({ part, weight }) => ({ part, weight })),
    shorthandId: settings.shorthandId,
  };
}

/** What is not asked for has no details. */
function practiceFrom({ when, tries, closeEnough }: PracticeRule): PracticeRule {
  // Where reviewing does not wait for it, there is nothing that coming close opens.
  return when === 'off' ? NO_PRACTICE : { when, tries, closeEnough: when === 'first' ? closeEnough : null };
}

function afterFrom({ ratings, reflection, othersReviews, revisionShown }: AfterRule): AfterRule {
  const prompts = reflection?.prompts.map((one) => one.trim()).filter(Boolean) ?? [];
  const asked = prompts.length === 0 ? null : { prompts, minimumWords: reflection?.minimumWords ?? 0 };
  return { ratings, reflection: asked, othersReviews, revisionShown };
}

/** Names of the columns that differ. */
export function changedColumns(exchange: Exchange, next: PlanRow): Array<keyof PlanRow> {
  return (Object.keys(next) as Array<keyof PlanRow>).filter(
    (key) => JSON.stringify(exchange[key]) !== JSON.stringify(next[key]),
  );
}
