import { Injectable } from '@nestjs/common';
import type { RemindRequest, ReminderView } from '@salt-circle/contracts';
import {
  endOf,
  maySee,
  resolveDates,
  withPersonalDates,
  type PersonalDates,
  type ResolvedDates,
} from '@salt-circle/core';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Access, assertCan, type ExchangeContext } from '../../permissions/access.js';
import { Authors } from '../../queries/authors.js';
import { datesOf, factsOf } from '../../permissions/exchange-facts.js';
import { courseIdentities } from '../../queries/course-identities.js';
import { allPersonalDates } from '../../permissions/personal-dates.js';
import { activeParticipants } from '../../queries/participants.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { isHandedIn } from '../../queries/versions.js';
import { Draft } from '../../model/draft.js';
import { Review } from '../../model/review.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { queueMail, type Letter } from '../../platform/mail/queue-mail.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { dateInWords } from '../../platform/problems/sentences.js';
import { ALLOCATED } from '../../permissions/review-state.js';
import { say } from '../../words/drafts.js';
import { paragraphs } from '../../platform/mail/paragraphs.js';

/** The due time that a reminder names. */
const DUE = { draft: 'draftsDue', reviews: 'reviewsDue' } as const;

interface Recipient {
  readonly name: string;
  readonly email: string;
  readonly personId: string;
  readonly own: PersonalDates | null;
  /** Reviews that are not submitted yet. */
  readonly open: number;
}

/** The exchange that a reminder is about, and when. */
type Around = Pick<ExchangeContext, 'exchange' | 'course' | 'now'>;

interface Chosen {
  readonly people: readonly Recipient[];
  readonly leftOut: ReminderView['leftOut'];
}

/** Reminders to students who have something left to do: to nobody else, whoever was chosen. */
@Injectable()
export class RemindersService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  async preview(person: CurrentUser, exchangeId: string, request: RemindRequest): Promise<ReminderView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCan(context, { kind: 'collect' });
    return this.#view(context, await chosen(this.database.read, context, request), request);
  }

  /** One mail to each, with the due time that holds for that one. */
  async send(person: CurrentUser, exchangeId: string, request: RemindRequest): Promise<ReminderView> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'collect' });
      const found = await chosen(manager, context, request);
      if (found.people.length === 0) {
        throw new ProblemError({
          code: 'invalid',
          sentence: say('nobodyOfThoseWhoWere'),
          whatToDo: say('chooseAtLeastOneStudent'),
        });
      }
      const letters = found.people.map((one) => ({
        kind: 'reminder' as const,
        address: one.email,
        ...this.#letter(context, one, request),
        courseId: context.course.id,
        exchangeId,
        news: { personId: one.personId, path: `/exchanges/${exchangeId}` },
      }));
      await queueMail(manager, this.ids, this.database.mail, this.clock.now(), letters);
      emit({
        action: 'reminded',
        actorId: person.id,
        courseId: context.course.id,
        exchangeId,
        details: { people: letters.length },
      });
      return this.#view(context, found, request);
    });
  }

  /**
   * To whoever has something left to do whose due time comes in so many hours: each once, by the due time that holds for that one.
   *
   * @param since up to when that was done before, milliseconds
   * @returns how many were reminded
   */
  async sendDue(manager: EntityManager, around: Around, hours: number, since: number): Promise<number> {
    const { exchange, course, now } = around;
    const common = resolveDates(datesOf(exchange));
    if (common === null) return 0;
    const letters: Letter[] = [];
    for (const about of ['draft', 'reviews'] as const) {
      const everybody = (await activeParticipants(manager, exchange.id)).map(({ id }) => id);
      const request = { about, participantIds: everybody };
      const { people } = await chosen(manager, around, request);
      for (const one of people) {
        const due = withPersonalDates(common, one.own)[DUE[about]];
        const at = due - hours * 3_600_000;
        if (at <= since || at > now || now >= endOf(due)) continue;
        letters.push({
          kind: 'reminder',
          address: one.email,
          ...this.#letter(around, one, request),
          courseId: course.id,
          exchangeId: exchange.id,
          news: { personId: one.personId, path: `/exchanges/${exchange.id}` },
        });
      }
    }
    await queueMail(manager, this.ids, this.database.mail, now, letters);
    return letters.length;
  }

  #view(context: ExchangeContext, { people, leftOut }: Chosen, request: RemindRequest): ReminderView {
    const [first] = people;
    return {
      people: people.map(({ name }) => name),
      leftOut,
      ownTimes: people.filter(({ own }) => own !== null && own[DUE[request.about]] !== null).map(({ name }) => name),
      ...(first === undefined ? { subject: '', text: '' } : this.#letter(context, first, request)),
    };
  }

  #letter({ exchange, course }: Around, { own, open }: Recipient, { about, words = '' }: RemindRequest) {
    const common = resolveDates(datesOf(exchange));
    const dates = common === null ? null : withPersonalDates(common, own);
    const added = words.trim();
    const page = `${this.database.mail.publicUrl}/exchanges/${exchange.id}`;
    const at = (time: number) => dateInWords(time, course.timeZone);
    const now = this.clock.now();
    const where = { exchange: exchange.title, course: course.title };
    if (about === 'reviews') {
      const facts = [
        say('ofYoursForInAre', { ...where, open }),
        ...(dates === null ? [] : [dueWords(dates.reviewsDue, now, at)]),
        ...(dates === null || exchange.selfReviewDue === null
          ? []
          : [say('selfReviewTime', { at: at(dates.selfReviewDue) })]),
      ];
      return {
        subject: say('yourReviewsFor', where),
        text: paragraphs([facts.join(' '), say('submitToCount'), added, `${page}/review`]),
      };
    }
    const facts = [say('youHaveNotHandedIn', where), ...(dates === null ? [] : draftWords(dates, now, at))];
    return {
      subject: say('yourDraftFor', where),
      text: paragraphs([facts.join(' '), say('handInToCount'), added, `${page}/draft`]),
    };
  }
}

