import { Injectable } from '@nestjs/common';
import type { FieldProblem, PlanChoices, PlanRequest, PlanView, RulesRequest, SavedView } from '@salt-circle/contracts';
import { checkDates, takesPart } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Enrolment } from '../../model/course.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { GroupMemberRow, GroupSet, StudentGroup } from '../../model/group.js';
import { Ids } from '../../platform/ids/ids.js';
import { LibraryItem } from '../../model/library.js';
import { studentsOf } from '../../queries/students.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { conflict, dateInWords, dateProblem, invalid } from '../../platform/problems/sentences.js';
import { movedDates } from './moved-dates.js';
import { Access, assertCan, assertCanSee, type ExchangeContext } from '../../permissions/access.js';
import { datesOf } from '../../permissions/exchange-facts.js';
import { Exchange, PersonalDatesRow } from '../../model/exchange.js';
import { formOf } from '../../queries/review-form.js';
import { AllocationPlan } from '../../model/allocation.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { personalDatesPart } from '../../queries/exchange-views.js';
import { iso } from '../../platform/wire/instants.js';
import { activeParticipants, enrolParticipants } from '../../queries/participants.js';
import { countLate } from './late-hand-ins.js';
import { assertOfCourse } from './plan-ids.js';
import { datesIn, FIXED_COLUMNS, fixedSettings, planProblems, planRemarks, sameDemands } from './plan-problems.js';
import { changedColumns, rowFrom, settingsOf, type PlanRow } from '../../queries/plan-settings.js';
import { takesPartRule } from '../../queries/exchange-setup.js';
import { say } from '../../words/planning.js';

