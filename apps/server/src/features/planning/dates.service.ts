import { Injectable } from '@nestjs/common';
import type {
  DateNowRequest,
  FieldProblem,
  MoveDatesRequest,
  PersonalDatesRequest,
  SavedView,
} from '@salt-circle/contracts';
import {
  checkDates,
  moveNow,
  PERSONAL_DATES,
  resolveDates,
  type ExchangeDates,
  type PersonalDateName,
} from '@salt-circle/core';
import { IsNull, Not, type EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { Clock } from '../../platform/clock/clock.js';
import { Enrolment } from '../../model/course.js';
import { Database, type EmitEvent } from '../../platform/database/database.js';
import { GroupSet, StudentGroup } from '../../model/group.js';
import { Ids } from '../../platform/ids/ids.js';
import { DATE_WORDS, dateInWords, dateProblem, invalid, refusal } from '../../platform/problems/sentences.js';
import { movedDates } from './moved-dates.js';
import { Access, assertCan, type ExchangeContext } from '../../permissions/access.js';
import { datesOf } from '../../permissions/exchange-facts.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { Exchange, PersonalDatesRow, Participant } from '../../model/exchange.js';
import { datesAsked, datesFrom } from '../../queries/exchange-views.js';
import { iso } from '../../platform/wire/instants.js';
import { say } from '../../words/planning.js';

/** The opening that each due time of one's own must come after. */
const OPENING: Readonly<Record<PersonalDateName, 'draftsOpen' | 'reviewsOpen' | 'release'>> = {
  draftsDue: 'draftsOpen',
  reviewsDue: 'reviewsOpen',
  repliesDue: 'release',
  revisionDue: 'release',
};

/** Moves the dates of a published exchange, for all or for some. */
@Injectable()
export class DatesService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  move(person: CurrentUser, exchangeId: string, { dates, tell }: MoveDatesRequest): Promise<SavedView> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'move-dates' });
      return this.#apply(manager, emit, context, datesFrom(dates), tell);
    });
  }

  /** “Open now” and “close now” are dates moved to this moment. */
  now(person: CurrentUser, exchangeId: string, { date, tell }: DateNowRequest): Promise<SavedView> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'move-dates' });
      return this.#apply(manager, emit, context, moveNow(datesOf(context.exchange), date, context.now), tell);
    });
  }

  /** Moves the release date: to a given instant, or to this very moment. */
  release(person: CurrentUser, exchangeId: string, at: string | null): Promise<{ release: string }> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'release' });
      const old = datesOf(context.exchange);
      const release = at === null ? context.now : Date.parse(at);
      // Releasing now ends the check now; the date until which one could check is no obstacle.
      const dates = { ...old, release, checkUntil: old.checkUntil === null ? null : Math.min(old.checkUntil, release) };
      assertInOrder(dates, context);
      await assertNobodyHasRead(manager, context, dates);
      await manager.update(Exchange, { id: exchangeId }, { ...dates, revision: context.exchange.revision + 1 });
      const who = { actorId: person.id, courseId: context.course.id, exchangeId };
      if (at === null) emit({ action: 'feedback-released', ...who, details: { release: iso(release) } });
      else emit({ action: 'dates-changed', ...who, details: { moved: movedDates(old, dates), tell: false } });
      return { release: iso(release) };
    });
  }

  async #apply(
    manager: EntityManager,
    emit: EmitEvent,
    context: ExchangeContext,
    wanted: ExchangeDates,
    tell: boolean,
  ): Promise<SavedView> {
    const { exchange, course, person } = context;
    const dates = datesAsked(wanted, exchange);
    assertInOrder(dates, context);
    await assertNobodyHasRead(manager, context, dates);
    const old = datesOf(exchange);
    const moved = movedDates(old, dates);
    const revision = exchange.revision + (moved.length > 0 ? 1 : 0);
    if (moved.length > 0) {
      await manager.update(Exchange, { id: exchange.id }, { ...dates, revision });
      emit({
        action: 'dates-changed',
        actorId: person.id,
        courseId: course.id,
        exchangeId: exchange.id,
        details: { moved, tell },
      });
    }
    return { revision, savedAt: iso(this.clock.now()) };
  }

  /** Sets, or changes, the own times of a student or a group. */
  setOwn(person: CurrentUser, exchangeId: string, request: PersonalDatesRequest): Promise<{ id: string }> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'plan' });
      const { studentId, groupId } = await this.#whose(manager, context, request);
      const times = Object.fromEntries(
        PERSONAL_DATES.map((name) => [name, request[name] === null ? null : Date.parse(request[name])]),
      ) as Record<PersonalDateName, number | null>;
      assertPersonalDates(times, request.excused, context);
      const where =
        studentId === null ? { exchangeId, groupId: groupId as string } : { exchangeId, enrolmentId: studentId };
      const known = await manager.findOneBy(PersonalDatesRow, where);
      const id = known?.id ?? this.ids.uuid();
      const row = {
        id,
        exchangeId,
        enrolmentId: studentId,
        groupId,
        ...times,
        excused: request.excused,
        reason: request.reason.trim(),
      };
      await manager.save(PersonalDatesRow, row);
      emit({
        action: 'own-times-set',
        actorId: person.id,
        courseId: context.course.id,
        exchangeId,
        details: { student: studentId, group: groupId, excused: request.excused, reason: row.reason },
      });
      return { id };
    });
  }

  async removeOwn(person: CurrentUser, exchangeId: string, id: string): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'plan' });
      const row = await manager.findOneBy(PersonalDatesRow, { id, exchangeId });
      if (row === null) throw refusal('unknown');
      await manager.delete(PersonalDatesRow, { id });
      emit({
        action: 'own-times-removed',
        actorId: person.id,
        courseId: context.course.id,
        exchangeId,
        details: { student: row.enrolmentId, group: row.groupId },
      });
    });
  }

  async #whose(
    manager: EntityManager,
    { course }: ExchangeContext,
    { studentId = null, groupId = null }: PersonalDatesRequest,
  ): Promise<{ studentId: string | null; groupId: string | null }> {
    if ((studentId === null) === (groupId === null)) {
      throw invalid([{ path: 'studentId', code: 'whose', sentence: say('chooseOneStudentOrOne') }]);
    }
    const known =
      studentId === null
        ? await manager
            .createQueryBuilder(StudentGroup, 'one')
            .innerJoin(GroupSet, 'groupSet', 'groupSet.id = one.setId AND groupSet.courseId = :id', {
              id: course.id,
            })
            .where('one.id = :groupId', { groupId })
            .getExists()
        : await manager.existsBy(Enrolment, { id: studentId, courseId: course.id, role: 'student' });
    if (!known) throw refusal('unknown');
    return { studentId, groupId };
  }
}