function dueWords(due: number, now: number, at: (time: number) => string): string {
  return now < endOf(due) ? say('due', { at: at(due) }) : say('dueWas', { at: at(due) });
}

function draftWords({ draftsDue, lateUntil }: ResolvedDates, now: number, at: (time: number) => string): string[] {
  const late = now >= endOf(draftsDue) && now < endOf(lateUntil);
  return [dueWords(draftsDue, now, at), ...(late ? [say('lateDraftsAreTakenUntil', { at: at(lateUntil) })] : [])];
}

/** Of those who were chosen: who has something left to do, and why the others get no mail. */
async function chosen(
  manager: EntityManager,
  place: Around,
  { participantIds, about }: RemindRequest,
): Promise<Chosen> {
  const { exchange, course } = place;
  const wanted = new Set(participantIds);
  const active = (await activeParticipants(manager, exchange.id)).filter(({ id }) => wanted.has(id));
  const listed = await courseIdentities(
    manager,
    course.id,
    active.map(({ personId }) => personId),
  );
  const own = await allPersonalDates(manager, exchange);
  const handedIn = await authorsHandedIn(manager, place);
  const open = new Map<string, number>();
  const unsubmitted = { exchangeId: exchange.id, ...ALLOCATED, submittedAt: IsNull(), reviewerId: In([...wanted]) };
  for (const { reviewerId } of about === 'reviews' ? await manager.findBy(Review, unsubmitted) : [])
    open.set(reviewerId, (open.get(reviewerId) ?? 0) + 1);
  // A reminder must not tell somebody of drafts that are not theirs to open yet.
  const mayOpen = (times: PersonalDates | null, id: string) => {
    const facts = factsOf(exchange, times, place.now);
    return maySee({ role: 'student' }, facts, { kind: 'own-reviews', viewerHandedIn: handedIn.has(id) }).allowed;
  };
  const people: Recipient[] = [];
  const leftOut: Array<ReminderView['leftOut'][number]> = [];
  for (const { id, personId } of active) {
    const who = listed.get(personId);
    if (who === undefined) continue;
    const times = own.get(personId) ?? null;
    // Where revisions are reviewed once more, there is nothing to hand in.
    const left = about === 'draft' ? exchange.followsId === null && !handedIn.has(id) : open.has(id);
    const why =
      times?.excused === true
        ? 'excused'
        : !left
          ? 'done'
          : about === 'draft' || mayOpen(times, id)
            ? null
            : 'not-open';
    if (why === null) people.push({ name: who.name, email: who.email, personId, own: times, open: open.get(id) ?? 0 });
    else leftOut.push({ name: who.name, why });
  }
  const byName = (a: { name: string }, b: { name: string }) => a.name.localeCompare(b.name);
  return { people: people.sort(byName), leftOut: leftOut.sort(byName) };
}

async function authorsHandedIn(
  manager: EntityManager,
  { exchange }: Pick<ExchangeContext, 'exchange'>,
): Promise<ReadonlySet<string>> {
  const drafts = await manager
    .createQueryBuilder(Draft, 'draft')
    .where('draft.exchangeId = :exchangeId', { exchangeId: exchange.id })
    .andWhere(isHandedIn(manager))
    .getMany();
  const authors = await Authors.load(manager, exchange);
  return new Set(drafts.flatMap((draft) => authors.of(draft)));
}
