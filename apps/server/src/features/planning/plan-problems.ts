import type { FieldProblem, PlanView } from '@salt-circle/contracts';
import {
  checkDates,
  checkDeliverables,
  checkForm,
  checkGradeParts,
  checkLateRule,
  checkMarkingForms,
  checkSetup,
  completeness,
  contradictions,
  DATE_ORDER,
  formMaximum,
  holidayClashes,
  NO_DATES,
  type ExchangeDates,
  type ReviewForm,
} from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Enrolment, type Course } from '../../model/course.js';
import { Draft } from '../../model/draft.js';
import { GroupSet, StudentGroup } from '../../model/group.js';
import { markingFormsOf, ruleOf } from '../../queries/grade-rule.js';
import { studentsOf } from '../../queries/students.js';
import {
  contradictionRemark,
  deliverableProblem,
  gradeProblem,
  lateProblem,
  setupProblem,
  type SetupNames,
} from '../../platform/problems/plan-sentences.js';
import { DATE_WORDS, dateInWords, dateProblem, formProblem } from '../../platform/problems/sentences.js';
import { AnswerRow, Review } from '../../model/review.js';
import { practiceDrafts } from '../../permissions/practice.js';
import type { ExchangeContext } from '../../permissions/access.js';
import { isHandedIn } from '../../queries/versions.js';
import type { Exchange } from '../../model/exchange.js';
import type { PlanRow } from '../../queries/plan-settings.js';
import { setupOf } from '../../queries/exchange-setup.js';
import { say } from '../../words/planning.js';

/** The dates among the columns of a plan. */
export function datesIn(row: PlanRow): ExchangeDates {
  return { ...NO_DATES, ...Object.fromEntries(DATE_ORDER.map((name) => [name, row[name]])) };
}

/** What must be mended before the plan can be published, in the order of the page. */
export async function planProblems(
  manager: EntityManager,
  { course, exchange }: Pick<ExchangeContext, 'course' | 'exchange'>,
  row: PlanRow,
  form: ReviewForm,
): Promise<FieldProblem[]> {
  const missing: FieldProblem[] = [];
  if (row.briefHtml === '') {
    missing.push({
      path: 'briefHtml',
      code: 'brief-missing',
      sentence: say('briefIsEmptySayWhat'),
    });
  }
  missing.push(...checkDeliverables(row.deliverables).map(deliverableProblem));
  missing.push(...checkDates(datesIn(row), true).map((one) => dateProblem(one, course.timeZone)));
  missing.push(...checkLateRule(row.late, row.lateUntil !== null).map(lateProblem));
  missing.push(...(await setupProblems(manager, course, row)));
  missing.push(...checkForm(form).map((one) => ({ ...formProblem(one), path: `form.${one.path.join('.')}` })));
  const context = { formHasPoints: formMaximum(form) !== null, hasReplies: row.repliesDue !== null };
  const marking = checkMarkingForms(row.gradeParts, ruleOf(exchange), markingFormsOf(exchange));
  missing.push(...[...checkGradeParts(row.gradeParts, context), ...marking].map(gradeProblem));
  if (row.practice.when !== 'off') missing.push(...(await practiceProblems(manager, exchange.id, form)));
  return missing;
}

/** What practice still lacks: something to try, and a key to each that fits the form as it is now. */
async function practiceProblems(manager: EntityManager, exchangeId: string, form: ReviewForm): Promise<FieldProblem[]> {
  const drafts = await practiceDrafts(manager, exchangeId);
  const problem = (sentence: string) => ({ path: 'practice', code: 'practice-missing', sentence });
  if (drafts.length === 0) return [problem(say('practiceHasNoDraftYet'))];
  const problems: FieldProblem[] = [];
  for (const { exchange, key, ready } of drafts) {
    const title = `“${exchange.title}”`;
    if (!ready) problems.push(problem(say('practiceDraftHasNoKey', { title })));
    else {
      const answers = await manager.findBy(AnswerRow, { reviewId: key.id });
      const given = Object.fromEntries(answers.map((row) => [row.itemId, row]));
      if (completeness(form, given, key.noteCount).complete) continue;
      problems.push(problem(say('reopenKeyAndFillIn', { title })));
    }
  }
  return problems;
}

