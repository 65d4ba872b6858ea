import { DATE_ORDER, gradeWords, lateWords, resolveDates, type DateName } from '@salt-circle/core';
import { In, IsNull, MoreThan, type EntityManager } from 'typeorm';
import { Course, Enrolment } from '../../model/course.js';
import { mailRecipients, type MailRecipient } from '../../queries/mail-recipients.js';
import { authorPersons } from '../../queries/authors.js';
import { Draft, DraftVersion } from '../../model/draft.js';
import { datesOf, factsOf } from '../../permissions/exchange-facts.js';
import { versionMeta } from '../../queries/version-meta.js';
import { partsOf } from '../../queries/versions.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { Mail } from '../../model/mail.js';
import { News } from '../../model/news.js';
import { AuditEntry } from '../../model/audit-entry.js';
import { Review } from '../../model/review.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { activeParticipants } from '../../queries/participants.js';
import { DATE_WORDS, dateInWords } from '../../platform/problems/sentences.js';
import type { DomainEvent, EventOf, EventPayloads } from '../../platform/events/domain-event.js';
import { pastEvent } from '../../platform/events/past-events.js';
import type { EventHandler } from '../../platform/events/event-handler.js';
import { TOGETHER } from '../../platform/mail/letter-rules.js';
import { queueMail, type Letter } from '../../platform/mail/queue-mail.js';
import { say } from '../../words/letters.js';
import { paragraphs } from '../../platform/mail/paragraphs.js';

type HandedInEvent = EventOf<'draft-handed-in'> | EventOf<'draft-handed-in-for'> | EventOf<'revision-handed-in'>;

interface About {
  readonly exchange: Exchange;
  readonly course: Course;
  readonly link: string;
}

/** Tells by mail what people should not have to find out by looking. */
export const mailHandler: EventHandler = async (events, manager, { now, mail, ids }) => {
  for (const event of events) {
    const letters = await lettersFor(manager, event, mail.publicUrl, now);
    if (letters.length > 0) await queueMail(manager, ids, mail, now, letters);
  }
};

async function lettersFor(
  manager: EntityManager,
  event: DomainEvent,
  publicUrl: string,
  now: number,
): Promise<Letter[]> {
  const { action, exchangeId } = event;
  if (exchangeId === undefined) return [];
  if (action === 'review-reopened') return reopened(manager, exchangeId, event.details, publicUrl);
  if (action === 'review-submitted') return addedByStaff(manager, exchangeId, event.details, publicUrl, now);
  const concerned =
    action === 'exchange-published' ||
    action === 'draft-handed-in' ||
    action === 'draft-handed-in-for' ||
    action === 'draft-withdrawn' ||
    action === 'revision-handed-in' ||
    action === 'revision-withdrawn' ||
    (action === 'rules-changed' && event.details.tell) ||
    (action === 'dates-changed' && event.details.tell && event.details.moved.length > 0);
  if (!concerned) return [];
  const exchange = await manager.findOneByOrFail(Exchange, { id: exchangeId });
  const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
  const about = { exchange, course, link: `${publicUrl}/exchanges/${exchangeId}` };
  if (action === 'draft-handed-in' || action === 'draft-handed-in-for' || action === 'revision-handed-in') {
    const by = await manager.findOneBy(Enrolment, { courseId: course.id, personId: event.actorId ?? '' });
    const receipt = await receiptOf(manager, about, event);
    const recipients = await authorAddresses(manager, exchange, event.details.draft);
    return recipients.map(({ address, personId }) => ({
      kind: 'receipt',
      address,
      ...receipt(address === by?.email ? say('you') : (by?.name ?? say('somebody'))),
      courseId: course.id,
      exchangeId,
      news: { personId, path: `/exchanges/${exchangeId}/draft` },
    }));
  }
  if (action === 'draft-withdrawn' || action === 'revision-withdrawn') {
    const recipients = await authorAddresses(manager, exchange, event.details.draft);
    return recipients.map(({ address, personId }) => ({
      ...{ kind: 'taken-back', address, ...withdrawn(about, event), courseId: course.id, exchangeId },
      news: { personId, path: `/exchanges/${exchangeId}/draft` },
    }));
  }
  const text =
    action === 'exchange-published'
      ? published(about)
      : action === 'rules-changed'
        ? rulesChanged(about, event.details)
        : await moved(manager, about, now);
  if (text === null) return [];
  const recipients = await addressesOf(manager, exchange);
  return recipients.map(({ address, personId }) => ({
    ...{ kind: KINDS[action], address, ...text, courseId: course.id, exchangeId },
    news: { personId, path: `/exchanges/${exchangeId}` },
  }));
}

