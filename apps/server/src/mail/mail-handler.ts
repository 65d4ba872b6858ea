import { DATE_ORDER, type DateName } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Person } from '../accounts/entities.js';
import { Course } from '../courses/entities.js';
import { Exchange } from '../exchanges/entities.js';
import { activeParticipants } from '../exchanges/participants.js';
import { DATE_WORDS, dateInWords } from '../problems/sentences.js';
import type { Happening } from '../record/happening.js';
import type { HappeningHandler } from '../record/handler.js';
import { queueMail, type Letter } from './queue-mail.js';

interface About {
  readonly exchange: Exchange;
  readonly course: Course;
  readonly link: string;
}

/** Tells by mail what people should not have to find out by looking. */
export const mailHandler: HappeningHandler = async (happenings, manager, { now, mail, ids }) => {
  for (const happening of happenings) {
    const letters = await lettersFor(manager, happening, mail.publicUrl);
    if (letters.length > 0) await queueMail(manager, ids, mail, now, letters);
  }
};

async function lettersFor(manager: EntityManager, happening: Happening, publicUrl: string): Promise<Letter[]> {
  const { action, exchangeId, details = {} } = happening;
  if (exchangeId === undefined) return [];
  const concerned =
    action === 'exchange-published' ||
    action === 'draft-handed-in' ||
    (action === 'dates-changed' && details['tell'] === true);
  if (!concerned) return [];
  const exchange = await manager.findOneByOrFail(Exchange, { id: exchangeId });
  const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
  const about = { exchange, course, link: `${publicUrl}/exchanges/${exchangeId}` };
  if (action === 'draft-handed-in') {
    const person = await manager.findOneByOrFail(Person, { id: happening.actorId as string });
    return [receipt(person.email, about, details)];
  }
  const text = action === 'exchange-published' ? published(about) : moved(about, details);
  const addresses = await addressesOf(manager, exchangeId);
  return addresses.map((address) => ({ address, ...text, courseId: course.id, exchangeId }));
}

async function addressesOf(manager: EntityManager, exchangeId: string): Promise<string[]> {
  const active = new Set((await activeParticipants(manager, exchangeId)).map(({ personId }) => personId));
  const people = await manager
    .createQueryBuilder(Person, 'person')
    .innerJoin('participant', 'participant', 'participant.personId = person.id')
    .where('participant.exchangeId = :exchangeId', { exchangeId })
    .getMany();
  return people.filter(({ id }) => active.has(id)).map(({ email }) => email);
}

type Text = Pick<Letter, 'subject' | 'text'>;

function published({ exchange, course, link }: About): Text {
  const dates = (['draftsOpen', 'draftsDue', 'reviewsDue'] as const).map(
    (name) => `${DATE_WORDS[name]}: ${dateInWords(exchange[name] as number, course.timeZone)}`,
  );
  return {
    subject: `${course.title}: “${exchange.title}”`,
    text: `“${exchange.title}” in ${course.title} has been published.\n\n${dates.join('\n')}\n\n${link}\n`,
  };
}

function moved({ exchange, course, link }: About, details: NonNullable<Happening['details']>): Text {
  const lines = DATE_ORDER.filter((name) => name in details).map((name: DateName) => {
    const at = exchange[name];
    return `${DATE_WORDS[name]}: ${at === null ? 'no longer set' : dateInWords(at, course.timeZone)}`;
  });
  return {
    subject: `${course.title}: dates of “${exchange.title}” have moved`,
    text: `Dates of “${exchange.title}” in ${course.title} have moved. New:\n\n${lines.join('\n')}\n\n${link}\n`,
  };
}

/** A receipt says what was handed in and when, so that it can be shown to somebody. */
function receipt(
  address: string,
  { exchange, course, link }: About,
  details: NonNullable<Happening['details']>,
): Letter {
  const at = dateInWords(details['at'] as number, course.timeZone);
  return {
    address,
    subject: `Receipt: your draft for “${exchange.title}”`,
    text:
      `You handed in version ${String(details['version'])} of your draft for “${exchange.title}” in ${course.title} on ${at}.\n\n` +
      `Words: ${String(details['words'])}\nSHA-256 of title and text: ${String(details['digest'])}\n\n${link}/draft\n`,
    courseId: course.id,
    exchangeId: exchange.id,
  };
}
