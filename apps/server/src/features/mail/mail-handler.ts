import { DATE_ORDER, gradeWords, lateWords, resolveDates, type DateName } from '@salt-circle/core';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Course, Enrolment } from '../../model/course.js';
import { addressedOf, type Addressed } from '../../access/addressed.js';
import { authorPersons } from '../../access/authors.js';
import { Draft, DraftVersion } from '../../model/draft.js';
import { datesOf, factsOf } from '../../access/facts-of.js';
import { versionMeta } from '../../access/version-meta.js';
import { partsOf } from '../../access/versions.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
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
    const letters = await lettersFor(manager, happening, mail.publicUrl, now);
    if (letters.length > 0) await queueMail(manager, ids, mail, now, letters);
  }
};

async function lettersFor(
  manager: EntityManager,
  happening: Happening,
  publicUrl: string,
  now: number,
): Promise<Letter[]> {
  const { action, exchangeId, details = {} } = happening;
  if (exchangeId === undefined) return [];
  if (action === 'review-reopened' && typeof details['reason'] === 'string')
    return reopened(manager, exchangeId, details, publicUrl);
  if (action === 'review-submitted') return addedByStaff(manager, exchangeId, details, publicUrl, now);
  const concerned =
    action === 'exchange-published' ||
    action === 'draft-handed-in' ||
    action === 'draft-handed-in-for' ||
    action === 'draft-withdrawn' ||
    action === 'revision-handed-in' ||
    action === 'revision-withdrawn' ||
    (action === 'rules-changed' && details['tell'] === true) ||
    (action === 'dates-changed' && details['tell'] === true && movedDates(details).length > 0);
  if (!concerned) return [];
  const exchange = await manager.findOneByOrFail(Exchange, { id: exchangeId });
  const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
  const about = { exchange, course, link: `${publicUrl}/exchanges/${exchangeId}` };
  if (action === 'draft-handed-in' || action === 'draft-handed-in-for' || action === 'revision-handed-in') {
    const by = await manager.findOneBy(Enrolment, { courseId: course.id, personId: happening.actorId ?? '' });
    const receipt = await receiptOf(manager, about, happening);
    const addressed = await authorAddresses(manager, exchange, String(details['draft']));
    return addressed.map(({ address, personId }) => ({
      address,
      ...receipt(address === by?.email ? 'You' : (by?.name ?? 'Somebody')),
      courseId: course.id,
      exchangeId,
      news: { personId, path: `/exchanges/${exchangeId}/draft`, always: true },
    }));
  }
  if (action === 'draft-withdrawn' || action === 'revision-withdrawn') {
    const addressed = await authorAddresses(manager, exchange, String(details['draft']));
    return addressed.map(({ address, personId }) => ({
      ...{ address, ...withdrawn(about, action, details), courseId: course.id, exchangeId },
      news: { personId, path: `/exchanges/${exchangeId}/draft`, always: true },
    }));
  }
  const text =
    action === 'exchange-published'
      ? published(about)
      : action === 'rules-changed'
        ? rulesChanged(about, details)
        : moved(about, details);
  const addressed = await addressesOf(manager, exchange);
  const news = (personId: string) => ({ personId, path: `/exchanges/${exchangeId}` });
  return addressed.map(({ address, personId }) => ({
    ...{ address, ...text, courseId: course.id, exchangeId },
    news: news(personId),
  }));
}

/** To the authors who read their feedback by now: somebody of the staff has added to it. Review by review, they are told as of any other. */
async function addedByStaff(
  manager: EntityManager,
  exchangeId: string,
  details: NonNullable<Happening['details']>,
  publicUrl: string,
  now: number,
): Promise<Letter[]> {
  const review = await manager.findOneByOrFail(Review, { id: String(details['review']) });
  if (review.voice === null) return [];
  const exchange = await manager.findOneByOrFail(Exchange, { id: exchangeId });
  if (exchange.feedbackEach || !factsOf(exchange, null, now).may.released) return [];
  const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
  const draft = await manager.findOneByOrFail(Draft, { id: review.draftId });
  const persons = await authorPersons(manager, exchange, draft);
  const parts = await manager.findBy(Participant, { exchangeId, personId: In(persons), feedbackHeld: IsNull() });
  const addressed = await addressedOf(
    manager,
    course.id,
    parts.map(({ personId }) => personId),
  );
  const path = `/exchanges/${exchangeId}/feedback`;
  return addressed.map(({ address, personId }) => ({
    address,
    subject: `${course.title}: your feedback for “${exchange.title}” has a review by your ${review.voice} now`,
    text: `Your ${review.voice} has added a review to your feedback for “${exchange.title}” (${course.title}).\n\n${publicUrl}${path}\n`,
    courseId: course.id,
    exchangeId,
    news: { personId, path, once: true },
  }));
}

