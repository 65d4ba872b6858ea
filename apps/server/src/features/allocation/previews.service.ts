import { HttpException, Injectable, Logger } from '@nestjs/common';
import type { JobView, PreviewKind, PreviewRequest, Problem, WishesPart, WishesView } from '@salt-circle/contracts';
import { pairKey, type AllocationProgress, type Pair } from '@salt-circle/core';
import { In, type EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { Access, assertCan } from '../../permissions/access.js';
import type { Exchange } from '../../model/exchange.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { previewView } from './board-view.js';
import { AllocationPreview } from '../../model/allocation.js';
import { loadQuestion, planOf, wishesOf, type Question } from './question.js';
import { Solver } from './solver.js';
import { taskOf } from './task-of.js';
import type { SolverTask } from './worker/solve.js';
import { say } from '../../words/allocation.js';

/** What is worked out, and for whom. */
interface Order {
  readonly question: Question;
  readonly task: SolverTask;
  readonly kind: PreviewKind;
  /** Whoever asked; empty for planned runs. */
  readonly madeBy: string;
}

interface Watching {
  readonly watch?: (progress: AllocationProgress) => void;
  readonly signal?: AbortSignal;
}

interface Job {
  readonly id: string;
  readonly courseId: string;
  readonly exchangeId: string;
  readonly personId: string;
  readonly end: AbortController;
  state: JobView['state'];
  progress: AllocationProgress;
  preview: AllocationPreview | null;
  problem: Problem | null;
}

/** So long, in milliseconds, the first answer waits for the result: small courses need no second look. */
const PATIENCE = 120;
/** Of one person in one exchange. */
const KEPT_PREVIEWS = 6;
/** Jobs that nobody has asked for any more are forgotten; the preview itself is kept. */
const MOST_JOBS = 200;

/** Computes allocations beside the server's work, tells how far they are, and lets them be cancelled. */
@Injectable()
export class PreviewsService {
  readonly #logger = new Logger('allocation');
  readonly #jobs = new Map<string, Job>();

  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly solver: Solver,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  async start(person: CurrentUser, exchangeId: string, request: PreviewRequest): Promise<JobView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCan(context, { kind: 'allocate' });
    const manager = this.database.read;
    const plan = await planOf(manager, exchangeId, context.now);
    const wishes = wishesFrom(request.wishes) ?? wishesOf(context.exchange, plan);
    assertGroups(context.exchange, wishes);
    const question = await loadQuestion(manager, context.exchange, wishes, context.now);
    assertPossible(question, request.kind);
    const job: Job = {
      id: this.ids.uuid(),
      courseId: context.course.id,
      exchangeId,
      personId: person.id,
      end: new AbortController(),
      state: 'running',
      progress: { step: 'deal', share: 0 },
      preview: null,
      problem: null,
    };
    this.#keep(job);
    const seed = request.seed ?? this.ids.seed();
    const task = taskOf(question, request.kind, seed, context, plan);
    const work = this.#run(job, { question, task, kind: request.kind, madeBy: person.id });
    await Promise.race([work, new Promise((resolve) => setTimeout(resolve, PATIENCE).unref())]);
    return jobView(job);
  }

  async job(person: CurrentUser, exchangeId: string, jobId: string): Promise<JobView> {
    return jobView(await this.#own(person, exchangeId, jobId));
  }

  async cancel(person: CurrentUser, exchangeId: string, jobId: string): Promise<void> {
    const job = await this.#own(person, exchangeId, jobId);
    if (job.state === 'running') job.end.abort();
  }

  async drop(person: CurrentUser, exchangeId: string, previewId: string): Promise<void> {
    await this.database.write(async (manager) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'allocate' });
      await manager.delete(AllocationPreview, { id: previewId, exchangeId });
    });
  }

  /** Without anybody watching: for planned runs. */
  async compute(question: Question, task: SolverTask, kind: PreviewKind): Promise<AllocationPreview | null> {
    return this.#solved({ question, task, kind, madeBy: '' });
  }

  #keep(job: Job): void {
    this.#jobs.set(job.id, job);
    for (const [id, { state }] of this.#jobs) {
      if (this.#jobs.size <= MOST_JOBS) break;
      if (state !== 'running') this.#jobs.delete(id);
    }
  }

  async #own(person: CurrentUser, exchangeId: string, jobId: string): Promise<Job> {
    const context = await this.access.exchange(person, exchangeId);
    assertCan(context, { kind: 'allocate' });
    const job = this.#jobs.get(jobId);
    if (job === undefined || job.exchangeId !== exchangeId || job.personId !== person.id) throw refusal('unknown');
    return job;
  }

  async #run(job: Job, order: Order): Promise<void> {
    await this.#finish(job, order);
    this.#tell(job);
  }

  async #finish(job: Job, order: Order): Promise<void> {
    const watch = (progress: AllocationProgress) => {
      job.progress = progress;
      this.#tell(job);
    };
    try {
      const preview = await this.#solved(order, { watch, signal: job.end.signal });
      if (preview !== null) {
        await this.database.write(async (manager) => {
          await manager.insert(AllocationPreview, preview);
          await forgetOld(manager, job);
        });
      }
      job.preview = preview;
      job.state = 'done';
    } catch (error) {
      if (job.end.signal.aborted) {
        job.state = 'cancelled';
        return;
      }
      job.state = 'failed';
      job.problem = problemOf(error);
      if (!(error instanceof ProblemError)) this.#logger.error((error as Error).stack ?? 'an allocation failed');
    }
  }

  #tell({ courseId, exchangeId, personId }: Job): void {
    this.database.changes.tell([{ topic: 'preview', courseId, exchangeId, personIds: [personId] }]);
  }

  async #solved(order: Order, { watch = () => {}, signal }: Watching = {}): Promise<AllocationPreview | null> {
    const { question, task, kind, madeBy } = order;
    const { allocation, removed, added } = await this.solver.solve(task, watch, signal);
    if (allocation === null) return null;
    const { quality, shortfalls } = allocation;
    const pairs = withLeftBehind(question, allocation.pairs);
    return {
      id: this.ids.uuid(),
      exchangeId: question.exchange.id,
      madeBy,
      kind,
      seed: task.problem.seed,
      fingerprint: question.fingerprint,
      madeAt: this.clock.now(),
      content: { wishes: question.wishes, pairs, quality, shortfalls, removed, added },
    };
  }
}

