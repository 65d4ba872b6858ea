import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { RunOutcome } from '@salt-circle/contracts';
import { dueRun, resolveDates, type AllocationQuality } from '@salt-circle/core';
import { IsNull, LessThanOrEqual, MoreThan, Not, type EntityManager } from 'typeorm';
import { Clock } from '../../platform/clock/clock.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Course, Enrolment } from '../../model/course.js';
import { Database } from '../../platform/database/database.js';
import { Exchange } from '../../model/exchange.js';
import { datesOf } from '../../access/facts-of.js';
import { Ids } from '../../platform/ids/ids.js';
import { queueMail } from '../../platform/mail/queue-mail.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { Review } from '../../model/review.js';
import { AllocationService } from './allocation.service.js';
import { scheduleOf } from './board-view.js';
import { AllocationPlan, AllocationPreview } from '../../model/allocation.js';
import { assertPossible, PreviewsService } from './previews.service.js';
import { loadQuestion, wishesOf } from './question.js';
import { taskOf } from './task-of.js';
import { tellReviewers } from './tell-reviewers.js';

const LOOK_EVERY = 15_000;

/**
 * Allocates when it was planned, and tells reviewers when reviewing opens. A run that was missed while the server was down
 * is made up for at the next start, once: the planned time of the last run is written in the same transaction as what
 * the run did.
 */
@Injectable()
export class PlannedRuns implements OnApplicationBootstrap, OnApplicationShutdown {
  readonly #logger = new Logger('planned-runs');
  #timer: NodeJS.Timeout | null = null;
  #busy: Promise<unknown> = Promise.resolve();

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
    this.#timer = setInterval(() => void this.look(), LOOK_EVERY);
    this.#timer.unref();
    void this.look();
  }

  async onApplicationShutdown(): Promise<void> {
    if (this.#timer !== null) clearInterval(this.#timer);
    await this.#busy;
  }

  /** Does what is due by now. One look at a time. */
  look(): Promise<void> {
    const run = this.#busy.then(() => this.#lookOnce());
    this.#busy = run.catch((error: Error) => this.#logger.error(error.stack ?? 'a planned run failed'));
    return run;
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
    const question = await loadQuestion(manager, exchange, wishesOf(exchange, plan), now);
    // Pairs that somebody made by hand beforehand are worked around; anything else has been allocated already.
    const done = kind === 'new' && question.current.some(({ locked }) => !locked);
    let preview: AllocationPreview | null = null;
    let outcome: RunOutcome = 'nothing-to-do';
    try {
      if (!done) {
        assertPossible(question, kind);
        const task = taskOf(question, kind, this.ids.seed(), { course, now: slot }, plan);
        preview = await this.previews.compute(question, task, kind);
      }
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      const tooFew = kind === 'new' && error.problem.code === 'too-few-drafts';
      outcome = tooFew ? 'too-few-drafts' : 'nothing-to-do';
    }
    if (preview !== null) outcome = outcomeOf(preview);
    await this.#settle(plan, slot, preview, outcome);
  }

  async #settle(
    { exchangeId }: AllocationPlan,
    slot: number,
    preview: AllocationPreview | null,
    outcome: RunOutcome,
  ): Promise<void> {
    try {
      await this.database.write(async (manager, happened) => {
        const plan = await manager.findOneByOrFail(AllocationPlan, { exchangeId });
        // Somebody else may have done it, or planned anew, while this was being worked out.
        if (plan.ranUntil >= slot || plan.schedule === 'command') return;
        const exchange = await manager.findOneByOrFail(Exchange, { id: exchangeId });
        const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
        const now = this.clock.now();
        await manager.update(AllocationPlan, { exchangeId }, { ranUntil: slot, lastRunAt: now, lastOutcome: outcome });
        if (preview !== null && outcome !== 'kept') {
          await this.allocation.applyPreview(manager, happened, { exchange, course, now, person: null }, preview);
        } else if (preview !== null) {
          await manager.delete(AllocationPreview, { exchangeId, madeBy: '' });
          await manager.insert(AllocationPreview, preview);
        }
        // Of rounds that leave somebody waiting night after night, once.
        const news = outcome !== 'partly' || plan.lastOutcome !== 'partly';
        if (outcome !== 'applied' && outcome !== 'nothing-to-do' && news) {
          await this.#tellInstructors(manager, exchange, course, preview, now, outcome);
        }
        happened({
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
    const partly = outcome === 'partly';
    const letters = people.map(({ email }) => ({
      address: email,
      subject: `${course.title}: drafts of “${exchange.title}” have ${partly ? 'been allocated in part' : 'not been allocated'}`,
      text: `The planned allocation of “${exchange.title}” in ${course.title} was run.\n\n${whatCameOfIt(outcome, preview)}\n\n${this.database.mail.publicUrl}/exchanges/${exchange.id}/allocation\n`,
      courseId: course.id,
      exchangeId: exchange.id,
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
      const untold = { exchangeId: exchange.id, toldAt: IsNull(), submittedAt: IsNull() };
      if (!(await this.database.read.existsBy(Review, untold))) continue;
      await this.database.write((manager) => tellReviewers(manager, exchange, now, this.database.mail, this.ids));
    }
  }
}

function outcomeOf({ kind, content }: AllocationPreview): RunOutcome {
  if (isWhole(content.quality)) return 'applied';
  if (kind !== 'round') return 'kept';
  // In a round it is no fault that drafts are not even yet: those who came first have more.
  const { placed } = content.quality;
  return placed.reached - placed.beyond === placed.asked ? 'applied' : 'partly';
}

function whatCameOfIt(outcome: RunOutcome, preview: AllocationPreview | null): string {
  if (preview === null) return 'Fewer than two drafts have been handed in, so there was nothing to allocate.';
  const { reached, asked, beyond } = preview.content.quality.placed;
  const placed = `${reached} of ${asked} reviews could be placed`;
  if (outcome === 'partly') {
    return `${placed}. That was applied; the others wait for drafts that are still to come, and you will not be told of that again.`;
  }
  const uneven = reached - beyond === asked ? ', but not evenly' : '';
  return `${placed}${uneven}, so nothing was applied. The preview is kept for you to look at.`;
}

/** Everybody got what was asked, and no draft is short by more than one. */
function isWhole({ placed, balance }: AllocationQuality): boolean {
  return placed.reached - placed.beyond === placed.asked && balance.most - balance.fewest <= 1;
}