function assertInOrder(dates: ExchangeDates, { course }: ExchangeContext): void {
  const problems = checkDates(dates, true);
  if (problems.length > 0) throw invalid(problems.map((one) => dateProblem(one, course.timeZone)));
}

function assertPersonalDates(
  times: Readonly<Record<PersonalDateName, number | null>>,
  excused: boolean,
  context: ExchangeContext,
): void {
  const dates = resolveDates(datesOf(context.exchange));
  const problems: FieldProblem[] = [];
  if (!excused && PERSONAL_DATES.every((name) => times[name] === null)) {
    problems.push({ path: 'draftsDue', code: 'own-empty', sentence: say('giveAtLeastOneDue') });
  }
  for (const name of PERSONAL_DATES) {
    const at = times[name];
    if (at === null) continue;
    const opening = dates?.[OPENING[name]] ?? null;
    if (opening === null) {
      problems.push({ path: name, code: 'own-early', sentence: say('setDatesOfExchangeFirst') });
    } else if (at <= opening) {
      const when = dateInWords(opening, context.course.timeZone);
      problems.push({
        path: name,
        code: 'own-early',
        sentence: say('mustBeAfterMoveIt', { date: DATE_WORDS[name], other: DATE_WORDS[OPENING[name]], when }),
      });
    } else if (OPENING[name] === 'release' && context.exchange[name] === null) {
      problems.push({
        path: name,
        code: 'own-without-stage',
        sentence: say('thisExchangeHasNoSet', { dateWords: DATE_WORDS[name] }),
      });
    }
  }
  if (problems.length > 0) throw invalid(problems);
}

/** A release is taken back by moving it ahead again; what somebody has read cannot be. */
async function assertNobodyHasRead(
  manager: EntityManager,
  context: ExchangeContext,
  dates: ExchangeDates,
): Promise<void> {
  const { facts, exchange, now } = context;
  const release = resolveDates(dates)?.release ?? null;
  if (!facts.may.released || (release !== null && release <= now)) return;
  const read = await manager.countBy(Participant, { exchangeId: exchange.id, feedbackReadAt: Not(IsNull()) });
  if (read === 0) return;
  throw new ProblemError({
    code: 'already-read',
    sentence: say('authorsHaveReadFeedbackSo', { read }),
    whatToDo: say('withholdSingleThingsOrHold'),
  });
}
