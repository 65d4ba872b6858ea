import { Injectable } from '@nestjs/common';
import type {
  AllocationActsRequest,
  AllocationPlanRequest,
  AllocationView,
  ExtraReviewerRequest,
  SavedView,
  ScheduleRequest,
} from '@salt-circle/contracts';
import { nextRun, pairKey, resolveDates } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { Course, Enrolment } from '../../model/course.js';
import { Database, type EmitEvent } from '../../platform/database/database.js';
import { Access, assertCan, assertCanSee, type ExchangeContext } from '../../permissions/access.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { PersonLabels } from '../../queries/person-labels.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { conflict, refusal } from '../../platform/problems/sentences.js';
import { Review } from '../../model/review.js';
import { datesOf } from '../../permissions/exchange-facts.js';
import { boardView, scheduleOf, type Board } from './board-view.js';
import { changeTo, makeChange, undo, undoable } from './change.js';
import { AllocationPlan, AllocationPreview, type StepBefore } from '../../model/allocation.js';
import { loadCircumstances, loadPairs, type Circumstances } from './circumstances.js';
import { Earlier } from './earlier.js';
import { manualChanges, lockAndSeparate } from './manual-changes.js';
import { alreadyBegun } from './previews.service.js';
import { planOf, questionOf, wishesOf, type Question } from './question.js';
import { aloneIn, happenedSince } from './since.js';
import { tellReviewers } from './tell-reviewers.js';
import { staffParticipant } from '../../queries/participants.js';
import { ALLOCATED } from '../../permissions/review-state.js';
import { say } from '../../words/allocation.js';

