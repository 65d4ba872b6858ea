import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { RunOutcome } from '@salt-circle/contracts';
import { dueRun, nextRun, resolveDates, type AllocationQuality } from '@salt-circle/core';
import { IsNull, LessThanOrEqual, MoreThan, Not, type EntityManager } from 'typeorm';
import { Clock } from '../../platform/clock/clock.js';
import { Rounds } from '../../platform/jobs/rounds.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Course, Enrolment } from '../../model/course.js';
import { Database } from '../../platform/database/database.js';
import { Exchange } from '../../model/exchange.js';
import { datesOf } from '../../permissions/exchange-facts.js';
import { Ids } from '../../platform/ids/ids.js';
import { queueMail } from '../../platform/mail/queue-mail.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { Review } from '../../model/review.js';
import { AllocationService } from './allocation.service.js';
import { scheduleOf } from './board-view.js';
import { AllocationPlan, AllocationPreview } from '../../model/allocation.js';
import { assertPossible, PreviewsService } from './previews.service.js';
import { loadQuestion, wishesOf, type Question } from './question.js';
import { leftOver } from './since.js';
import { taskOf } from './task-of.js';
import { tellReviewers } from './tell-reviewers.js';
import type { SolverTask } from './worker/solve.js';
import { ALLOCATED } from '../../permissions/review-state.js';
import { say } from '../../words/allocation.js';
import { paragraphs } from '../../platform/mail/paragraphs.js';

const LOOK_EVERY = 15_000;

/**
 * Allocates when it was planned, and tells reviewers when reviewing opens. A run that was missed while the server was down
 * is made up for at the next start, once: the planned time of the last run is written in the same transaction as what
 * the run did.
 */
