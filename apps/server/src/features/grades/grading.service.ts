import { Injectable } from '@nestjs/common';
import type {
  GraderRequest,
  GradingCompanyView,
  GradingShareRequest,
  MarkingFormsRequest,
} from '@salt-circle/contracts';
import {
  EMPTY_FORM,
  checkMarkingForms,
  formMaximum,
  shareOut,
  type GradingWork,
  type ReviewForm,
} from '@salt-circle/core';
import { In, IsNull, Not, type EntityManager } from 'typeorm';
import { Access, assertCan, participantOf, type ExchangeContext } from '../../permissions/access.js';
import { activeParticipants } from '../../queries/participants.js';
import { courseNames } from '../../queries/course-identities.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { ruleOf } from '../../queries/grade-rule.js';
import { Enrolment } from '../../model/course.js';
import { Exchange } from '../../model/exchange.js';
import { GradingTask } from '../../model/grade.js';
import { AnswerRow, Review } from '../../model/review.js';
import { LibraryItem } from '../../model/library.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { insertAll } from '../../platform/database/insert-all.js';
import { portions } from '../../platform/database/portions.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { KeptEvidence } from './kept-evidence.js';
import { say } from '../../words/grades.js';

/** How long somebody counts as being at a person after the page last said so, in milliseconds; it says so three times in this. */
const PRESENT = 45_000;

/** Who of the staff grades whom, and by what form. */
@Injectable()
export class Grading {
  /** Who was when at whom: by participant, then by person. Nothing of it needs to outlive the server. */
  readonly #present = new Map<string, Map<string, number>>();

  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly kept: KeptEvidence,
  ) {}

  /** Among graders, anew: whoever had somebody before has nobody now, but for what is graded, where that stays. */
  async share(person: CurrentUser, exchangeId: string, request: GradingShareRequest): Promise<void> {
    const { how, openOnly } = request;
    const works = [...new Set(request.works)];
    const graders = [...new Set(request.graderIds)];
    const before = await this.access.exchange(person, exchangeId);
    assertCan(before, { kind: 'plan' });
    // Before the transaction, which nobody else's saving should wait for.
    const { people } = await this.kept.of(before);
    const graded = new Map(people.map(({ participant, work }) => [participant.id, work]));
    await this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'plan' });
      if (how !== 'none') await assertStaff(manager, context, graders);
      const participants = await activeParticipants(manager, exchangeId);
      const enrolled = new Map(
        (await manager.findBy(Enrolment, { courseId: context.course.id })).map((one) => [one.personId, one]),
      );
      const byName = participants
        .map(({ id, personId }) => ({
          id,
          name: enrolled.get(personId)?.name ?? '',
          section: enrolled.get(personId)?.section ?? null,
        }))
        .sort((a, b) => a.name.localeCompare(b.name) || (a.id < b.id ? -1 : 1));
      for (const work of works) {
        const stays = ({ id }: { readonly id: string }) =>
          openOnly && ['half', 'done'].includes(graded.get(id)?.[work].state ?? 'open');
        const moved = byName.filter((one) => !stays(one));
        for (const some of portions(moved.map(({ id }) => id)))
          await manager.delete(GradingTask, { participantId: In(some), work });
        if (how === 'none') continue;
        const shared = shareOut(moved, graders, how);
        await insertAll(
          manager,
          GradingTask,
          moved.map(({ id }) => ({ participantId: id, work, graderId: shared.get(id) as string })),
        );
      }
      emit({
        ...{ action: 'grading-shared', actorId: person.id, courseId: context.course.id, exchangeId },
        details: { works, how, graders: graders.length },
      });
    });
  }

  /** One person, by hand. */
  async assign(
    person: CurrentUser,
    exchangeId: string,
    participantId: string,
    { work, graderId }: GraderRequest,
  ): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'grade' });
      await participantOf(manager, exchangeId, participantId);
      if (graderId === null) await manager.delete(GradingTask, { participantId, work });
      else {
        await assertStaff(manager, context, [graderId]);
        await manager.save(GradingTask, { participantId, work, graderId });
      }
      emit.quietly({ topic: 'grades', courseId: context.course.id, exchangeId });
    });
  }

  /** Says that one is at somebody, and hears who else is. */
  async present(person: CurrentUser, exchangeId: string, participantId: string): Promise<GradingCompanyView> {
    const manager = this.database.read;
    const context = await this.access.exchange(person, exchangeId);
    assertCan(context, { kind: 'grade' });
    await participantOf(manager, exchangeId, participantId);
    const now = this.clock.now();
    const here = this.#present.get(participantId) ?? new Map<string, number>();
    // In the order in which people came, so that whoever looks the longest without a word is forgotten first.
    for (const [one, at] of here) if (at < now - PRESENT) here.delete(one);
    here.set(person.id, now);
    this.#present.set(participantId, here);
    for (const [other, people] of this.#present) {
      if ([...people.values()].every((at) => at < now - PRESENT)) this.#present.delete(other);
    }
    const names = await courseNames(
      manager,
      context.course.id,
      [...here.keys()].filter((id) => id !== person.id),
    );
    return { others: [...names.values()].sort() };
  }

  /**
   * What was marked of reviewing by another form is kept, and counts again where that one is taken again. A review of a draft
   * stays with the form that it was begun by, unless nothing is answered in it yet.
   */
  async chooseForms(
    person: CurrentUser,
    exchangeId: string,
    { draftFormId, reviewingFormId, each }: MarkingFormsRequest,
  ): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'plan' });
      if (draftFormId !== undefined) {
        const draftForm = draftFormId === null ? null : await markingForm(manager, context, draftFormId, 'draft');
        await manager.update(Exchange, { id: exchangeId }, { draftForm });
        const begun = await manager.findBy(Review, { exchangeId, voice: Not(IsNull()), submittedAt: IsNull() });
        for (const { id } of begun) {
          if (await manager.existsBy(AnswerRow, { reviewId: id })) continue;
          await manager.update(Review, { id }, { ownForm: draftForm });
        }
      }
      if (reviewingFormId !== undefined) {
        const form =
          reviewingFormId === null ? null : await markingForm(manager, context, reviewingFormId, 'reviewing');
        const reviewing = {
          reviewingForm: form === null ? null : [...form.items],
          reviewingWeighting: form?.weighting ?? ('points' as const),
        };
        await manager.update(Exchange, { id: exchangeId }, reviewing);
      }
      await manager.update(Exchange, { id: exchangeId }, { reviewingEach: each });
      emit({
        ...{ action: 'marking-forms-set', actorId: person.id, courseId: context.course.id, exchangeId },
        details: { each },
      });
    });
  }
}