@Injectable()
export class AllocationService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly ids: Ids,
  ) {}

  async one(person: CurrentUser, exchangeId: string): Promise<AllocationView> {
    // Taken before anything is read: what is read is at least as new.
    const asOf = this.database.stamp();
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    return { ...(await this.#board(this.database.read, context)), asOf };
  }

  /** @param circumstances what has been loaded of them already, in the same transaction */
  async #board(manager: EntityManager, context: ExchangeContext, circumstances?: Circumstances): Promise<Board> {
    const { exchange, now } = context;
    const plan = await planOf(manager, exchange.id, now);
    const known = circumstances ?? (await loadCircumstances(manager, exchange, now));
    const question = questionOf(exchange, wishesOf(exchange, plan), known, await loadPairs(manager, exchange.id));
    return boardView(manager, context, question, plan, await PersonLabels.ofExchange(manager, context));
  }

  /** How many things a repair would mend. Of an exchange that the one who asks may see. */
  async casesSince(exchange: Exchange, now: number): Promise<number> {
    const manager = this.database.read;
    const plan = await planOf(manager, exchange.id, now);
    const { timeZone } = await manager.findOneByOrFail(Course, { id: exchange.courseId });
    const circumstances = await loadCircumstances(manager, exchange, now, Earlier.none());
    const pairs = await loadPairs(manager, exchange.id);
    const question = questionOf(exchange, wishesOf(exchange, plan), circumstances, pairs);
    const since = happenedSince(question, timeZone, now);
    const alone = question.current.length === 0 ? 0 : aloneIn(question).length;
    return alone + (since === null ? 0 : since.late.length + since.left.length + since.forbidden);
  }

  /** Puts a previewed allocation in the place of the current one; what has begun stays. */
  apply(person: CurrentUser, exchangeId: string, previewId: string): Promise<AllocationView> {
    return this.#changing(person, exchangeId, async (manager, emit, context) => {
      const preview = await manager.findOneBy(AllocationPreview, { id: previewId, exchangeId });
      if (preview === null) throw previewGone();
      // Whom and how many students review is what they have been told: a matter of the plan.
      const { whom, reviewsEach } = preview.content.wishes;
      if (whom !== context.exchange.whom || reviewsEach !== context.exchange.reviewsPerStudent)
        assertCan(context, { kind: 'plan' });
      return this.applyPreview(manager, emit, context, preview);
    });
  }

  /** Within a transaction; also for planned runs, which have no person. */
  async applyPreview(
    manager: EntityManager,
    emit: EmitEvent,
    place: Pick<ExchangeContext, 'exchange' | 'course' | 'now'> & { readonly person: Pick<CurrentUser, 'id'> | null },
    preview: AllocationPreview,
  ): Promise<Circumstances> {
    const { exchange, now } = place;
    const { wishes, pairs, quality } = preview.content;
    const circumstances = await loadCircumstances(manager, exchange, now);
    const question = questionOf(exchange, wishes, circumstances, await loadPairs(manager, exchange.id));
    assertStillRight(question, preview);
    const before = await this.#adoptWishes(manager, exchange, wishes, now);
    const acts = { new: 'applied', repair: 'repaired', round: 'round' } as const;
    const changed = await makeChange(manager, this.ids, exchange, now, {
      act: acts[preview.kind],
      before,
      ...changeTo(question, pairs),
    });
    await manager.delete(AllocationPreview, { id: preview.id });
    await tellReviewers(
      manager,
      await manager.findOneByOrFail(Exchange, { id: exchange.id }),
      now,
      this.database.mail,
      this.ids,
    );
    // A nightly round that found nothing to give is nothing to put on record.
    if (!changed) return circumstances;
    emit({
      action: preview.kind === 'repair' ? 'allocation-repaired' : 'allocation-applied',
      actorId: place.person?.id ?? null,
      courseId: place.course.id,
      exchangeId: exchange.id,
      details: { pairs: pairs.length, seed: preview.seed, mutualPairs: quality.mutual.reached },
    });
    return circumstances;
  }

  /** @param stepId which step is meant: what somebody else has done since is not taken back in its stead */
  undo(person: CurrentUser, exchangeId: string, stepId: number): Promise<AllocationView> {
    return this.#changing(person, exchangeId, async (manager, emit, context) => {
      const step = await undoable(manager, exchangeId);
      if (step !== null && step.id !== stepId) {
        throw new ProblemError({
          code: 'allocation-changed',
          sentence: say('somethingElseHasBeenChanged'),
          whatToDo: say('lookAtBoardAsIt'),
        });
      }
      if (step === null) {
        throw new ProblemError({
          code: 'allocation-begun',
          sentence: say('thereIsNothingToUndo'),
          whatToDo: say('changePairsByHandInstead'),
        });
      }
      const pairs = await undo(manager, context.exchange, step, context.now);
      const { hands: _hands, wishes, ...settings } = step.before;
      if (Object.keys(settings).length > 0) await manager.update(Exchange, { id: exchangeId }, settings);
      if (wishes !== undefined) await manager.update(AllocationPlan, { exchangeId }, wishes);
      emit({
        action: 'allocation-undone',
        actorId: person.id,
        courseId: context.course.id,
        exchangeId,
        details: { act: step.act, pairs },
      });
    });
  }

  /** What is done by hand, as a whole or not at all. */
  byHand(person: CurrentUser, exchangeId: string, request: AllocationActsRequest): Promise<AllocationView> {
    return this.#changing(person, exchangeId, async (manager, emit, context) => {
      const plan = await planOf(manager, exchangeId, context.now);
      const circumstances = await loadCircumstances(manager, context.exchange, context.now);
      const pairs = await loadPairs(manager, exchangeId);
      const question = questionOf(context.exchange, wishesOf(context.exchange, plan), circumstances, pairs);
      const labels = await PersonLabels.ofExchange(manager, context);
      const work = manualChanges(question, labels, request);
      const { change } = work;
      const hands = await lockAndSeparate(manager, exchangeId, work);
      const before = hands === undefined ? {} : { hands };
      await makeChange(manager, this.ids, context.exchange, context.now, { ...change, before });
      await tellReviewers(manager, context.exchange, context.now, this.database.mail, this.ids);
      emit({
        action: 'allocation-by-hand',
        actorId: person.id,
        courseId: context.course.id,
        exchangeId,
        details: {
          added: change.add.length,
          removed: change.remove.length,
          keptApart: request.forbid?.length ?? 0,
          allowed: request.allow?.length ?? 0,
        },
      });
      return circumstances;
    });
  }

  setPlan(person: CurrentUser, exchangeId: string, request: AllocationPlanRequest): Promise<AllocationView> {
    return this.#changing(person, exchangeId, async (manager, emit, context) => {
      const { avoid, mix, maxPerDraft } = request.wishes;
      await this.#schedule(manager, emit, context, request, { avoid, mix, maxPerDraft: maxPerDraft ?? null });
    });
  }

  /** When drafts are allocated by themselves, from the Plan page: also before the exchange is published. */
  setSchedule(person: CurrentUser, exchangeId: string, request: ScheduleRequest): Promise<SavedView> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'plan' });
      const revision = await this.#schedule(manager, emit, context, request, {});
      return { revision, savedAt: new Date(context.now).toISOString() };
    });
  }

  /** @returns the new revision */
  async #schedule(
    manager: EntityManager,
    emit: EmitEvent,
    context: ExchangeContext,
    { revision, schedule, at, party, patience }: ScheduleRequest,
    wishes: Partial<Pick<AllocationPlan, 'avoid' | 'mix' | 'maxPerDraft'>>,
  ): Promise<number> {
    const exchangeId = context.exchange.id;
    const plan = await planOf(manager, exchangeId, context.now);
    if (plan.revision !== revision) throw conflict(say('howDraftsAreAllocated'), { revision: plan.revision });
    const runAt = schedule === 'at' && at !== null ? Date.parse(at) : null;
    const changed = schedule !== plan.schedule || runAt !== plan.runAt;
    if (changed) assertWillRun(context, { schedule, runAt });
    const rolling = schedule === 'nightly';
    if (rolling !== context.exchange.rolling)
      assertRollingCanChange(await manager.findBy(Review, { exchangeId, ...ALLOCATED }));
    await manager.save(AllocationPlan, {
      ...plan,
      ...wishes,
      revision: plan.revision + 1,
      schedule,
      runAt,
      party,
      patience,
      ranUntil: changed ? context.now : plan.ranUntil,
      ...(changed ? { lastRunAt: null, lastOutcome: null } : {}),
    });
    await manager.update(Exchange, { id: exchangeId }, { rolling });
    emit({
      action: 'allocation-planned',
      actorId: context.person.id,
      courseId: context.course.id,
      exchangeId,
      details: { schedule },
    });
    return plan.revision + 1;
  }

  /** Lets somebody of the staff review as well, under an alias of the exchange; or no longer. */
  setExtra(person: CurrentUser, exchangeId: string, request: ExtraReviewerRequest): Promise<AllocationView> {
    const { personId } = request;
    const reviews = request.reviews ?? null;
    return this.#changing(person, exchangeId, async (manager, emit, { course, exchange }) => {
      const enrolment = await manager.findOneBy(Enrolment, { courseId: course.id, personId, active: true });
      if (enrolment === null || enrolment.role === 'student') throw refusal('unknown');
      const known = await manager.findOneBy(Participant, { exchangeId, personId });
      if (reviews === null) await removeExtra(manager, known);
      else await staffParticipant(manager, this.ids, exchange.id, personId, reviews);
      emit({
        action: 'extra-reviewer-set',
        actorId: person.id,
        courseId: course.id,
        exchangeId,
        details: { reviews: reviews ?? 0 },
      });
    });
  }

  /** What was wished of the preview becomes what the exchange goes by. @returns what it went by before */
  async #adoptWishes(
    manager: EntityManager,
    exchange: Exchange,
    wishes: AllocationPreview['content']['wishes'],
    now: number,
  ): Promise<StepBefore> {
    const { whom, reviewsEach, avoid, mix, maxPerDraft } = wishes;
    const plan = await planOf(manager, exchange.id, now);
    const old = { avoid: plan.avoid, mix: plan.mix, maxPerDraft: plan.maxPerDraft };
    await manager.save(AllocationPlan, { ...plan, avoid: avoid === 'all' ? null : [...avoid], mix, maxPerDraft });
    const before = { whom: exchange.whom, reviewsPerStudent: exchange.reviewsPerStudent };
    if (whom === before.whom && reviewsEach === before.reviewsPerStudent) return { wishes: old };
    await manager.update(Exchange, { id: exchange.id }, { whom, reviewsPerStudent: reviewsEach });
    return { ...before, wishes: old };
  }

  /**
   * One act, and the board after it, in one transaction.
   *
   * @param work hands back the circumstances that it has loaded, unless it changed them
   */
  async #changing(
    person: CurrentUser,
    exchangeId: string,
    work: (manager: EntityManager, emit: EmitEvent, context: ExchangeContext) => Promise<Circumstances | void>,
  ): Promise<AllocationView> {
    const board = await this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'allocate' });
      const circumstances = await work(manager, emit, context);
      const after = await this.access.exchange(person, exchangeId, manager);
      return this.#board(manager, after, circumstances ?? undefined);
    });
    // Taken once it is kept: an answer that was on its way meanwhile is older.
    return { ...board, asOf: this.database.stamp() };
  }
}