async function setupProblems(manager: EntityManager, course: Course, row: PlanRow): Promise<FieldProblem[]> {
  const set =
    row.groupSetId === null ? null : await manager.findOneBy(GroupSet, { id: row.groupSetId, courseId: course.id });
  // A set that has been deleted since is as good as none.
  const setup = { ...setupOf(row), groupSetId: set?.id ?? null };
  const problems = checkSetup(setup, await studentsOf(manager, course.id));
  if (problems.length === 0) return [];
  const studentIds = problems.flatMap(({ facts }) =>
    typeof facts['studentId'] === 'string' ? [facts['studentId']] : [],
  );
  const students = new Map<string, string>();
  for (const id of studentIds) {
    const { name } = await manager.findOneByOrFail(Enrolment, { id });
    students.set(id, name);
  }
  const groups = set === null ? [] : await manager.findBy(StudentGroup, { setId: set.id });
  const titles = new Map(groups.map(({ id, title }) => [id, title]));
  const names: SetupNames = {
    student: (id) => students.get(id) ?? 'somebody',
    group: (id) => titles.get(id) ?? say('group'),
    groupSet: set?.title ?? '',
  };
  return problems.map((one) => setupProblem(one, names));
}

/** What may be meant, but should be looked at. */
export function planRemarks(course: Course, row: PlanRow, form: ReviewForm): FieldProblem[] {
  const stages = { hasReplies: row.repliesDue !== null, hasRevision: row.revisionDue !== null };
  const odd = contradictions({ late: row.late, gradeParts: row.gradeParts, form, ...stages }).map(contradictionRemark);
  const onHolidays = holidayClashes(datesIn(row), course.holidays, course.timeZone).map(({ date, at, holiday }) => ({
    path: `dates.${date}`,
    code: 'holiday',
    sentence: say('fallsOn', {
      dateWords: DATE_WORDS[date],
      dateInWords: dateInWords(at, course.timeZone),
      title: holiday.title,
    }),
  }));
  return [...onHolidays, ...odd];
}

/** Settings that can no longer be changed, each with the reason. */
export async function fixedSettings(
  manager: EntityManager,
  { exchange, facts }: ExchangeContext,
): Promise<PlanView['fixed']> {
  if (!facts.published) return {};
  const exchangeId = exchange.id;
  const reviews = await manager.countBy(Review, { exchangeId });
  const begun = await manager
    .createQueryBuilder(Review, 'review')
    .where('review.exchangeId = :exchangeId AND review.begunAt IS NOT NULL', { exchangeId })
    .getCount();
  const drafts = await manager
    .createQueryBuilder(Draft, 'draft')
    .where('draft.exchangeId = :exchangeId', { exchangeId })
    .andWhere(isHandedIn(manager))
    .getCount();
  const allocated = reviews === 0 ? null : say('draftsHaveBeenAllocatedReviews', { reviews, begun });
  return {
    ...(allocated !== null && begun > 0 && { reviewsFinal: say('reviewsHaveBegunTheirWriters') }),
    feedbackEach: say('exchangeIsPublishedPeopleHave'),
    names: say('exchangeIsPublishedPeopleHaveBeen'),
    takesPart: say('exchangeIsPublishedExcuseSingle'),
    handInAs: say('exchangeIsPublishedPeopleHaveBeenTold'),
    ...(allocated !== null && {
      whom: allocated,
      groupSetId: allocated,
      reviewsPerStudent: allocated,
      selfReview: allocated,
    }),
    ...(drafts > 0 && {
      deliverables: say('soWhatHandInContains', { drafts }),
    }),
  };
}

type Fixed = keyof Awaited<ReturnType<typeof fixedSettings>>;

/** The columns that each of them holds in place. */
export const FIXED_COLUMNS: Readonly<Record<Fixed, ReadonlyArray<keyof PlanRow>>> = {
  names: ['names', 'showNamesAtRelease'],
  feedbackEach: ['feedbackEach'],
  reviewsFinal: ['reviewsFinal'],
  takesPart: ['takesPart'],
  handInAs: ['handInAs'],
  whom: ['whom'],
  groupSetId: ['groupSetId'],
  reviewsPerStudent: ['reviewsPerStudent'],
  selfReview: ['selfReview', 'ownHandInFirst'],
  deliverables: ['deliverables'],
};

/** Whether two lists of deliverables take the same hand-ins, whatever they are called. */
export function sameDemands(a: Exchange['deliverables'], b: Exchange['deliverables']): boolean {
  const bare = (list: Exchange['deliverables']) =>
    JSON.stringify(list.map(({ id, kind, required, families }) => [id, kind, required, families]));
  return bare(a) === bare(b);
}
