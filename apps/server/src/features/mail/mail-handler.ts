import { DATE_ORDER, runs, type DateName } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Course } from '../../model/course.js';
import { listedOf, namesOf } from '../../access/listed.js';
import { authorPersons } from '../../access/authors.js';
import { Draft, DraftVersion } from '../../model/draft.js';
import { versionMeta } from '../../access/version-meta.js';
import { partsOf } from '../../access/versions.js';
import { Exchange } from '../../model/exchange.js';
import { activeParticipants } from '../../access/participants.js';
import { DATE_WORDS, dateInWords } from '../../platform/problems/sentences.js';
import type { Happening } from '../../platform/record/happening.js';
import type { HappeningHandler } from '../../platform/record/handler.js';
import { queueMail, type Letter } from '../../platform/mail/queue-mail.js';

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
    action === 'draft-handed-in-for' ||
    action === 'draft-withdrawn' ||
    (action === 'dates-changed' && details['tell'] === true && movedDates(details).length > 0);
  if (!concerned) return [];
  const exchange = await manager.findOneByOrFail(Exchange, { id: exchangeId });
  const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
  const about = { exchange, course, link: `${publicUrl}/exchanges/${exchangeId}` };
  if (action === 'draft-handed-in' || action === 'draft-handed-in-for') {
    const text = await receipt(manager, about, happening);
    const addresses = await authorAddresses(manager, exchange, String(details['draft']));
    return addresses.map((address) => ({ address, ...text, courseId: course.id, exchangeId }));
  }
  if (action === 'draft-withdrawn') {
    const addresses = await authorAddresses(manager, exchange, String(details['draft']));
    return addresses.map((address) => ({ address, ...withdrawn(about, details), courseId: course.id, exchangeId }));
  }
  const text = action === 'exchange-published' ? published(about) : moved(about, details);
  const addresses = await addressesOf(manager, exchange);
  return addresses.map((address) => ({ address, ...text, courseId: course.id, exchangeId }));
}

async function addressesOf(manager: EntityManager, exchange: Exchange): Promise<string[]> {
  const active = await activeParticipants(manager, exchange.id);
  const listed = await listedOf(
    manager,
    exchange.courseId,
    active.map(({ personId }) => personId),
  );
  return [...listed.values()].map(({ email }) => email).sort();
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

/** Of dates that nothing goes by yet, nobody is told. */
function movedDates(details: Happening['details'] = {}): DateName[] {
  return DATE_ORDER.filter((name) => runs(name) && name in details);
}

function moved({ exchange, course, link }: About, details: NonNullable<Happening['details']>): Text {
  const lines = movedDates(details).map((name) => {
    const at = exchange[name];
    return `${DATE_WORDS[name]}: ${at === null ? 'no longer set' : dateInWords(at, course.timeZone)}`;
  });
  return {
    subject: `${course.title}: dates of “${exchange.title}” have moved`,
    text: `Dates of “${exchange.title}” in ${course.title} have moved. New:\n\n${lines.join('\n')}\n\n${link}\n`,
  };
}

/** All authors of a draft get to know of it, whoever pressed. */
async function authorAddresses(manager: EntityManager, exchange: Exchange, draftId: string): Promise<string[]> {
  const draft = await manager.findOneByOrFail(Draft, { id: draftId });
  const listed = await listedOf(manager, exchange.courseId, await authorPersons(manager, exchange, draft));
  return [...listed.values()].map(({ email }) => email).sort();
}

/** A receipt says what was handed in and when, so that it can be shown to somebody. */
async function receipt(
  manager: EntityManager,
  { exchange, course, link }: About,
  { action, actorId, details = {} }: Happening,
): Promise<Text> {
  const draftId = String(details['draft']);
  const number = Number(details['version']);
  const version = await manager.findOneByOrFail(DraftVersion, { draftId, number });
  const parts = await partsOf(manager, draftId, version.id, exchange.deliverables);
  const meta = versionMeta(exchange, null, version, parts, null);
  const name = (await namesOf(manager, course.id, [actorId as string])).get(actorId as string) ?? 'Somebody';
  const at = dateInWords(version.handedInAt, course.timeZone);
  const who = action === 'draft-handed-in-for' ? `${name} (staff) handed in for you` : `${name} handed in`;
  return {
    subject: `Receipt: your draft for “${exchange.title}”`,
    text:
      `${who} version ${number} of your draft for “${exchange.title}” in ${course.title} on ${at}.\n\n` +
      `Title: ${version.title}\nWords: ${version.words}\n` +
      `${meta.parts.map(({ what, digest }) => `${what}\n  SHA-256 ${digest}`).join('\n')}\n` +
      `All together: SHA-256 ${version.digest}\n\n${link}/draft\n`,
  };
}

function withdrawn({ exchange, course, link }: About, details: NonNullable<Happening['details']>): Text {
  return {
    subject: `Taken back: your draft for “${exchange.title}”`,
    text:
      `Version ${String(details['version'])} of your draft for “${exchange.title}” in ${course.title} was taken back. ` +
      `Nothing is handed in now; all of it is still saved.\n\n${link}/draft\n`,
  };
}