/** Hand-ins and settings as they were, and nothing begun that the preview takes away. */
function assertStillRight(question: Question, { fingerprint, kind, content }: AllocationPreview): void {
  const begun = [...question.current, ...question.own].filter(({ begunAt }) => begunAt !== null);
  if (kind === 'new' && begun.length > 0) throw alreadyBegun(begun.length);
  const pairs = new Set(content.pairs.map(pairKey));
  const lost = question.problem.fixed.some((pair) => !pairs.has(pairKey(pair)));
  if (question.fingerprint !== fingerprint || lost) throw changedSince();
}

function previewGone(): ProblemError {
  return new ProblemError({
    code: 'allocation-changed',
    sentence: say('thisPreviewHasBeenDropped'),
    whatToDo: say('lookAtBoardAsItIs'),
  });
}

function changedSince(): ProblemError {
  return new ProblemError({
    code: 'allocation-changed',
    sentence: say('handInsSettingsOrReviews'),
    whatToDo: say('lookAtNewPreviewThen'),
  });
}

function assertRollingCanChange(reviews: readonly Review[]): void {
  const begun = reviews.filter(({ begunAt }) => begunAt !== null).length;
  if (begun === 0) return;
  throw new ProblemError({
    code: 'plan-fixed',
    sentence: say('reviewsHaveBeenBegunSo', { begun }),
    whatToDo: say('leaveItAsItIs'),
  });
}

