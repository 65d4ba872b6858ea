import { Injectable } from '@nestjs/common';
import {
  mayDo,
  maySee,
  type Act,
  type Decision,
  type ExchangeFacts,
  type OwnTimes,
  type Subject,
  type TimelineState,
  type Viewer,
} from '@salt-circle/core';
import { IsNull, type EntityManager } from 'typeorm';
import type { Person } from '../accounts/entities.js';
import { Clock } from '../clock/clock.js';
import { Course, Enrolment } from '../courses/entities.js';
import { Database } from '../database/database.js';
import { draftOf, groupIdOf } from '../drafts/authors.js';
import { DraftVersion, type Draft } from '../drafts/entities.js';
import { refusal } from '../problems/sentences.js';
import { Exchange, Participant } from './entities.js';
import { factsOf, timelineOf } from './facts-of.js';
import { ownTimesOf } from './own-times.js';

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
  /** The one who asks, as a participant; of the staff only those who review as well. */
  readonly participant: Participant | null;
  /** The group with which the participant hands in; null for staff and where everybody hands in alone. */
  readonly groupId: string | null;
  /** Due times of the participant's own; null for somebody without. */
  readonly own: OwnTimes | null;
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
    const viewer = course === null ? { role: null } : await this.#viewer(manager, person, courseId);
    assertAllowed(maySee(viewer, null, { kind: 'course' }));
    return { person, course: course as Course, viewer };
  }

  async #viewer(manager: EntityManager, person: Person, courseId: string): Promise<Viewer> {
    const { seeing } = person;
    // With a student's eyes there is one course, and nothing else is told of.
    if (seeing !== undefined && seeing.courseId !== courseId) return { role: null };
    if (seeing !== undefined) return { role: 'student', readOnly: true };
    const enrolment = await manager.findOneBy(Enrolment, { courseId, personId: person.id, active: true });
    return { role: enrolment?.role ?? null };
  }

  /**
   * @param manager give the writing one inside a transaction, so that what is decided on is what is changed
   * @throws ProblemError `not-found` for anybody who may not know of the exchange
   */
  async exchange(person: Person, exchangeId: string, manager: EntityManager = this.database.read): Promise<Place> {
    const stored = await manager.findOneBy(Exchange, { id: exchangeId });
    const { seeing } = person;
    if (stored === null || (seeing !== undefined && seeing.exchangeId !== exchangeId)) throw refusal('unknown');
    // An example student sees the exchange as it will be once it is published.
    const exchange = seeing?.example === true ? { ...stored, publishedAt: stored.publishedAt ?? 0 } : stored;
    const { course, viewer } = await this.course(person, exchange.courseId);
    const participant = await this.#participant(manager, person, viewer, exchangeId);
    const now = seeing?.at ?? this.clock.now();
    const own = participant === null ? null : await ownTimesOf(manager, exchange, participant);
    const place: Place = {
      person,
      course,
      viewer,
      exchange,
      timeline: timelineOf(exchange),
      facts: factsOf(exchange, own, now),
      now,
      participant,
      groupId: participant === null ? null : await groupIdOf(manager, exchange, participant.personId),
      own,
    };
    see(place, { kind: 'exchange' });
    if (viewer.role === 'student' && participant === null) throw refusal('unknown');
    return place;
  }

  async #participant(
    manager: EntityManager,
    person: Person,
    viewer: Viewer,
    exchangeId: string,
  ): Promise<Participant | null> {
    if (viewer.role === null) return null;
    if (person.seeing?.participant !== undefined) return person.seeing.participant;
    const participant = await manager.findOneBy(Participant, { exchangeId, personId: person.id });
    // Who has been a student here and is of the staff now is no author any more.
    return viewer.role === 'student' || participant?.extraReviews != null ? participant : null;
  }

  /** The same place as that of a participant to act for: for staff who take in what a student brings. */
  async actingFor(place: Place, participantId: string, manager: EntityManager): Promise<Place> {
    act(place, { kind: 'collect' });
    const participant = await manager.findOneBy(Participant, { id: participantId, exchangeId: place.exchange.id });
    if (participant === null) throw refusal('unknown');
    return { ...place, participant, groupId: await groupIdOf(manager, place.exchange, participant.personId) };
  }

  /** The draft that the one who asks is an author of, alone or with a group. */
  async ownDraft(place: Place, manager: EntityManager = this.database.read): Promise<Draft | null> {
    return place.participant === null ? null : draftOf(manager, place.participant, place.groupId);
  }

  /** Whether the one who asks has submitted the review of the own draft. */
  async selfReviewed(place: Place, manager: EntityManager = this.database.read): Promise<boolean> {
    const draft = await this.ownDraft(place, manager);
    if (draft === null || place.participant === null) return false;
    return manager
      .createQueryBuilder()
      .select('1')
      .from('review', 'review')
      .where('review.reviewerId = :reviewerId AND review.draftId = :draftId AND review.submittedAt IS NOT NULL', {
        reviewerId: place.participant.id,
        draftId: draft.id,
      })
      .getRawOne()
      .then((row) => row !== undefined);
  }

  /** Whether the one who asks has a version that counts. */
  async hasHandedIn(place: Place, manager: EntityManager = this.database.read): Promise<boolean> {
    const draft = await this.ownDraft(place, manager);
    return draft !== null && (await manager.existsBy(DraftVersion, { draftId: draft.id, withdrawnAt: IsNull() }));
  }
}

/** Whether the one who asks is an author of this draft. */
export function isOwnDraft(place: Place, draft: Pick<Draft, 'participantId' | 'groupId'> | null): boolean {
  if (draft === null || place.participant === null) return false;
  return draft.groupId === null ? draft.participantId === place.participant.id : draft.groupId === place.groupId;
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
