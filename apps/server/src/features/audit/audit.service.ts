import { Injectable } from '@nestjs/common';
import type { AuditGrade, AuditRow } from '@salt-circle/contracts';
import { In, type EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { AuditEntry } from '../../model/audit-entry.js';
import { Enrolment } from '../../model/course.js';
import { Draft } from '../../model/draft.js';
import { Participant } from '../../model/exchange.js';
import { StudentGroup } from '../../model/group.js';
import { Review } from '../../model/review.js';
import { Access, assertCanSee, type ExchangeContext } from '../../permissions/access.js';
import { Authors } from '../../queries/authors.js';
import { courseNames } from '../../queries/course-identities.js';
import { Database } from '../../platform/database/database.js';
import { portions } from '../../platform/database/portions.js';
import type { DomainEvent } from '../../platform/events/domain-event.js';
import { pastEvent } from '../../platform/events/past-events.js';
import { csvOf } from '../../platform/tables/cells.js';
import { iso } from '../../platform/wire/instants.js';
import { say } from '../../words/audit.js';

/** Entries that a page gets; a file has all. */
const NEWEST = 2_000;

/** Who did what to whom, from what to what, and why: the audit log of an exchange, for its teaching team. */
@Injectable()
export class AuditService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
  ) {}

  /** Newest first. */
  async rows(person: CurrentUser, exchangeId: string): Promise<AuditRow[]> {
    return this.#rows(person, exchangeId, NEWEST);
  }

  async csv(person: CurrentUser, exchangeId: string): Promise<string> {
    const rows = await this.#rows(person, exchangeId, undefined);
    const head = [say('csvWhen'), say('csvWho'), say('csvAction'), say('csvAbout'), say('csvChange'), say('csvReason')];
    const lines = rows.map(({ at, actor, action, about, moved, grade, changed, reason }) => [
      ...[at, actor, action, about.join('; ')],
      [
        ...moved.map(({ date, from, to }) => `${date}: ${from ?? '–'} → ${to ?? '–'}`),
        ...(grade === null ? [] : [`${grade.part}: ${shareOf(grade.from)} → ${shareOf(grade.to)}`]),
        ...changed,
      ].join('; '),
      reason ?? '',
    ]);
    return csvOf([head, ...lines]);
  }

  async #rows(person: CurrentUser, exchangeId: string, take: number | undefined): Promise<AuditRow[]> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    const manager = this.database.read;
    const entries = await manager.find(AuditEntry, {
      where: { exchangeId },
      order: { id: 'DESC' },
      ...(take !== undefined && { take }),
    });
    const events = entries.map(pastEvent);
    const names = await AuditNames.load(manager, context, events);
    return entries.map(({ id, at }, index) => {
      const event = events[index] as DomainEvent;
      return {
        ...{ id, at: iso(at), actor: names.actor(event), action: event.action, about: names.about(event) },
        moved: event.action === 'dates-changed' ? [...event.details.moved] : [],
        grade: gradeOf(event),
        changed: event.action === 'plan-changed' || event.action === 'rules-changed' ? [...event.details.changed] : [],
        reason: reasonOf(event),
      };
    });
  }
}

function gradeOf(event: DomainEvent): AuditGrade | null {
  if (event.action !== 'grade-overridden') return null;
  const { part, from, to } = event.details;
  return { part, from: from ?? null, to };
}

function shareOf(share: number | null): string {
  return share === null ? '–' : `${Math.round(share * 1_000) / 10}%`;
}

/** Only reasons that are given for the record. */
function reasonOf(event: DomainEvent): string | null {
  switch (event.action) {
    case 'grade-overridden':
    case 'own-times-set':
      return event.details.reason === '' ? null : (event.details.reason ?? null);
    default:
      return null;
  }
}

/** Names of everybody that entries speak of, as the course lists them; loaded at once. */
class AuditNames {
  private constructor(
    private readonly persons: ReadonlyMap<string, string>,
    private readonly participants: ReadonlyMap<string, string>,
    private readonly enrolments: ReadonlyMap<string, string>,
    private readonly groups: ReadonlyMap<string, string>,
    private readonly reviews: ReadonlyMap<string, Review>,
    private readonly drafts: ReadonlyMap<string, Draft>,
    private readonly authors: Authors,
  ) {}

  static async load(
    manager: EntityManager,
    { exchange, course }: ExchangeContext,
    events: readonly DomainEvent[],
  ): Promise<AuditNames> {
    const participants = await manager.findBy(Participant, { exchangeId: exchange.id });
    const actors = events.flatMap(({ actorId }) => (actorId === null ? [] : [actorId]));
    const persons = [...new Set([...actors, ...participants.map(({ personId }) => personId)])];
    const names = await courseNames(manager, course.id, persons);
    const enrolments: Enrolment[] = [];
    for (const some of portions(events.flatMap((event) => enrolmentsIn(event))))
      enrolments.push(...(await manager.findBy(Enrolment, { courseId: course.id, id: In(some) })));
    const reviews = await manager.find(Review, { where: { exchangeId: exchange.id }, withDeleted: true });
    const drafts = await manager.findBy(Draft, { exchangeId: exchange.id });
    const groups =
      exchange.groupSetId === null ? [] : await manager.findBy(StudentGroup, { setId: exchange.groupSetId });
    return new AuditNames(
      names,
      new Map(participants.map(({ id, personId }) => [id, names.get(personId) ?? say('someoneWhoHasLeft')])),
      new Map(enrolments.map(({ id, name }) => [id, name])),
      new Map(groups.map(({ id, title }) => [id, title])),
      new Map(reviews.map((one) => [one.id, one])),
      new Map(drafts.map((one) => [one.id, one])),
      await Authors.load(manager, exchange),
    );
  }

  actor({ actorId }: DomainEvent): string {
    return actorId === null ? say('saltCircle') : (this.persons.get(actorId) ?? say('someoneWhoHasLeft'));
  }

  /** Whom it concerns: nobody, one person or group, or the reviewer and then the authors of a review. */
  about({ details }: DomainEvent): string[] {
    if (details === undefined) return [];
    if ('participant' in details) return known([this.participants.get(details.participant)]);
    if ('student' in details)
      return known([this.enrolments.get(details.student ?? ''), this.groups.get(details.group ?? '')]);
    if ('draft' in details) return this.#authorsOf(details.draft);
    if (!('review' in details)) return [];
    const review = this.reviews.get(details.review);
    if (review === undefined) return [];
    return [...known([this.participants.get(review.reviewerId)]), ...this.#authorsOf(review.draftId)];
  }

  #authorsOf(draftId: string): string[] {
    const draft = this.drafts.get(draftId);
    if (draft === undefined) return [];
    const group = this.authors.titleOf(draft.groupId);
    return group === null ? known(this.authors.of(draft).map((id) => this.participants.get(id))) : [group];
  }
}

function enrolmentsIn({ details }: DomainEvent): string[] {
  return details !== undefined && 'student' in details && details.student !== null ? [details.student] : [];
}

function known(names: ReadonlyArray<string | undefined>): string[] {
  return names.filter((name) => name !== undefined);
}