@Injectable()
export class PlannedRuns implements OnApplicationBootstrap, OnApplicationShutdown {
  readonly #logger = new Logger('planned-runs');
  readonly #rounds = new Rounds(
    () => this.#lookOnce(),
    (error) => this.#logger.error(error.stack ?? 'a planned run failed'),
  );

  constructor(
    private readonly database: Database,
    private readonly allocation: AllocationService,
    private readonly previews: PreviewsService,
    private readonly clock: Clock,
    private readonly ids: Ids,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  onApplicationBootstrap(): void {
    if (this.settings.mode === 'test') return;
    this.#rounds.begin(LOOK_EVERY);
    void this.look();
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#rounds.end();
  }

  /** Does what is due by now. One look at a time. */
  look(): Promise<void> {
    return this.#rounds.make();
  }

  async #lookOnce(): Promise<void> {
    const plans = await this.database.read.findBy(AllocationPlan, { schedule: Not('command') });
    for (const plan of plans) await this.#apart(() => this.#runIfDue(plan));
    await this.#apart(() => this.#tell());
  }

  /** What goes wrong in one exchange must not keep the others waiting; it is tried again at the next look. */
  async #apart(work: () => Promise<void>): Promise<void> {
    try {
      await work();
    } catch (error) {
      this.#logger.error((error as Error).stack ?? 'a planned run failed');
    }
  }

  async #runIfDue(plan: AllocationPlan): Promise<void> {
    const manager = this.database.read;
    const exchange = await manager.findOneByOrFail(Exchange, { id: plan.exchangeId });
    const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
    const dates = resolveDates(datesOf(exchange));
    const now = this.clock.now();
    if (exchange.publishedAt === null || dates === null) return;
    const slot = dueRun(scheduleOf(plan), dates, course.timeZone, plan.ranUntil, now);
    if (slot === null) return;
    const kind = plan.schedule === 'nightly' ? 'round' : 'new';
    const isLast = kind === 'round' && nextRun(scheduleOf(plan), dates, course.timeZone, slot) === null;
    const question = await loadQuestion(manager, exchange, wishesOf(exchange, plan), now);
    // Pairs that somebody made by hand beforehand are worked around; anything else has been allocated already.
    const done = kind === 'new' && question.current.some(({ locked }) => !locked);
    let preview: AllocationPreview | null = null;
    let outcome: RunOutcome = 'nothing-to-do';
    try {
      if (!done) {
        assertPossible(question, kind);
        // After the last round nobody comes any more: in it, nobody waits for company.
        const patience = isLast ? 0 : plan.patience;
        const task = taskOf(question, kind, this.ids.seed(), { course, now: slot }, { party: plan.party, patience });
        preview = await this.previews.compute(question, task, kind);
        if (preview !== null) outcome = await this.#outcomeOf(preview, question, task);
      }
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      const tooFew = kind === 'new' && error.problem.code === 'too-few-drafts';
      outcome = tooFew ? 'too-few-drafts' : 'nothing-to-do';
    }
    if (isLast && (outcome === 'partly' || (preview === null && leftOver(question).length > 0))) outcome = 'left-over';
    await this.#settle(plan, slot, preview, outcome);
  }

  async #outcomeOf(preview: AllocationPreview, question: Question, task: SolverTask): Promise<RunOutcome> {
    const { quality } = preview.content;
    if (isWhole(quality)) return 'applied';
    if (task.kind === 'round') {
      // In a round it is no fault that drafts are not even yet: those who came first have more.
      return isPlaced(quality) ? 'applied' : 'partly';
    }
    if (question.problem.fixed.length === 0) return 'kept';
    // As well as the pairs made by hand let it, if without them everything would fit.
    const without = await this.previews.compute(
      question,
      { kind: 'new', problem: { ...question.problem, seed: preview.seed, fixed: [] } },
      'new',
    );
    return without !== null && isWhole(without.content.quality) ? 'around' : 'kept';
  }

  async #settle(
    { exchangeId }: AllocationPlan,
    slot: number,
    preview: AllocationPreview | null,
    outcome: RunOutcome,
  ): Promise<void> {
    try {
      await this.database.write(async (manager, emit) => {
        const plan = await manager.findOneByOrFail(AllocationPlan, { exchangeId });
        // Somebody else may have done it, or planned anew, while this was being worked out.
        if (plan.ranUntil >= slot || plan.schedule === 'command') return;
        const exchange = await manager.findOneByOrFail(Exchange, { id: exchangeId });
        const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
        const now = this.clock.now();
        await manager.update(AllocationPlan, { exchangeId }, { ranUntil: slot, lastRunAt: now, lastOutcome: outcome });
        if (preview !== null && outcome !== 'kept') {
          await this.allocation.applyPreview(manager, emit, { exchange, course, now, person: null }, preview);
        } else if (preview !== null) {
          await manager.delete(AllocationPreview, { exchangeId, madeBy: '' });
          await manager.insert(AllocationPreview, preview);
        }
        // Of rounds that leave somebody waiting night after night, once.
        const isNews = outcome !== 'partly' || plan.lastOutcome !== 'partly';
        if (outcome !== 'applied' && outcome !== 'nothing-to-do' && isNews) {
          await this.#tellInstructors(manager, exchange, course, preview, now, outcome);
        }
        emit({
          action: 'allocation-run',
          actorId: null,
          courseId: course.id,
          exchangeId,
          details: { outcome, planned: new Date(slot).toISOString() },
        });
      });
    } catch (error) {
      // A draft came in while this was being worked out: the next look does it again, with that draft.
      if (!(error instanceof ProblemError && error.problem.code === 'allocation-changed')) throw error;
    }
  }

  async #tellInstructors(
    manager: EntityManager,
    exchange: Exchange,
    course: Course,
    preview: AllocationPreview | null,
    now: number,
    outcome: RunOutcome,
  ): Promise<void> {
    const people = await manager.findBy(Enrolment, { courseId: course.id, role: 'instructor', active: true });
    const where = { course: course.title, exchange: exchange.title };
    const letters = people.map(({ email, personId }) => ({
      kind: 'allocation-outcome' as const,
      address: email,
      subject: say(SUBJECTS[outcome] ?? 'notBeenAllocated', where),
      text: paragraphs([
        say('plannedAllocationOfInWas', where),
        whatCameOfIt(outcome, preview),
        `${this.database.mail.publicUrl}/exchanges/${exchange.id}/allocation`,
      ]),
      courseId: course.id,
      exchangeId: exchange.id,
      news: { personId, path: `/exchanges/${exchange.id}/allocation` },
    }));
    await queueMail(manager, this.ids, this.database.mail, now, letters);
  }

  /** Of the exchanges in which drafts can be reviewed now. */
  async #tell(): Promise<void> {
    const now = this.clock.now();
    const running = await this.database.read.find(Exchange, {
      where: { publishedAt: Not(IsNull()), draftsOpen: LessThanOrEqual(now), reviewsDue: MoreThan(now) },
    });
    for (const exchange of running) {
      const untold = { exchangeId: exchange.id, ...ALLOCATED, toldAt: IsNull(), submittedAt: IsNull() };
      if (!(await this.database.read.existsBy(Review, untold))) continue;
      await this.database.write((manager) => tellReviewers(manager, exchange, now, this.database.mail, this.ids));
    }
  }
}

const SUBJECTS: Readonly<
  Partial<Record<RunOutcome, 'beenAllocatedInPart' | 'beenAllocatedAroundYourPairs' | 'hadTheirLastRoundAnd'>>
> = {
  partly: 'beenAllocatedInPart',
  around: 'beenAllocatedAroundYourPairs',
  'left-over': 'hadTheirLastRoundAnd',
};

function whatCameOfIt(outcome: RunOutcome, preview: AllocationPreview | null): string {
  if (outcome === 'left-over') {
    return say('thatWasLastRoundBefore');
  }
  if (preview === null) return say('fewerThanTwoDraftsHave');
  const { reached, asked, beyond } = preview.content.quality.placed;
  if (outcome === 'partly') return say('thatWasAppliedOthersWait', { reached, asked });
  if (outcome === 'around') {
    const pairs = preview.content.pairs.length;
    return reached - beyond < asked
      ? say('reviewsAreAllocatedPairsThat', { pairs, reached, asked })
      : say('reviewsAreAllocatedPairsThatYou', { pairs });
  }
  return say('soNothingWasAppliedPreview', { reached, asked, even: reached - beyond === asked ? 'no' : 'yes' });
}

/** Everybody got what was asked, and no draft is short by more than one. */
function isWhole({ placed, balance }: AllocationQuality): boolean {
  return isPlaced({ placed }) && balance.most - balance.fewest <= 1;
}

function isPlaced({ placed }: Pick<AllocationQuality, 'placed'>): boolean {
  return placed.reached - placed.beyond === placed.asked;
}