const KINDS = {
  'exchange-published': 'exchange-published',
  'rules-changed': 'rules-changed',
  'dates-changed': 'dates-moved',
} as const;

/** To the authors who read their feedback by now: somebody of the staff has added to it. Review by review, they are told as of any other. */
async function addedByStaff(
  manager: EntityManager,
  exchangeId: string,
  details: EventPayloads['review-submitted'],
  publicUrl: string,
  now: number,
): Promise<Letter[]> {
  const review = await manager.findOneByOrFail(Review, { id: details.review });
  if (review.voice === null) return [];
  const exchange = await manager.findOneByOrFail(Exchange, { id: exchangeId });
  if (exchange.feedbackEach || !factsOf(exchange, null, now).may.released) return [];
  const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
  const draft = await manager.findOneByOrFail(Draft, { id: review.draftId });
  const persons = await authorPersons(manager, exchange, draft);
  const parts = await manager.findBy(Participant, { exchangeId, personId: In(persons), feedbackHeld: IsNull() });
  const recipients = await mailRecipients(
    manager,
    course.id,
    parts.map(({ personId }) => personId),
  );
  const path = `/exchanges/${exchangeId}/feedback`;
  const where = { voice: review.voice ?? '', exchange: exchange.title, course: course.title };
  return recipients.map(({ address, personId }) => ({
    kind: 'staff-review-added',
    address,
    subject: say('yourFeedbackForHasReview', where),
    text: paragraphs([say('yourHasAddedReviewTo', where), `${publicUrl}${path}`]),
    courseId: course.id,
    exchangeId,
    news: { personId, path },
  }));
}

/** To the reviewer whose review an instructor has reopened, unless they have left: what is asked for, and until when. */
async function reopened(
  manager: EntityManager,
  exchangeId: string,
  details: EventPayloads['review-reopened'],
  publicUrl: string,
): Promise<Letter[]> {
  // Whoever reopens their own review knows.
  if (details.reason === undefined) return [];
  const exchange = await manager.findOneByOrFail(Exchange, { id: exchangeId });
  const course = await manager.findOneByOrFail(Course, { id: exchange.courseId });
  const review = await manager.findOneByOrFail(Review, { id: details.review });
  const { personId } = await manager.findOneByOrFail(Participant, { id: review.reviewerId });
  const [recipient] = await mailRecipients(manager, course.id, [personId]);
  if (recipient === undefined) return [];
  const { address } = recipient;
  const release = review.reopenUntil ?? resolveDates(datesOf(exchange))?.release ?? null;
  const where = { exchange: exchange.title, course: course.title };
  const counts = [
    say('countsUntilAgain'),
    ...(release === null ? [] : [say('youCanSubmitItAgain', { until: dateInWords(release, course.timeZone) })]),
  ];
  return [
    {
      kind: 'review-reopened',
      address,
      subject: say('reviewOfYoursForHas', where),
      text: paragraphs([
        say('reviewThatYouSubmittedFor', where),
        details.reason,
        counts.join(' '),
        `${publicUrl}/reviews/${review.id}`,
      ]),
      courseId: course.id,
      exchangeId,
      news: { personId, path: `/reviews/${review.id}` },
    },
  ];
}

async function addressesOf(manager: EntityManager, exchange: Exchange): Promise<MailRecipient[]> {
  const active = await activeParticipants(manager, exchange.id);
  return mailRecipients(
    manager,
    exchange.courseId,
    active.map(({ personId }) => personId),
  );
}

type Text = Pick<Letter, 'subject' | 'text'>;

function published({ exchange, course, link }: About): Text {
  const where = { exchange: exchange.title, course: course.title };
  const { draftsOpen, draftsDue, lateUntil, selfReviewDue, reviewsDue, repliesDue, revisionDue, late } = exchange;
  const release = resolveDates(datesOf(exchange))?.release ?? null;
  const said = { draftsOpen, draftsDue, lateUntil, selfReviewDue, reviewsDue, release, repliesDue, revisionDue };
  const dates = (Object.keys(said) as Array<keyof typeof said>).flatMap((name) => {
    const at = said[name];
    return at === null ? [] : [say('n', { date: DATE_WORDS[name], when: dateInWords(at, course.timeZone) })];
  });
  if (lateUntil !== null) dates.push(late === null ? say('lateHandInLosesNothing') : lateWords(late));
  return {
    subject: say('hasBeenPublished', where),
    text: paragraphs([say('inHasBeenPublished', where), dates.join('\n'), link]),
  };
}

/**
 * What has changed since the first of the changes that belong together; letters of the earlier ones that have not left are ended.
 *
 * @returns null where everything is as it was before them: there is nothing to tell
 */
