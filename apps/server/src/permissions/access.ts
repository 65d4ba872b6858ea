import { Injectable } from '@nestjs/common';
import {
  mayDo,
  maySee,
  type Act,
  type Decision,
  type ExchangeFacts,
  type PersonalDates,
  type Subject,
  type TimelineState,
  type Viewer,
} from '@salt-circle/core';
import { IsNull, Not, type EntityManager } from 'typeorm';
import { Course, Enrolment } from '../model/course.js';
import type { Draft } from '../model/draft.js';
import { Exchange, Participant } from '../model/exchange.js';
import { Clock } from '../platform/clock/clock.js';
import { Database } from '../platform/database/database.js';
import { refusal } from '../platform/problems/sentences.js';
import { draftOf, groupIdOf } from './own-draft.js';
import { factsOf, gradeIsReleased, ownFeedbackOf, timelineOf } from './exchange-facts.js';
import { personalDatesOf } from './personal-dates.js';
import { practiceComesFirst, practiceExchange } from './practice.js';
import type { CurrentUser } from '../auth/view-as.js';

export interface CourseContext {
  readonly person: CurrentUser;
  readonly course: Course;
  readonly viewer: Viewer;
}

/** Where somebody stands in an exchange at this moment: all that a decision needs. */
export interface ExchangeContext extends CourseContext {
  readonly exchange: Exchange;
  readonly timeline: TimelineState;
  readonly facts: ExchangeFacts;
  /** Milliseconds since 1970-01-01T00:00Z, of the application's time. */
  readonly now: number;
  /** The one who asks, as a participant; of the staff only those who review as well. */
  readonly participant: Participant | null;
  /** The group with which the participant hands in; null for staff and where everybody hands in alone. */
  readonly groupId: string | null;
  /** Due times of the participant's own; null for somebody without. */
  readonly own: PersonalDates | null;
}