@Injectable()
export class PlanService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  async one(person: CurrentUser, exchangeId: string): Promise<PlanView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    return this.#view(this.database.read, context);
  }

  save(person: CurrentUser, exchangeId: string, request: PlanRequest): Promise<SavedView> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'plan' });
      const { exchange } = context;
      const next = rowFrom(request);
      const changed = changedColumns(exchange, next);
      if (exchange.revision !== request.revision && changed.length > 0) {
        throw conflict(say('plan'), await this.#view(manager, context));
      }
      await this.#check(manager, context, next, changed);
      const revision = exchange.revision + 1;
      await manager.update(Exchange, { id: exchangeId }, { ...next, revision });
      if (changed.length > 0) {
        const moved = movedDates(datesOf(exchange), next);
        const who = { actorId: person.id, courseId: context.course.id, exchangeId };
        // Nobody is told by a letter: before it is published, and of what is no date, there is nobody to tell.
        if (moved.length > 0) emit({ action: 'dates-changed', ...who, details: { moved, tell: false } });
        const others = changed.filter((name) => !(name in datesOf(exchange)));
        if (others.length > 0) emit({ action: 'plan-changed', ...who, details: { changed: others } });
      }
      return { revision, savedAt: iso(this.clock.now()) };
    });
  }

  /** Changes what late hand-ins lose, or what the grade is made of, once students have been told. */
  setRules(person: CurrentUser, exchangeId: string, { tell, ...part }: RulesRequest): Promise<SavedView> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'move-dates' });
      const { exchange, course } = context;
      const settings = settingsOf(exchange);
      const next = rowFrom({
        ...settings,
        late: part.late === undefined ? settings.late : part.late,
        gradeParts: part.gradeParts ?? settings.gradeParts,
      });
      const changed = changedColumns(exchange, next).filter((name) => isRule(name));
      const problems = await planProblems(manager, context, next, await formOf(manager, context));
      const fresh = problems.filter(({ path }) => changed.some((name) => path.split('.')[0] === name));
      if (fresh.length > 0) throw invalid(fresh);
      const revision = exchange.revision + (changed.length > 0 ? 1 : 0);
      if (changed.length > 0) {
        const { late, gradeParts } = next;
        await manager.update(Exchange, { id: exchangeId }, { late, gradeParts, revision });
        emit({
          action: 'rules-changed',
          actorId: person.id,
          courseId: course.id,
          exchangeId,
          details: { changed, tell },
        });
      }
      return { revision, savedAt: iso(this.clock.now()) };
    });
  }

  publish(person: CurrentUser, exchangeId: string): Promise<PlanView> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'publish' });
      const missing = await this.#missing(manager, context);
      if (missing.length > 0) {
        throw new ProblemError({
          code: 'plan-incomplete',
          sentence: say('thingsAreMissingBeforeThis', { missing: missing.length }),
          whatToDo: say('mendWhatIsListedThen'),
          fields: missing,
        });
      }
      const publishedAt = this.clock.now();
      await manager.update(Exchange, { id: exchangeId }, { publishedAt });
      await enrolParticipants(manager, context.exchange, this.ids);
      emit({ action: 'exchange-published', actorId: person.id, courseId: context.course.id, exchangeId });
      return this.#view(manager, await this.access.exchange(person, exchangeId, manager));
    });
  }

  /** What can't be kept at all, as opposed to what is missing for publishing. */
  async #check(
    manager: EntityManager,
    context: ExchangeContext,
    next: PlanRow,
    changed: ReadonlyArray<keyof PlanRow>,
  ): Promise<void> {
    const { exchange, course, facts } = context;
    await assertOfCourse(manager, course.id, exchange, next);
    if (!facts.published) {
      const problems = checkDates(datesIn(next), false).map((one) => dateProblem(one, course.timeZone));
      if (problems.length > 0) throw invalid(problems);
      return;
    }
    if (changed.some((name) => name in datesOf(exchange))) {
      throw new ProblemError({
        code: 'plan-fixed',
        sentence: say('exchangeIsPublishedSoIts'),
        whatToDo: say('useMoveDatesOnPlan'),
      });
    }
    const rules = changed.filter((name) => isRule(name));
    if (rules.length > 0) {
      const sentence = say('exchangeIsPublishedWhatBeing');
      throw new ProblemError({
        code: 'plan-fixed',
        sentence,
        whatToDo: say('useChangeRuleOrChange'),
        fields: rules.map((path) => ({ path, code: 'fixed', sentence })),
      });
    }
    const fixed = await fixedSettings(manager, context);
    const clashes = (Object.entries(fixed) as Array<[keyof typeof FIXED_COLUMNS, string]>).filter(([name]) => {
      const columns = FIXED_COLUMNS[name].filter((column) => changed.includes(column));
      return name === 'deliverables'
        ? columns.length > 0 && !sameDemands(exchange.deliverables, next.deliverables)
        : columns.length > 0;
    });
    if (clashes.length > 0) {
      throw new ProblemError({
        code: 'plan-fixed',
        sentence: (clashes[0] as [string, string])[1],
        whatToDo: say('leaveThisAsItIs'),
        fields: clashes.map(([path, sentence]) => ({ path, code: 'fixed', sentence })),
      });
    }
    const problems = await planProblems(manager, context, next, await formOf(manager, context));
    // What was accepted at publishing and comes from people leaving since must not block a mended brief.
    const fresh = problems.filter(({ path }) => changed.some((name) => path.split('.')[0] === name));
    if (fresh.length > 0) throw invalid(fresh);
  }

  async #missing(manager: EntityManager, context: ExchangeContext): Promise<FieldProblem[]> {
    const { exchange, course } = context;
    const row = rowFrom(settingsOf(exchange));
    const missing = await planProblems(manager, context, row, await formOf(manager, context));
    const due = exchange.draftsDue;
    if (due !== null && due <= this.clock.now() && exchange.publishedAt === null) {
      const past: FieldProblem = {
        path: 'dates.draftsDue',
        code: 'date-past',
        sentence: say('draftsDueHasPassedSo', { dateInWords: dateInWords(due, course.timeZone) }),
      };
      const after = missing.findIndex(({ path }) => !path.startsWith('brief') && !path.startsWith('deliv'));
      missing.splice(after === -1 ? missing.length : after, 0, past);
    }
    return missing;
  }

  async #view(manager: EntityManager, context: ExchangeContext): Promise<PlanView> {
    const { exchange, course, facts } = context;
    const students = await studentsOf(manager, course.id);
    const rule = { takesPart: takesPartRule(exchange.takesPart) };
    const allocation = await manager.findOneBy(AllocationPlan, { exchangeId: exchange.id });
    return {
      ...settingsOf(exchange),
      revision: exchange.revision,
      published: facts.published,
      students: facts.published
        ? (await activeParticipants(manager, exchange.id)).length
        : students.filter((one) => takesPart(rule, one)).length,
      missing: await this.#missing(manager, context),
      remarks: planRemarks(course, rowFrom(settingsOf(exchange)), await formOf(manager, context)),
      fixed: await fixedSettings(manager, context),
      own: await this.#own(manager, context),
      lateHandIns: facts.published ? await countLate(manager, exchange) : 0,
      allocation: {
        revision: allocation?.revision ?? 0,
        kind: allocation?.schedule ?? 'command',
        at: isoOrNull(allocation?.runAt ?? null),
        party: allocation?.party ?? 3,
        patience: allocation?.patience ?? 3,
      },
      choices: await this.#choices(manager, context),
    };
  }

  async #choices(manager: EntityManager, { course }: ExchangeContext): Promise<PlanChoices> {
    const students = await studentsOf(manager, course.id);
    const named = students.map(({ id, name, section }) => ({ id, name, section }));
    const sets = await manager.find(GroupSet, {
      where: { courseId: course.id },
      order: { createdAt: 'ASC', id: 'ASC' },
    });
    const groupSets: Array<PlanChoices['groupSets'][number]> = [];
    for (const { id, title } of sets) {
      const groups = await manager.find(StudentGroup, { where: { setId: id }, order: { position: 'ASC' } });
      const members = await manager.findBy(GroupMemberRow, { setId: id });
      const active = new Set(students.map((one) => one.id));
      const size = (groupId: string) =>
        members.filter((one) => one.groupId === groupId && active.has(one.enrolmentId)).length;
      groupSets.push({
        id,
        title,
        groups: groups.map((one) => ({ id: one.id, title: one.title, size: size(one.id) })),
      });
    }
    const shorthand = await manager.find(LibraryItem, { where: { courseId: course.id, kind: 'shorthand' } });
    return {
      sections: [...new Set(students.flatMap(({ section }) => (section === null ? [] : [section])))].sort(),
      students: named.sort((a, b) => a.name.localeCompare(b.name)),
      groupSets,
      shorthand: shorthand.map(({ id, title }) => ({ id, title })),
    };
  }

  async #own(manager: EntityManager, { exchange }: ExchangeContext): Promise<PlanView['own']> {
    const rows = await manager.findBy(PersonalDatesRow, { exchangeId: exchange.id });
    const named: Array<PlanView['own'][number]> = [];
    for (const row of rows) {
      const { id, enrolmentId, groupId, reason } = row;
      const name = await nameOfOwn(manager, row);
      named.push({ id, studentId: enrolmentId, groupId, name, reason, ...personalDatesPart(row) });
    }
    return named.sort((a, b) => a.name.localeCompare(b.name));
  }
}

/** What students are told of beside dates. */
function isRule(name: keyof PlanRow): boolean {
  return name === 'late' || name === 'gradeParts';
}

/** Whose own times these are: a group's title, or a student's name. */
async function nameOfOwn(manager: EntityManager, { groupId, enrolmentId }: PersonalDatesRow): Promise<string> {
  if (groupId !== null) return (await manager.findOneBy(StudentGroup, { id: groupId }))?.title ?? '';
  const enrolment = await manager.findOneBy(Enrolment, { id: enrolmentId ?? '' });
  return enrolment?.name ?? '';
}
