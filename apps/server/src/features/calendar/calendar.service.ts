import { TZDate } from '@date-fns/tz';
import { Injectable } from '@nestjs/common';
import type { CalendarLinkView } from '@salt-circle/contracts';
import { resolveDates, withOwnTimes, type OwnTimes, type RunningDateName } from '@salt-circle/core';
import ical, { ICalCalendarMethod } from 'ical-generator';
import { tzlib_get_ical_block } from 'timezones-ical-library';
import type { Asker } from '../../access/seeing.js';
import { Person } from '../../model/person.js';
import { Clock } from '../../platform/clock/clock.js';
import { Course, Enrolment } from '../../model/course.js';
import { Database } from '../../platform/database/database.js';
import { datesOf } from '../../access/facts-of.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { iso } from '../../platform/wire/instants.js';
import { ownTimesOf } from '../../access/own-times.js';
import { hashOf } from '../../platform/ids/hash-of.js';
import { Ids } from '../../platform/ids/ids.js';
import { refusal } from '../../platform/problems/sentences.js';
import { CalendarLink } from '../../model/calendar.js';

/** What falls due for whom, in the words of a calendar entry. */
const STUDENT_ENTRIES: ReadonlyArray<readonly [RunningDateName, string]> = [
  ['draftsDue', 'draft due'],
  ['reviewsDue', 'reviews due'],
  ['release', 'feedback'],
];
const STAFF_ENTRIES: ReadonlyArray<readonly [RunningDateName, string]> = [
  ['draftsDue', 'drafts due'],
  ['lateUntil', 'late drafts until'],
  ['reviewsOpen', 'reviews open'],
  ['reviewsDue', 'reviews due'],
  ['release', 'release of feedback'],
];

interface Entry {
  readonly key: string;
  readonly at: number;
  readonly summary: string;
  readonly exchangeId: string;
  readonly timeZone: string;
}

/** A calendar feed (RFC 5545) of one person's due times, under a private address that can be taken back. */
@Injectable()
export class CalendarService {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  async link(person: Asker): Promise<CalendarLinkView> {
    const link = await this.database.read.findOneBy(CalendarLink, { personId: person.id });
    return { madeAt: link === null ? null : iso(link.createdAt) };
  }

  /** Makes a new address; the one before ends. It is told this once and stored nowhere. */
  async makeLink(person: Asker): Promise<{ url: string }> {
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

  async revoke(person: Asker): Promise<void> {
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
      name: 'Salt Circle',
      prodId: { company: 'Salt Circle', product: 'Due times', language: 'EN' },
      method: ICalCalendarMethod.PUBLISH,
      timezone: { name: null, generator: (zone) => tzlib_get_ical_block(zone)[0] as string },
      ttl: 3600,
    });
    const { publicUrl } = this.database.mail;
    for (const { key, at, summary, exchangeId, timeZone } of entries) {
      calendar.createEvent({
        id: `${exchangeId}.${key}@${new URL(publicUrl).hostname}`,
        // As the clock of the course shows it: a TZDate is read in its own zone.
        start: new TZDate(at, timeZone),
        end: new TZDate(at, timeZone),
        timezone: timeZone,
        // The moment at which the feed was made says nothing; the same due time stays the same entry.
        stamp: new Date(at),
        summary,
        url: `${publicUrl}/exchanges/${exchangeId}`,
      });
    }
    return calendar.toString();
  }

  async #entries(person: Asker): Promise<Entry[]> {
    const manager = this.database.read;
    const entries: Entry[] = [];
    for (const { courseId, role } of await manager.findBy(Enrolment, { personId: person.id, active: true })) {
      const course = await manager.findOneByOrFail(Course, { id: courseId });
      for (const exchange of await manager.findBy(Exchange, { courseId })) {
        if (exchange.publishedAt === null) continue;
        const participant = await manager.findOneBy(Participant, { exchangeId: exchange.id, personId: person.id });
        if (role === 'student' && participant === null) continue;
        const own = role === 'student' ? await ownTimesOf(manager, exchange, { personId: person.id }) : null;
        entries.push(...entriesOf(exchange, course, role === 'student', own));
      }
    }
    return entries.sort((a, b) => a.at - b.at);
  }
}

function entriesOf(exchange: Exchange, course: Course, student: boolean, own: OwnTimes | null): Entry[] {
  const common = resolveDates(datesOf(exchange));
  if (common === null || own?.excused === true) return [];
  const dates = withOwnTimes(common, own);
  const seen = new Set<number>();
  return (student ? STUDENT_ENTRIES : STAFF_ENTRIES).flatMap(([name, words]): Entry[] => {
    const at = name === 'checkUntil' ? null : dates[name];
    // Reviews that open when drafts are due, or feedback that comes when reviews are due, need no entry of their own.
    if (at === null || seen.has(at)) return [];
    seen.add(at);
    const summary = `${exchange.title}: ${words} (${course.title})`;
    return [{ key: name, at, summary, exchangeId: exchange.id, timeZone: course.timeZone }];
  });
}