/** The works that there are, for whoever shares them out. */
export type Tasks = ReadonlyMap<string, Readonly<Partial<Record<GradingWork, string>>>>;

/** Whose it is to grade whom: by participant, the ids of persons. */
export async function tasksOf(manager: EntityManager, exchangeId: string): Promise<Tasks> {
  const rows = await manager
    .createQueryBuilder(GradingTask, 'task')
    .innerJoin('participant', 'participant', 'participant.id = task.participantId')
    .where('participant.exchangeId = :exchangeId', { exchangeId })
    .getMany();
  const tasks = new Map<string, Partial<Record<GradingWork, string>>>();
  for (const { participantId, work, graderId } of rows) {
    tasks.set(participantId, { ...tasks.get(participantId), [work]: graderId });
  }
  return tasks;
}

/** All who can grade, by name. */
export async function gradersOf(
  manager: EntityManager,
  courseId: string,
): Promise<Array<{ id: string; name: string }>> {
  const all = await manager.findBy(Enrolment, { courseId, active: true });
  return all
    .filter(({ role }) => role !== 'student')
    .map(({ personId, name }) => ({ id: personId, name }))
    .sort((a, b) => a.name.localeCompare(b.name));
}

async function assertStaff(manager: EntityManager, { course }: ExchangeContext, ids: readonly string[]): Promise<void> {
  const staff = new Set((await gradersOf(manager, course.id)).map(({ id }) => id));
  if (ids.length === 0 || ids.some((id) => !staff.has(id))) {
    throw new ProblemError({
      code: 'invalid',
      sentence: ids.length === 0 ? say('nobodyIsChosenToGrade') : say('somebodyWhoIsChosenIs'),
      whatToDo: say('chooseAtLeastOneOf'),
    });
  }
}

/** @throws ProblemError where the form gives no points that the grade rests on */
async function markingForm(
  manager: EntityManager,
  { course, exchange }: ExchangeContext,
  formId: string,
  work: GradingWork,
): Promise<ReviewForm> {
  const known = await manager.findOneBy(LibraryItem<'form'>, { id: formId, courseId: course.id, kind: 'form' });
  if (known === null) throw refusal('unknown');
  const forms = { draft: null, reviewing: null, [work]: formMaximum(known.content) !== null };
  if (checkMarkingForms(exchange.gradeParts, ruleOf(exchange), forms).length > 0) {
    const of = work === 'draft' ? say('markOfDraft') : say('markOfReviewing');
    throw new ProblemError({
      code: 'invalid',
      sentence: say('givesNoPointsButIs', { title: known.title, of }),
      whatToDo: say('giveItsItemsPointsIn'),
    });
  }
  return { ...EMPTY_FORM, ...known.content };
}
