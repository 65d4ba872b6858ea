import { problem, type CoreProblem } from '../problem.js';
import { eligibleDrafts } from './eligible.js';
import { groupOf, needsGroups, takesPart, type Setup, type Student } from './setup.js';

export type SetupProblemCode =
  | 'nobody-takes-part'
  | 'nobody-to-review'
  | 'group-set-missing'
  | 'students-without-group'
  | 'group-of-one'
  | 'one-group-only'
  | 'group-hand-in-within-group'
  | 'self-review-of-group'
  | 'too-many-reviews'
  | 'reviews-invalid';

export const MIN_REVIEWS = 1;
export const MAX_REVIEWS = 10;

type Problem = CoreProblem<SetupProblemCode>;

/**
 * Says where settings contradict themselves or the people of the course. Facts carry ids and counts, e.g.
 * `facts.groupId` of a group of one; the words are for whoever knows the names.
 */
export function checkSetup(setup: Setup, students: readonly Student[]): Problem[] {
  const problems: Problem[] = [];
  const asked = setup.reviewsPerStudent;
  if (!Number.isInteger(asked) || asked < MIN_REVIEWS || asked > MAX_REVIEWS) {
    problems.push(problem('reviews-invalid', ['reviewsPerStudent'], { min: MIN_REVIEWS, max: MAX_REVIEWS }));
  }
  if (setup.handInAs === 'group') {
    // One draft a group: nothing within the group could be reviewed but the group's own.
    if (setup.whom === 'own-group' || setup.whom === 'partners') {
      return [...problems, problem('group-hand-in-within-group', ['whom'])];
    }
    if (setup.selfReview !== 'off') problems.push(problem('self-review-of-group', ['selfReview']));
  }
  const participants = students.filter((one) => takesPart(setup, one));
  if (participants.length === 0) {
    return [...problems, problem('nobody-takes-part', ['takesPart'], { students: students.length })];
  }
  if (needsGroups(setup)) {
    if (setup.groupSetId === null) return [...problems, problem('group-set-missing', ['groupSetId'])];
    const grouping = checkGroups(setup, participants);
    if (grouping.length > 0) return [...problems, ...grouping];
  }
  return problems.length > 0 ? problems : checkCounts(setup, participants);
}

function checkGroups(setup: Setup, participants: readonly Student[]): Problem[] {
  const problems: Problem[] = [];
  const sizes = new Map<string, number>();
  for (const student of participants) {
    const id = groupOf(student, setup.groupSetId);
    if (id !== null) sizes.set(id, (sizes.get(id) ?? 0) + 1);
  }
  const without = participants.filter((one) => groupOf(one, setup.groupSetId) === null);
  if (without.length > 0) {
    const [first] = without as [Student];
    const facts = { count: without.length, studentId: first.id };
    problems.push(problem('students-without-group', ['groupSetId'], facts));
  }
  const within = setup.whom === 'own-group' || setup.whom === 'partners';
  const alone = within ? [...sizes].filter(([, size]) => size === 1) : [];
  for (const [groupId] of alone) problems.push(problem('group-of-one', ['groupSetId'], { groupId }));
  const across = setup.whom === 'other-groups' || setup.handInAs === 'group';
  if (across && sizes.size === 1) problems.push(problem('one-group-only', ['groupSetId']));
  return problems;
}

function checkCounts(setup: Setup, participants: readonly Student[]): Problem[] {
  const short = eligibleDrafts(setup, participants).filter(({ drafts, asked }) => drafts < asked);
  if (short.length === 0) return [];
  const fewest = short.reduce((least, one) => (one.drafts < least.drafts ? one : least));
  if (fewest.drafts === 0) {
    return [problem('nobody-to-review', ['whom'], { participants: participants.length })];
  }
  const facts = {
    asked: setup.reviewsPerStudent,
    drafts: fewest.drafts,
    reviewers: short.length,
    groupId: fewest.groupId ?? '',
  };
  return [problem('too-many-reviews', ['reviewsPerStudent'], facts)];
}