/** A time that has passed would never come. */
function assertWillRun(
  { exchange, course, now }: ExchangeContext,
  plan: Pick<AllocationPlan, 'schedule' | 'runAt'>,
): void {
  const dates = resolveDates(datesOf(exchange));
  if (plan.schedule === 'command' || dates === null) return;
  if (nextRun(scheduleOf(plan), dates, course.timeZone, now) !== null) return;
  const [field, sentence] = {
    'at-due': ['schedule', say('draftsHaveBeenDueAlready')],
    at: ['at', say('thisTimeHasPassedAlready')],
    nightly: ['schedule', say('noNightIsLeftBefore')],
  }[plan.schedule] as [string, string];
  const whatToDo = say('chooseTimeThatIsStill');
  throw new ProblemError({ code: 'invalid', sentence, whatToDo, fields: [{ path: field, code: 'invalid', sentence }] });
}

async function removeExtra(manager: EntityManager, participant: Participant | null): Promise<void> {
  if (participant === null || participant.extraReviews === null) return;
  const all = await manager.find(Review, { where: { reviewerId: participant.id }, withDeleted: true });
  const begun = all.filter(({ begunAt, voice }) => begunAt !== null && voice === null).length;
  if (begun > 0) {
    throw new ProblemError({
      code: 'allocation-begun',
      sentence: say('thisPersonHasBegunReviews', { begun }),
      whatToDo: say('takeSingleDraftsAwayOn'),
    });
  }
  // Who reviews under the own name has a part all the same.
  if (all.some(({ voice }) => voice !== null)) {
    await manager.delete(Review, { reviewerId: participant.id, ...ALLOCATED });
    await manager.update(Participant, { id: participant.id }, { extraReviews: 0 });
  } else await manager.delete(Participant, { id: participant.id });
}
