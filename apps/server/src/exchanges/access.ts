import { Injectable } from '@nestjs/common';
import {
  isReleased,
  mayDo,
  mayHandIn,
  maySee,
  stageAt,
  type Act,
  type Decision,
  type ExchangeDates,
  type ExchangeFacts,
  type Subject,
  type TimelineState,
  type Viewer,
} from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { Person } from '../accounts/entities.js';
import { Clock } from '../clock/clock.js';
import { Course, Enrolment } from '../courses/entities.js';
import { Database } from '../database/database.js';
import { Draft, DraftVersion } from '../drafts/entities.js';
import { refusal } from '../problems/sentences.js';
import { Exchange, Participant } from './entities.js';

export interface CoursePlace {
  readonly person: Person;
  readonly course: Course;
  readonly viewer: Viewer;
}

/** Where somebody stands in an exchange at this moment: all that a decision needs. */
export interface Place extends CoursePlace {
  readonly exchange: Exchange;
  readonly timeline: TimelineState;
  readonly facts: ExchangeFacts;
  readonly now: number;
  /** The one who asks, as a participant; null for staff. */
  readonly participant: Participant | null;
}

export function datesOf(exchange: Exchange): ExchangeDates {
  const { draftsOpen, draftsDue, reviewsOpen, reviewsDue, release } = exchange;
  return { draftsOpen, draftsDue, reviewsOpen, reviewsDue, release };
}

export function timelineOf(exchange: Exchange): TimelineState {
  return { dates: datesOf(exchange), publishedAt: exchange.publishedAt };
}

export function factsOf(exchange: Exchange, now: number): ExchangeFacts {
  const timeline = timelineOf(exchange);
  return {
    published: exchange.publishedAt !== null,
    stage: stageAt(timeline, now),
    mayHandIn: mayHandIn(timeline, now),
    released: isReleased(timeline, now),
    names: exchange.names,
  };
}

/** Loads where somebody stands, and asks the core what follows from it. Every route comes through here. */
@Injectable()
export class Access {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
  ) {}

  /** @throws ProblemError `not-found` for anybody without an active enrolment */
  async course(person: Person, courseId: string): Promise<CoursePlace> {
    const manager = this.database.read;
    const course = await manager.findOneBy(Course, { id: courseId });
    const enrolment =
      course === null ? null : await manager.findOneBy(Enrolment, { courseId, personId: person.id, active: true });
    const viewer: Viewer = { role: enrolment?.role ?? null };
    assertAllowed(maySee(viewer, null, { kind: 'course' }));
    return { person, course: course as Course, viewer };
  }

  /**
   * @param manager give the writing one inside a transaction, so that what is decided on is what is changed
   * @throws ProblemError `not-found` for anybody who may not know of the exchange
   */
  async exchange(person: Person, exchangeId: string, manager: EntityManager = this.database.read): Promise<Place> {
    const exchange = await manager.findOneBy(Exchange, { id: exchangeId });
    if (exchange === null) throw refusal('unknown');
    const { course, viewer } = await this.course(person, exchange.courseId);
    const participant =
      viewer.role === 'student' ? await manager.findOneBy(Participant, { exchangeId, personId: person.id }) : null;
    const now = this.clock.now();
    const place: Place = {
      person,
      course,
      viewer,
      exchange,
      timeline: timelineOf(exchange),
      facts: factsOf(exchange, now),
      now,
      participant,
    };
    see(place, { kind: 'exchange' });
    if (viewer.role === 'student' && participant === null) throw refusal('unknown');
    return place;
  }

  async hasHandedIn(participantId: string, manager: EntityManager = this.database.read): Promise<boolean> {
    const draft = await manager.findOneBy(Draft, { participantId });
    return draft !== null && (await manager.existsBy(DraftVersion, { draftId: draft.id }));
  }
}

/** @throws ProblemError with the reason, when the one who asks may not see it */
export function see(place: Place, subject: Subject): void {
  assertAllowed(maySee(place.viewer, place.facts, subject));
}

/** @throws ProblemError with the reason, when the one who asks may not do it */
export function act(place: Place, what: Act): void {
  assertAllowed(mayDo(place.viewer, place.facts, what));
}

export function assertAllowed(decision: Decision): void {
  if (!decision.allowed) throw refusal(decision.refusal);
}

/** The participant a student is; staff never come this far. */
export function ownParticipant(place: Place): Participant {
  if (place.participant === null) throw refusal('not-yours');
  return place.participant;
}