/**
 * With the pairs that applying would leave where they are, though they count for nothing any more: begun by somebody who
 * has left.
 */
function withLeftBehind({ current }: Question, pairs: readonly Pair[]): Pair[] {
  const there = new Set(pairs.map(pairKey));
  const begun = current.filter((one) => one.begunAt !== null && !there.has(pairKey(one)));
  return [...pairs, ...begun.map(({ reviewerId, draftId }) => ({ reviewerId, draftId }))];
}

/** One person looks at one preview in each tab: the last few stay. */
async function forgetOld(manager: EntityManager, { exchangeId, personId }: Job): Promise<void> {
  const made = await manager.find(AllocationPreview, {
    where: { exchangeId, madeBy: personId },
    order: { madeAt: 'DESC' },
    skip: KEPT_PREVIEWS,
    take: MOST_JOBS,
  });
  if (made.length > 0) await manager.delete(AllocationPreview, { id: In(made.map(({ id }) => id)) });
}

function jobView({ id, state, progress, preview, problem }: Job): JobView {
  return { id, state, progress, preview: preview === null ? null : previewView(preview), problem };
}

function wishesFrom(part: WishesPart | null | undefined): WishesView | null {
  if (part == null) return null;
  const { whom, reviewsEach, avoid, mix, maxPerDraft } = part;
  return { whom, reviewsEach, avoid: avoid ?? 'all', mix, maxPerDraft: maxPerDraft ?? null };
}

function assertGroups({ groupSetId }: Exchange, { whom }: WishesView): void {
  if (whom === 'anyone' || groupSetId !== null) return;
  throw new ProblemError({
    code: 'invalid',
    sentence: say('noGroupsHaveBeenChosen'),
    whatToDo: say('chooseSetOfGroupsOn'),
  });
}

/** @throws ProblemError with fewer than two drafts, or for a new allocation once reviews have begun */
export function assertPossible({ problem, current, own }: Question, kind: PreviewKind): void {
  const { length: count } = problem.drafts;
  if (count < 2) {
    throw new ProblemError({
      code: 'too-few-drafts',
      sentence: count === 0 ? say('nothingHasBeenHandedIn') : say('onlyOneDraftHasBeen'),
      whatToDo: say('waitForMoreDraftsOr'),
    });
  }
  const begun = [...current, ...own].filter(({ begunAt }) => begunAt !== null).length;
  if (kind === 'new' && begun > 0) throw alreadyBegun(begun);
}

/** @param begun how many reviews have been begun */
export function alreadyBegun(begun: number): ProblemError {
  return new ProblemError({
    code: 'allocation-begun',
    sentence: say('reviewsHaveBeenBegunSoAllocation', { begun }),
    whatToDo: say('repairItInsteadThatMoves'),
  });
}

function problemOf(error: unknown): Problem {
  if (error instanceof ProblemError) return error.problem;
  const status = error instanceof HttpException ? error.getStatus() : 500;
  return {
    code: 'unexpected',
    sentence: say('allocationCouldNotBeWorked'),
    whatToDo: status === 500 ? say('tryAgainIfItHappens') : say('tryAgain'),
    fields: [],
  };
}
