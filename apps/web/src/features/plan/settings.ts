import type { PlanSettings, PlanView } from '@salt-circle/contracts';

/** What the plan page edits: the settings without the server's remarks on them. */
export type Settings = PlanSettings;

export function settingsOf(plan: PlanView): Settings {
  return {
    title: plan.title,
    briefHtml: plan.briefHtml,
    guideHtml: plan.guideHtml,
    dates: plan.dates,
    late: plan.late,
    deliverables: plan.deliverables,
    takesPart: plan.takesPart,
    handInAs: plan.handInAs,
    whom: plan.whom,
    groupSetId: plan.groupSetId,
    reviewsPerStudent: plan.reviewsPerStudent,
    selfReview: plan.selfReview,
    ownHandInFirst: plan.ownHandInFirst,
    names: plan.names,
    showNamesAtRelease: plan.showNamesAtRelease,
    feedbackEach: plan.feedbackEach,
    reviewsFinal: plan.reviewsFinal,
    practice: plan.practice,
    after: plan.after,
    remindHours: plan.remindHours,
    gradeParts: plan.gradeParts,
    shorthandId: plan.shorthandId,
  };
}