async function moved(manager: EntityManager, { exchange, course, link }: About, now: number): Promise<Text | null> {
  const changes = await manager.find(AuditEntry, {
    where: { exchangeId: exchange.id, action: 'dates-changed', at: MoreThan(now - TOGETHER) },
    order: { id: 'ASC' },
  });
  const where = { exchange: exchange.title, course: course.title };
  const subject = say('datesOfHaveMoved', where);
  await withdrawLetters(manager, exchange.id, now - TOGETHER);
  const before = new Map<DateName, string | null>();
  for (const event of changes.map(pastEvent)) {
    if (event.action !== 'dates-changed' || !event.details.tell) continue;
    for (const { date, from } of event.details.moved) if (!before.has(date)) before.set(date, from);
  }
  const names = DATE_ORDER.filter((name) => before.has(name) && before.get(name) !== isoOrNull(exchange[name]));
  if (names.length === 0) return null;
  const lines = names.map((name) => {
    const at = exchange[name];
    const date = DATE_WORDS[name];
    return at === null ? say('noLongerSet', { date }) : say('n', { date, when: dateInWords(at, course.timeZone) });
  });
  return { subject, text: paragraphs([say('datesOfInHaveMoved', where), lines.join('\n'), link]) };
}

/** Letters of moved dates that another one takes the place of, as far as they have not left; what stands in inboxes unread goes with them. */
async function withdrawLetters(manager: EntityManager, exchangeId: string, since: number): Promise<void> {
  const told = { exchangeId, kind: 'dates-moved' as const, at: MoreThan(since) };
  await manager.update(Mail, { ...told, state: In(['waiting', 'kept']) }, { state: 'ended' });
  await manager.delete(News, { ...told, readAt: IsNull() });
}

function rulesChanged({ exchange, course, link }: About, { changed }: EventPayloads['rules-changed']): Text {
  const where = { exchange: exchange.title, course: course.title };
  const { late, gradeParts } = exchange;
  const lines = [
    ...(changed.includes('late') ? [late === null ? say('lateHandInLosesNothing') : lateWords(late)] : []),
    ...(changed.includes('gradeParts')
      ? [gradeParts.length === 0 ? say('thereIsNoGrade') : gradeWords(gradeParts)]
      : []),
  ];
  return {
    subject: say('rulesOfHaveChanged', where),
    text: paragraphs([say('whatYouWereToldOf', where), lines.join('\n'), link]),
  };
}

/** All authors of a draft get to know of it, whoever pressed. */
async function authorAddresses(manager: EntityManager, exchange: Exchange, draftId: string): Promise<MailRecipient[]> {
  const draft = await manager.findOneByOrFail(Draft, { id: draftId });
  return mailRecipients(manager, exchange.courseId, await authorPersons(manager, exchange, draft));
}

/** A receipt says what was handed in and when, so that it can be shown to somebody. @returns its text, given who did it */
async function receiptOf(
  manager: EntityManager,
  { exchange, course, link }: About,
  { action, details: { draft: draftId, version: number } }: HandedInEvent,
): Promise<(name: string) => Text> {
  const version = await manager.findOneByOrFail(DraftVersion, { draftId, number });
  const parts = await partsOf(manager, draftId, version.id, exchange.deliverables);
  const meta = versionMeta(exchange, null, version, parts, null);
  const at = dateInWords(version.handedInAt, course.timeZone);
  const where = { purpose: version.purpose, exchange: exchange.title, course: course.title };
  const receipt = [
    say('receiptTitle', { title: version.title }),
    say('receiptWords', { words: version.words }),
    ...meta.parts.map(({ what, digest }) => say('sha256', { what, digest })),
    say('receiptWhole', { digest: version.digest }),
  ];
  const did = action === 'draft-handed-in-for' ? 'staffHandedInForYou' : 'handedIn';
  return (name) => ({
    subject: say('receiptYourFor', where),
    text: paragraphs([say(did, { ...where, name, number, at }), receipt.join('\n'), `${link}/draft`]),
  });
}

function withdrawn(
  { exchange, course, link }: About,
  { action, details }: EventOf<'draft-withdrawn'> | EventOf<'revision-withdrawn'>,
): Text {
  const revision = action === 'revision-withdrawn';
  const where = { exchange: exchange.title, course: course.title };
  const key = revision ? 'draftThatWasReviewedStays' : 'nothingIsHandedInNow';
  return {
    subject: say('takenBackYourFor', { ...where, purpose: revision ? 'revision' : 'draft' }),
    text: paragraphs([say(key, { ...where, version: String(details.version) }), `${link}/draft`]),
  };
}