/** Loads where somebody stands, and asks the core what follows from it. Every route comes through here. */
@Injectable()
export class Access {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
  ) {}

  /** @throws ProblemError `not-found` for anybody without an active enrolment */
  async course(
    person: CurrentUser,
    courseId: string,
    manager: EntityManager = this.database.read,
  ): Promise<CourseContext> {
    const course = await manager.findOneBy(Course, { id: courseId });
    const viewer = course === null ? { role: null } : await this.#viewer(manager, person, courseId);
    assertAllowed(maySee(viewer, null, { kind: 'course' }));
    return { person, course: course as Course, viewer };
  }

  async #viewer(manager: EntityManager, { id, viewAs }: CurrentUser, courseId: string): Promise<Viewer> {
    // With a student's eyes there is one course, and nothing else is told of.
    if (viewAs !== undefined && viewAs.courseId !== courseId) return { role: null };
    if (viewAs !== undefined) return { role: 'student', readOnly: true };
    const enrolment = await manager.findOneBy(Enrolment, { courseId, personId: id, active: true });
    return { role: enrolment?.role ?? null };
  }

  /** @throws ProblemError `not-found` for anybody who may not know of the exchange */
  async exchange(
    person: CurrentUser,
    exchangeId: string,
    manager: EntityManager = this.database.read,
  ): Promise<ExchangeContext> {
    const stored = await manager.findOneBy(Exchange, { id: exchangeId });
    const { viewAs } = person;
    if (stored === null) throw refusal('unknown');
    if (stored.practiceOf !== null) return this.#practice(person, stored, stored.practiceOf, manager);
    if (viewAs !== undefined && viewAs.exchangeId !== exchangeId) throw refusal('unknown');
    // An example student sees the exchange as it will be once it is published.
    const exchange = viewAs?.example === true ? { ...stored, publishedAt: stored.publishedAt ?? 0 } : stored;
    const { course, viewer } = await this.course(person, exchange.courseId, manager);
    const participant = await this.#participant(manager, person, viewer, exchangeId);
    const now = viewAs?.at ?? this.clock.now();
    const own = participant === null ? null : await personalDatesOf(manager, exchange, participant);
    const practiceFirst = viewer.role === 'student' && (await practiceComesFirst(manager, exchange, participant));
    const ownFeedback = participant === null ? 'as-planned' : ownFeedbackOf(participant, now);
    const gradesReleased = participant !== null && gradeIsReleased(exchange, participant, now);
    const context: ExchangeContext = {
      person,
      course,
      viewer,
      exchange,
      timeline: timelineOf(exchange),
      facts: factsOf(exchange, own, now, { practiceFirst, ownFeedback, gradesReleased }),
      now,
      participant,
      groupId: participant === null ? null : await groupIdOf(manager, exchange, participant.personId),
      own,
    };
    assertCanSee(context, { kind: 'exchange' });
    if (viewer.role === 'student' && participant === null) throw refusal('unknown');
    return context;
  }

  /**
   * Where somebody stands to a practice draft: whoever may be in the exchange that it is for, with that one's dates and form. All
   * instructors are its one author; a student is a participant from the first try on.
   */
  async #practice(
    person: CurrentUser,
    stored: Exchange,
    forId: string,
    manager: EntityManager,
  ): Promise<ExchangeContext> {
    const main = await this.exchange(person, forId, manager);
    const exchange = practiceExchange(stored, main.exchange);
    const { role } = main.viewer;
    const mine = role === 'student' ? { personId: person.id } : { extraReviews: Not(IsNull()) };
    const context: ExchangeContext = {
      ...main,
      exchange,
      timeline: timelineOf(exchange),
      facts: factsOf(exchange, main.own, main.now),
      participant:
        role === 'assistant' ? null : await manager.findOneBy(Participant, { exchangeId: stored.id, ...mine }),
      groupId: null,
    };
    assertCanSee(context, { kind: 'exchange' });
    return context;
  }

  async #participant(
    manager: EntityManager,
    person: CurrentUser,
    viewer: Viewer,
    exchangeId: string,
  ): Promise<Participant | null> {
    if (viewer.role === null) return null;
    if (person.viewAs?.participant !== undefined) return person.viewAs.participant;
    const participant = await manager.findOneBy(Participant, { exchangeId, personId: person.id });
    // Who has been a student here and is of the staff now is no author any more.
    return viewer.role === 'student' || participant?.extraReviews != null ? participant : null;
  }

  /** The same context as that of a participant to act for: for staff who take in what a student brings. */
  async actingFor(context: ExchangeContext, participantId: string, manager: EntityManager): Promise<ExchangeContext> {
    assertCan(context, { kind: 'collect' });
    const participant = await participantOf(manager, context.exchange.id, participantId);
    return { ...context, participant, groupId: await groupIdOf(manager, context.exchange, participant.personId) };
  }

  /** The draft that the one who asks is an author of, alone or with a group. */
  async ownDraft(context: ExchangeContext, manager: EntityManager = this.database.read): Promise<Draft | null> {
    return context.participant === null ? null : draftOf(manager, context.participant, context.groupId);
  }
}

/** @throws ProblemError `not-found` when there is no such participant in the exchange */
export async function participantOf(manager: EntityManager, exchangeId: string, id: string): Promise<Participant> {
  const participant = await manager.findOneBy(Participant, { id, exchangeId });
  if (participant === null) throw refusal('unknown');
  return participant;
}

/** In a course, or in one of its exchanges. */
type CheckedContext = Pick<CourseContext, 'viewer'> & Partial<Pick<ExchangeContext, 'facts'>>;

/** @throws ProblemError with the reason, when the one who asks may not see it */
export function assertCanSee(context: CheckedContext, subject: Subject): void {
  assertAllowed(maySee(context.viewer, context.facts ?? null, subject));
}

/** Like {@link assertCanSee}, as a value. */
export function canSee(context: CheckedContext, subject: Subject): boolean {
  return maySee(context.viewer, context.facts ?? null, subject).allowed;
}

/** @throws ProblemError with the reason, when the one who asks may not do it */
export function assertCan(context: CheckedContext, what: Act): void {
  assertAllowed(mayDo(context.viewer, context.facts ?? null, what));
}

/** Like {@link assertCan}, as a value. */
export function can(context: CheckedContext, what: Act): boolean {
  return mayDo(context.viewer, context.facts ?? null, what).allowed;
}

function assertAllowed(decision: Decision): void {
  if (!decision.allowed) throw refusal(decision.refusal);
}

/** The participant a student is; staff never come this far. */
export function ownParticipant(context: ExchangeContext): Participant {
  if (context.participant === null) throw refusal('not-yours');
  return context.participant;
}
