import { Injectable } from '@nestjs/common';
import type { CalendarLinkView } from '@salt-circle/contracts';
import { resolveDates, withPersonalDates, type PersonalDates, type DateName } from '@salt-circle/core';
import ical from 'ical-generator';
import { In, type EntityManager } from 'typeorm';
import { courseExchanges } from '../../queries/course-exchanges.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { Person } from '../../model/person.js';
import { Clock } from '../../platform/clock/clock.js';
import { Course, Enrolment } from '../../model/course.js';
import { Database } from '../../platform/database/database.js';
import { datesOf } from '../../permissions/exchange-facts.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { iso } from '../../platform/wire/instants.js';
import { personalDatesOf } from '../../permissions/personal-dates.js';
import { hashOf } from '../../platform/ids/hash-of.js';
import { Ids } from '../../platform/ids/ids.js';
import { refusal } from '../../platform/problems/sentences.js';
import { CalendarLink } from '../../model/calendar.js';
import { GroupMemberRow } from '../../model/group.js';
import { AuditEntry } from '../../model/audit-entry.js';
import { pastEvent } from '../../platform/events/past-events.js';
import { say } from '../../words/calendar.js';

/** What falls due for whom, in the words of a calendar entry. */
const studentEntries = (): ReadonlyArray<readonly [DateName, string]> => [
  ['draftsDue', say('draftDue')],
  ['selfReviewDue', say('reviewOfYourOwnDraft')],
  ['reviewsDue', say('reviewsDue')],
  ['release', 'feedback'],
  ['repliesDue', say('repliesDue')],
  ['revisionDue', say('revisionDue')],
];
const staffEntries = (): ReadonlyArray<readonly [DateName, string]> => [
  ['draftsDue', say('draftsDue')],
  ['lateUntil', say('lateDraftsUntil')],
  ['reviewsOpen', say('reviewsOpen')],
  ['selfReviewDue', say('selfReviewsDue')],
  ['reviewsDue', say('reviewsDue')],
  ['release', say('releaseOfFeedback')],
  ['repliesDue', say('repliesDue')],
  ['revisionDue', say('revisionsDue')],
];

interface Entry {
  readonly key: string;
  readonly at: number;
  readonly summary: string;
  readonly exchangeId: string;
  readonly changed: Changed;
}

/** How often the due times of one person have changed since they were first told, and when last. */
interface Changed {
  readonly times: number;
  readonly at: number;
}

/** A calendar feed (RFC 5545) of one person's due times, under a private address that can be taken back. */
@Injectable()
export class CalendarService {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  async link(person: CurrentUser): Promise<CalendarLinkView> {
    const link = await this.database.read.findOneBy(CalendarLink, { personId: person.id });
    return { madeAt: link === null ? null : iso(link.createdAt) };
  }

  /** Makes a new address; the one before ends. It is told this once and stored nowhere. */
  async makeLink(person: CurrentUser): Promise<{ url: string }> {
    const token = this.ids.token();
    await this.database.write(async (manager) => {
      await manager.delete(CalendarLink, { personId: person.id });
      await manager.insert(CalendarLink, {
        tokenHash: hashOf(token),
        personId: person.id,
        createdAt: this.clock.real(),
      });
    });
    return { url: `${this.database.mail.publicUrl}/api/calendar/${token}.ics` };
  }

  async revoke(person: CurrentUser): Promise<void> {
    await this.database.write((manager) => manager.delete(CalendarLink, { personId: person.id }));
  }