/** To the reviewer whose review an instructor has reopened, unless they have left: what is asked for, and until when. */
async function reopened(
  manager: EntityManager,
  exchangeId: string,
  details: NonNullable<Happening['details']>,
  publicUrl: string,
): Promise<Letter[]> {
  const exchange = await manager.findOneByOrFail(Exchange, { id: exchangeId });
  const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
  const review = await manager.findOneByOrFail(Review, { id: String(details['review']) });
  const { personId } = await manager.findOneByOrFail(Participant, { id: review.reviewerId });
  const [addressed] = await addressedOf(manager, course.id, [personId]);
  if (addressed === undefined) return [];
  const { address } = addressed;
  const release = review.reopenUntil ?? resolveDates(datesOf(exchange))?.release ?? null;
  const until = release === null ? '' : ` You can submit it again until ${dateInWords(release, course.timeZone)}.`;
  return [
    {
      address,
      subject: `${course.title}: a review of yours for “${exchange.title}” has been reopened`,
      text: `A review that you submitted for “${exchange.title}” in ${course.title} has been reopened, so that you can change it. The reason:\n\n${String(details['reason'])}\n\nWhat you submitted counts until you submit again.${until}\n\n${publicUrl}/reviews/${review.id}\n`,
      courseId: course.id,
      exchangeId,
      news: { personId, path: `/reviews/${review.id}` },
    },
  ];
}

async function addressesOf(manager: EntityManager, exchange: Exchange): Promise<Addressed[]> {
  const active = await activeParticipants(manager, exchange.id);
  return addressedOf(
    manager,
    exchange.courseId,
    active.map(({ personId }) => personId),
  );
}

type Text = Pick<Letter, 'subject' | 'text'>;

function published({ exchange, course, link }: About): Text {
  const { draftsOpen, draftsDue, lateUntil, selfReviewDue, reviewsDue, repliesDue, revisionDue, late } = exchange;
  const release = resolveDates(datesOf(exchange))?.release ?? null;
  const said = { draftsOpen, draftsDue, lateUntil, selfReviewDue, reviewsDue, release, repliesDue, revisionDue };
  const dates = (Object.keys(said) as Array<keyof typeof said>).flatMap((name) => {
    const at = said[name];
    return at === null ? [] : [`${DATE_WORDS[name]}: ${dateInWords(at, course.timeZone)}`];
  });
  if (lateUntil !== null) dates.push(late === null ? 'A late hand-in loses nothing.' : lateWords(late));
  return {
    subject: `${course.title}: “${exchange.title}” has been published`,
    text: `“${exchange.title}” in ${course.title} has been published.\n\n${dates.join('\n')}\n\n${link}\n`,
  };
}

function movedDates(details: Happening['details'] = {}): DateName[] {
  return DATE_ORDER.filter((name) => name in details);
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

function rulesChanged({ exchange, course, link }: About, details: NonNullable<Happening['details']>): Text {
  const changed = String(details['changed']).split(', ');
  const { late, gradeParts } = exchange;
  const lines = [
    ...(changed.includes('late') ? [late === null ? 'A late hand-in loses nothing.' : lateWords(late)] : []),
    ...(changed.includes('gradeParts')
      ? [gradeParts.length === 0 ? 'There is no grade.' : gradeWords(gradeParts)]
      : []),
  ];
  return {
    subject: `${course.title}: rules of “${exchange.title}” have changed`,
    text: `What you were told of “${exchange.title}” in ${course.title} has changed. From now on:\n\n${lines.join('\n')}\n\n${link}\n`,
  };
}

/** All authors of a draft get to know of it, whoever pressed. */
async function authorAddresses(manager: EntityManager, exchange: Exchange, draftId: string): Promise<Addressed[]> {
  const draft = await manager.findOneByOrFail(Draft, { id: draftId });
  return addressedOf(manager, exchange.courseId, await authorPersons(manager, exchange, draft));
}

/** A receipt says what was handed in and when, so that it can be shown to somebody. @returns its text, given who did it */
async function receiptOf(
  manager: EntityManager,
  { exchange, course, link }: About,
  { action, details = {} }: Happening,
): Promise<(name: string) => Text> {
  const draftId = String(details['draft']);
  const number = Number(details['version']);
  const version = await manager.findOneByOrFail(DraftVersion, { draftId, number });
  const parts = await partsOf(manager, draftId, version.id, exchange.deliverables);
  const meta = versionMeta(exchange, null, version, parts, null);
  const at = dateInWords(version.handedInAt, course.timeZone);
  const what = version.purpose === 'revision' ? 'revision' : 'draft';
  const did = action === 'draft-handed-in-for' ? '(staff) handed in for you' : 'handed in';
  return (name) => ({
    subject: `Receipt: your ${what} for “${exchange.title}”`,
    text:
      `${name} ${did} version ${number} of your ${what} for “${exchange.title}” in ${course.title} on ${at}.\n\n` +
      `Title: ${version.title}\nWords: ${version.words}\n` +
      `${meta.parts.map(({ what, digest }) => `${what}\n  SHA-256 ${digest}`).join('\n')}\n` +
      `All together: SHA-256 ${version.digest}\n\n${link}/draft\n`,
  });
}

function withdrawn(
  { exchange, course, link }: About,
  action: Happening['action'],
  details: NonNullable<Happening['details']>,
): Text {
  const revision = action === 'revision-withdrawn';
  const what = revision ? 'revision' : 'draft';
  const left = revision ? 'The draft that was reviewed stays as it is' : 'Nothing is handed in now';
  return {
    subject: `Taken back: your ${what} for “${exchange.title}”`,
    text:
      `Version ${String(details['version'])} of your ${what} for “${exchange.title}” in ${course.title} was taken back. ` +
      `${left}; all of it is still saved.\n\n${link}/draft\n`,
  };
}
