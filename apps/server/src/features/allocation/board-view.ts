import type {
  AllocationView,
  BoardDraft,
  BoardPair,
  BoardReviewer,
  PreviewView,
  ScheduleView,
  SuggestionView,
} from '@salt-circle/contracts';
import { hasPractised, nextRun, resolveDates, type Schedule } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Enrolment } from '../../model/course.js';
import type { ExchangeContext } from '../../permissions/access.js';
import { practiceStates } from '../../permissions/practice.js';
import type { Participant } from '../../model/exchange.js';
import { datesOf } from '../../permissions/exchange-facts.js';
import { iso, isoOrNull } from '../../platform/wire/instants.js';
import type { PersonLabels } from '../../queries/person-labels.js';
import { StudentGroup } from '../../model/group.js';
import { reviewState } from '../../permissions/review-state.js';
import { undoable } from './change.js';
import { AllocationPreview, type AllocationPlan, type AllocationStep } from '../../model/allocation.js';
import { groupOfDraft } from './problem-of.js';
import type { Question } from './question.js';
import { aloneIn, happenedSince, isReviewingOver, type Since } from './since.js';

/** What the board shows, without when that was. */
export type Board = Omit<AllocationView, 'asOf'>;

/** Everything that the board shows: people, drafts, pairs, wishes, and what has happened since. */
export async function boardView(
  manager: EntityManager,
  context: ExchangeContext,
  question: Question,
  plan: AllocationPlan,
  labels: PersonLabels,
): Promise<Board> {
  const titles = await groupTitles(manager, question);
  const group = (id: string | undefined) => (id === undefined ? null : { id, title: titles.get(id) ?? '' });
  const capacities = new Map(question.problem.reviewers.map(({ id, capacity }) => [id, capacity]));
  const reviewing = new Set(question.current.map(({ reviewerId }) => reviewerId));
  const people: readonly Participant[] = [...question.students, ...question.extras];
  const known = new Set(people.map(({ id }) => id));
  const gone = [...question.leftOut].filter(([id]) => !known.has(id) && reviewing.has(id)).map(([id]) => id);
  const states = await practiceStates(manager, context.exchange);
  const practised = new Map(question.students.map((one) => [one.id, states && hasPractised(states(one.personId))]));
  const reviewer = (id: string, extra: boolean): BoardReviewer => ({
    id,
    label: labels.reviewer(id),
    capacity: capacities.get(id) ?? 0,
    group: group(question.groups.get(id)),
    extra,
    strength: question.strengths.get(id) ?? null,
    leftOut: question.leftOut.get(id) ?? null,
    practised: practised.get(id) ?? null,
  });
  const reviewers = [
    ...people.map(({ id, extraReviews }) => reviewer(id, extraReviews !== null)),
    ...gone.map((id) => reviewer(id, false)),
  ].sort(
    (a, b) =>
      Number(a.leftOut !== null) - Number(b.leftOut !== null) || (a.label.name ?? '').localeCompare(b.label.name ?? ''),
  );
  const drafts = question.drafts
    .map((one): BoardDraft => ({
      id: one.draftId,
      author: labels.authorOf(one),
      title: one.title,
      authorIds: one.authorIds,
      group: group(groupOfDraft(one, question.groups)),
      closed: !question.open.has(one.draftId),
    }))
    .sort((a, b) => (a.author.name ?? '').localeCompare(b.author.name ?? ''));
  const own = new Set(question.own.map(({ id }) => id));
  const shown = new Set(drafts.map(({ id }) => id));
  const pairs = [...question.current, ...question.own]
    .filter(({ draftId }) => shown.has(draftId))
    .map((one): BoardPair => ({
      reviewerId: one.reviewerId,
      draftId: one.draftId,
      reviewId: one.id,
      state: reviewState(one),
      locked: one.locked,
      self: own.has(one.id),
      answered: one.answered,
      required: one.required,
      notes: one.noteCount,
    }));
  const kept = await manager.findOneBy(AllocationPreview, { exchangeId: context.exchange.id, madeBy: '' });
  return {
    revision: plan.revision,
    applied: pairs.length > 0,
    begun: pairs.some(({ state }) => state !== 'not-begun'),
    handedIn: question.drafts.length,
    students: question.students.length,
    reviewers,
    drafts,
    pairs,
    forbidden: question.problem.forbidden,
    earlier: question.problem.earlier,
    wishes: question.wishes,
    earlierExchanges: question.earlier.exchanges,
    hasGroups: context.exchange.groupSetId !== null,
    schedule: scheduleView(context, plan),
    staff: await staffOf(manager, context, question),
    suggestion: suggestionView(happenedSince(question, context.course.timeZone, context.now), labels),
    alone: isReviewingOver(question, context.now) ? [] : aloneIn(question),
    undo: undoView(await undoable(manager, context.exchange.id)),
    kept: kept === null ? null : previewView(kept),
  };
}

async function groupTitles(manager: EntityManager, { exchange }: Question): Promise<Map<string, string>> {
  if (exchange.groupSetId === null) return new Map();
  const groups = await manager.findBy(StudentGroup, { setId: exchange.groupSetId });
  return new Map(groups.map(({ id, title }) => [id, title]));
}

/** A plan’s schedule as the core wants it, the time in milliseconds. */
export function scheduleOf({ schedule, runAt }: Pick<AllocationPlan, 'schedule' | 'runAt'>): Schedule {
  return schedule === 'at' ? { kind: 'at', at: runAt ?? 0 } : { kind: schedule };
}

function scheduleView({ exchange, course, now }: ExchangeContext, plan: AllocationPlan): ScheduleView {
  const dates = resolveDates(datesOf(exchange));
  const next = dates === null ? null : nextRun(scheduleOf(plan), dates, course.timeZone, now);
  return {
    kind: plan.schedule,
    at: isoOrNull(plan.runAt),
    party: plan.party,
    patience: plan.patience,
    next: isoOrNull(next),
    last:
      plan.lastRunAt === null || plan.lastOutcome === null
        ? null
        : { at: iso(plan.lastRunAt), outcome: plan.lastOutcome },
  };
}

async function staffOf(
  manager: EntityManager,
  { course }: ExchangeContext,
  question: Question,
): Promise<AllocationView['staff']> {
  const enrolled = (await manager.findBy(Enrolment, { courseId: course.id, active: true })).filter(
    ({ role }) => role !== 'student',
  );
  const reviews = new Map(question.extras.map(({ personId, extraReviews }) => [personId, extraReviews]));
  return enrolled
    .map(({ personId, name }) => ({ personId, name, reviews: reviews.get(personId) ?? null }))
    .sort((a, b) => a.name.localeCompare(b.name));
}

function suggestionView(since: Since | null, labels: PersonLabels): SuggestionView | null {
  if (since === null) return null;
  const named = (ids: readonly string[]) => ids.map((id) => labels.reviewer(id));
  return { late: named(since.late), left: named(since.left), forbidden: since.forbidden };
}

/** A stored preview, for the wire. */
export function previewView({ id, kind, seed, madeAt, madeBy, content }: AllocationPreview): PreviewView {
  return {
    id,
    kind,
    seed,
    madeAt: iso(madeAt),
    scheduled: madeBy === '',
    ...content,
    removed: content.removed as PreviewView['removed'],
    added: content.added as PreviewView['added'],
  };
}

function undoView(step: AllocationStep | null): AllocationView['undo'] {
  return step === null ? null : { step: step.id, act: step.act };
}