  /** @throws ProblemError `not-found` for an address that was never made, or was taken back */
  async feed(token: string): Promise<string> {
    const manager = this.database.read;
    const link = await manager.findOneBy(CalendarLink, { tokenHash: hashOf(token) });
    const person = link === null ? null : await manager.findOneBy(Person, { id: link.personId });
    if (person === null) throw refusal('unknown');
    const entries = await this.#entries(person);
    const calendar = ical({
      name: say('saltCircle'),
      prodId: { company: say('saltCircle'), product: say('dueTimes'), language: 'EN' },
      ttl: 3600,
    });
    const { publicUrl } = this.database.mail;
    for (const { key, at, summary, exchangeId, changed } of entries) {
      calendar.createEvent({
        id: `${exchangeId}.${key}@${new URL(publicUrl).hostname}`,
        // In UTC (RFC 5545, 3.3.5, form 2): whatever program reads it shows the same moment, also in the hour that
        // clocks go through twice, and no table of a zone can be at odds with ours.
        start: new Date(at),
        end: new Date(at),
        // Without a METHOD, both say when the entry was last revised (RFC 5545, 3.8.7.2).
        stamp: new Date(changed.at),
        lastModified: new Date(changed.at),
        sequence: changed.times,
        summary,
        url: `${publicUrl}/exchanges/${exchangeId}`,
      });
    }
    return calendar.toString();
  }

  async #entries(person: CurrentUser): Promise<Entry[]> {
    const manager = this.database.read;
    const entries: Entry[] = [];
    for (const enrolment of await manager.findBy(Enrolment, { personId: person.id, active: true })) {
      const { courseId, role } = enrolment;
      const course = await manager.findOneByOrFail(Course, { id: courseId });
      for (const exchange of await courseExchanges(manager, courseId)) {
        if (exchange.publishedAt === null) continue;
        const participant = await manager.findOneBy(Participant, { exchangeId: exchange.id, personId: person.id });
        if (role === 'student' && participant === null) continue;
        const own = role === 'student' ? await personalDatesOf(manager, exchange, { personId: person.id }) : null;
        const changed = await changedFor(manager, exchange, enrolment);
        entries.push(...entriesOf(exchange, course, role === 'student', own, changed));
      }
    }
    return entries.sort((a, b) => a.at - b.at);
  }
}

const CHANGES = [
  ...['exchange-published', 'plan-changed', 'dates-changed', 'feedback-released'],
  ...['own-times-set', 'own-times-removed'],
];

/** By the audit log: what was said to all, and what concerns this person alone; nothing of what concerns others. */
async function changedFor(manager: EntityManager, exchange: Exchange, enrolment: Enrolment): Promise<Changed> {
  const groups = await manager.findBy(GroupMemberRow, { enrolmentId: enrolment.id });
  const mine = new Set<unknown>([enrolment.id, ...groups.map(({ groupId }) => groupId)]);
  const rows = await manager.find(AuditEntry, {
    where: {
      exchangeId: exchange.id,
      action: In(CHANGES),
    },
    order: { id: 'ASC' },
  });
  const concerns = (entry: AuditEntry) => {
    const event = pastEvent(entry);
    if (event.action === 'own-times-set' || event.action === 'own-times-removed')
      return mine.has(event.details.student) || mine.has(event.details.group);
    // Of the plan, what an entry says beside its time.
    return event.action !== 'plan-changed' || event.details.changed.includes('title');
  };
  // What was planned before it was published, in the same moment perhaps, is no change.
  const published = rows.findLastIndex(({ action }) => action === 'exchange-published');
  const since = rows.slice(published + 1).filter((row) => row.at >= (exchange.publishedAt ?? 0) && concerns(row));
  return { times: since.length, at: since.at(-1)?.at ?? exchange.publishedAt ?? 0 };
}

function entriesOf(
  exchange: Exchange,
  course: Course,
  student: boolean,
  own: PersonalDates | null,
  changed: Changed,
): Entry[] {
  const planned = datesOf(exchange);
  const common = resolveDates(planned);
  if (common === null || own?.excused === true) return [];
  const dates = withPersonalDates(common, own);
  const seen = new Set<number>();
  return (student ? studentEntries() : staffEntries()).flatMap(([name, words]): Entry[] => {
    const without = name === 'checkUntil' || (name === 'selfReviewDue' && planned.selfReviewDue === null);
    const at = without ? null : dates[name];
    // Reviews that open when drafts are due, or feedback that comes when reviews are due, need no entry of their own.
    if (at === null || seen.has(at)) return [];
    seen.add(at);
    const summary = `${exchange.title}: ${words} (${course.title})`;
    return [{ key: name, at, summary, exchangeId: exchange.id, changed }];
  });
}
