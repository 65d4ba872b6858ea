import { Injectable } from '@nestjs/common';
import type { ExtendRequest, ReminderView, RemindRequest, VersionMeta } from '@salt-circle/contracts';
import { resolveDates, withOwnTimes } from '@salt-circle/core';
import { In, type EntityManager } from 'typeorm';
import type { Asker } from '../../access/seeing.js';
import { Enrolment } from '../../model/course.js';
import { Database } from '../../platform/database/database.js';
import { Access, act, type Place } from '../../access/access.js';
import { datesOf } from '../../access/facts-of.js';
import { DatesService } from '../planning/dates.service.js';
import { OwnTimesRow, Participant } from '../../model/exchange.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { allOwnTimes } from '../../access/own-times.js';
import { Copies } from '../reading/copies.service.js';
import { Ids } from '../../platform/ids/ids.js';
import { Clock } from '../../platform/clock/clock.js';
import { queueMail } from '../../platform/mail/queue-mail.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { dateInWords, refusal } from '../../platform/problems/sentences.js';
import { draftOf, groupIdOf } from '../../access/authors.js';
import { Draft, DraftPart } from '../../model/draft.js';
import { HandInService } from './hand-in.service.js';

/** What staff do with hand-ins: remind, extend, excuse, hand in for somebody, and have a copy made again. */
@Injectable()
export class CollectionService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly dates: DatesService,
    private readonly handing: HandInService,
    private readonly copies: Copies,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  async previewReminder(person: Asker, exchangeId: string, request: RemindRequest): Promise<ReminderView> {
    const place = await this.access.exchange(person, exchangeId);
    act(place, { kind: 'collect' });
    const people = await this.#people(this.database.read, place, request.participantIds);
    return {
      people: people.map(({ name }) => name),
      ...reminder(place, request.words, null, this.database.mail.publicUrl),
    };
  }

  /** One mail to each, with the due time that holds for that one. */
  async remind(person: Asker, exchangeId: string, request: RemindRequest): Promise<ReminderView> {
    return this.database.write(async (manager, happened) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'collect' });
      const people = await this.#people(manager, place, request.participantIds);
      if (people.length === 0) {
        throw new ProblemError({
          code: 'invalid',
          sentence: 'Nobody was chosen, so no reminder was sent.',
          whatToDo: 'Choose at least one student.',
        });
      }
      const own = await allOwnTimes(manager, place.exchange);
      const letters = people.map(({ id, email }) => {
        const times = own.get(id) ?? null;
        return {
          address: email,
          ...reminder(place, request.words, times?.draftsDue ?? null, this.database.mail.publicUrl),
          courseId: place.course.id,
          exchangeId,
        };
      });
      await queueMail(manager, this.ids, this.database.mail, this.clock.now(), letters);
      happened({
        action: 'reminded',
        actorId: person.id,
        courseId: place.course.id,
        exchangeId,
        details: { people: people.length },
      });
      return {
        people: people.map(({ name }) => name),
        ...reminder(place, request.words, null, this.database.mail.publicUrl),
      };
    });
  }

  /** Own due time or excuse for one student, or, where groups hand in, for the group; other own times stay. */
  async extend(person: Asker, exchangeId: string, participantId: string, request: ExtendRequest): Promise<void> {
    const manager = this.database.read;
    const place = await this.access.exchange(person, exchangeId);
    act(place, { kind: 'plan' });
    const participant = await participantOf(manager, exchangeId, participantId);
    const { exchange, course } = place;
    const groupId = await groupIdOf(manager, exchange, participant.personId);
    const enrolment = await manager.findOneByOrFail(Enrolment, { courseId: course.id, personId: participant.personId });
    const whose = groupId === null ? { studentId: enrolment.id, groupId: null } : { studentId: null, groupId };
    const where = groupId === null ? { exchangeId, enrolmentId: enrolment.id } : { exchangeId, groupId };
    const known = await manager.findOneBy(OwnTimesRow, where);
    const rest = {
      reviewsDue: isoOrNull(known?.reviewsDue ?? null),
      repliesDue: isoOrNull(known?.repliesDue ?? null),
      revisionDue: isoOrNull(known?.revisionDue ?? null),
    };
    const draftsDue = request.what === 'extend' ? (request.draftsDue ?? null) : null;
    const excused = request.what === 'excuse';
    const nothing = !excused && draftsDue === null && Object.values(rest).every((at) => at === null);
    if (nothing && known !== null) await this.dates.removeOwn(person, exchangeId, known.id);
    else if (!nothing || request.what === 'extend') {
      await this.dates.setOwn(person, exchangeId, { ...whose, ...rest, draftsDue, excused, reason: request.reason });
    }
  }

  /** Hands in what is saved for a student. @param title for a draft that has none */
  handInFor(person: Asker, exchangeId: string, participantId: string, title: string | null): Promise<VersionMeta> {
    return this.database.write(async (manager, happened) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'collect' });
      const participant = await participantOf(manager, exchangeId, participantId);
      const draft = await draftOf(manager, participant, await groupIdOf(manager, place.exchange, participant.personId));
      if (draft === null) {
        throw new ProblemError({
          code: 'draft-empty',
          sentence: 'Nothing has been saved or added for this student, so there is nothing to hand in.',
          whatToDo: 'Add a file for the student, or give more time.',
        });
      }
      const untitled = draft.title.trim() === '' && title !== null && title.trim() !== '';
      if (untitled) {
        const revision = draft.revision + 1;
        await manager.update(Draft, { id: draft.id }, { title: title.trim(), revision, savedAt: this.clock.now() });
      }
      const named = untitled ? { ...draft, title: title.trim() } : draft;
      return this.handing.handInFor(person, place, named, manager, happened);
    });
  }

  async copyAgain(person: Asker, exchangeId: string, draftId: string, partId: string): Promise<void> {
    const place = await this.access.exchange(person, exchangeId);
    const manager = this.database.read;
    const own = await this.access.ownDraft(place);
    if (own?.id !== draftId) act(place, { kind: 'collect' });
    const part = await manager.findOneBy(DraftPart, { id: partId, draftId });
    if (part?.digest == null) throw refusal('unknown');
    await this.copies.again(part.digest, person.id);
  }

  async #people(manager: EntityManager, place: Place, participantIds: readonly string[]): Promise<Enrolment[]> {
    if (participantIds.length === 0) return [];
    const participants = await manager.findBy(Participant, {
      exchangeId: place.exchange.id,
      id: In([...participantIds]),
    });
    if (participants.length === 0) return [];
    const people = await manager.findBy(Enrolment, {
      courseId: place.course.id,
      personId: In(participants.map(({ personId }) => personId)),
    });
    return people.sort((a, b) => a.name.localeCompare(b.name));
  }
}

async function participantOf(manager: EntityManager, exchangeId: string, id: string): Promise<Participant> {
  const participant = await manager.findOneBy(Participant, { id, exchangeId });
  if (participant === null) throw refusal('unknown');
  return participant;
}

function reminder(
  { exchange, course }: Place,
  words: string | undefined,
  ownDue: number | null,
  publicUrl: string,
): Pick<ReminderView, 'subject' | 'text'> {
  const dates = resolveDates(datesOf(exchange));
  const own =
    ownDue === null
      ? null
      : { draftsDue: ownDue, reviewsDue: null, repliesDue: null, revisionDue: null, excused: false };
  const due = dates === null ? null : withOwnTimes(dates, own).draftsDue;
  const when = due === null ? '' : `It is due ${dateInWords(due, course.timeZone)}.\n\n`;
  const said = (words ?? '').trim() === '' ? '' : `${(words ?? '').trim()}\n\n`;
  return {
    subject: `${course.title}: your draft for “${exchange.title}”`,
    text:
      `You have not handed in a draft for “${exchange.title}” in ${course.title} yet. ${when}` +
      `What you have saved does not count before it is handed in.\n\n${said}${publicUrl}/exchanges/${exchange.id}/draft\n`,
  };
}
