import ICAL from 'ical.js';
import { publishedExchange } from '../../testing/acts.js';
import { ANN, BEN, INES } from '../../testing/people.js';
import { AT, DATES } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

const linkOf = async (person: number) =>
  new URL((await world.do<{ url: string }>(person, 'post', '/calendar-link')).url).pathname.replace('/api', '');
const feed = async (path: string) => (await world.as(null, 'get', path)).text;

interface Read {
  readonly summary: string;
  /** As UTC, by the reference parser and the VTIMEZONE that the feed ships. */
  readonly at: string;
}

function read(text: string): Read[] {
  const calendar = new ICAL.Component(ICAL.parse(text));
  for (const zone of calendar.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(zone);
  const events = calendar.getAllSubcomponents('vevent').map((one) => {
    const event = new ICAL.Event(one);
    return { summary: event.summary, at: event.startDate.toJSDate().toISOString() };
  });
  ICAL.TimezoneService.reset();
  return events;
}

describe('the calendar feed', () => {
  // The reference: ical.js, a general-purpose reader of RFC 5545.
  it('is read back with the same instants, before and after a change of clocks', async () => {
    // Clocks go forward in Tallinn on 29 March 2026.
    const dates = { ...DATES, reviewsDue: '2026-03-28T21:59:00.000Z', release: '2026-03-30T20:59:00.000Z' };
    await publishedExchange(world, { dates, title: 'Field report; one, two' });
    const text = await feed(await linkOf(ANN));
    expect(text).not.toContain('VTIMEZONE');
    expect(read(text)).toEqual([
      { summary: 'Field report; one, two: draft due (Coastal Restoration)', at: dates.draftsDue },
      { summary: 'Field report; one, two: reviews due (Coastal Restoration)', at: dates.reviewsDue },
      { summary: 'Field report; one, two: feedback (Coastal Restoration)', at: dates.release },
    ]);
  });

  // Clocks in Tallinn show 03:30 twice on 25 October 2026: at 00:30 and at 01:30 UTC.
  it('tells the doubled hour of autumn apart', async () => {
    const dates = { ...DATES, reviewsDue: '2026-10-25T00:30:00.000Z', release: '2026-10-25T01:30:00.000Z' };
    await publishedExchange(world, { dates });
    const text = await feed(await linkOf(ANN));
    expect(read(text).map(({ at }) => at)).toEqual([dates.draftsDue, dates.reviewsDue, dates.release]);
    expect(text).toContain('DTSTART:20261025T003000Z');
  });

  // RFC 5545, 3.8.7.2 to 3.8.7.4: without a METHOD, DTSTAMP is when the entry was last revised, as LAST-MODIFIED is.
  it('counts what changed for one person, and says when', async () => {
    const id = await publishedExchange(world);
    const marks = async (person: number) => {
      const [event] = new ICAL.Component(ICAL.parse(await feed(await linkOf(person)))).getAllSubcomponents('vevent');
      const value = (name: string) => String(event?.getFirstPropertyValue(name));
      expect(value('dtstamp')).toBe(value('last-modified'));
      return [Number(value('sequence')), value('dtstamp')];
    };
    const [first, at] = await marks(ANN);
    expect(first).toBe(0);
    expect(await marks(ANN)).toEqual([0, at]);
    world.clock.goTo(world.clock.now() + 3_600_000);
    const body = { studentId: `e-${ANN}`, draftsDue: '2026-03-13T09:00:00.000Z', excused: false, reason: '' };
    await world.do(INES, 'put', `/exchanges/${id}/personal-dates`, {
      ...{ reviewsDue: null, repliesDue: null, revisionDue: null },
      ...body,
    });
    const [second, later] = await marks(ANN);
    expect([second, (later as string) > (at as string)]).toEqual([1, true]);
    // Nobody else learns of it.
    expect(await marks(BEN)).toEqual([0, at]);
  });

  // RFC 5545, 3.1: lines end with CRLF and have no more than 75 octets; 3.3.11: commas and semicolons are escaped.
  it('folds long lines and escapes what has a meaning', async () => {
    const title = `Größe der Salzwiese; ein Bericht, ${'mit einem sehr langen Titel '.repeat(4)}`.trim();
    await publishedExchange(world, { title });
    const text = await feed(await linkOf(ANN));
    expect(text.replace(/\r\n/g, '')).not.toMatch(/[\r\n]/);
    for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    expect(text.replace(/\r\n /g, '')).toContain('SUMMARY:Größe der Salzwiese\\; ein Bericht\\, mit');
    expect(read(text)[0]?.summary).toBe(`${title}: draft due (Coastal Restoration)`);
  });

  it('goes on after the release, where answers and a revision are planned', async () => {
    const dates = { ...DATES, repliesDue: '2026-04-01T09:00:00.000Z', revisionDue: '2026-04-08T09:00:00.000Z' };
    await publishedExchange(world, { dates });
    for (const person of [ANN, INES]) {
      const due = read(await feed(await linkOf(person))).map(({ at }) => at);
      expect(due).toContain(DATES.release);
      expect(due.filter((at) => at > DATES.release)).toEqual([dates.repliesDue, dates.revisionDue]);
    }
  });

  it('is of one person: own extensions, no exchange that is not published, nothing when excused', async () => {
    await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Still planned' });
    const id = await publishedExchange(world);
    const enrolment = `e-${ANN}`;
    const none = { draftsDue: null, reviewsDue: null, repliesDue: null, revisionDue: null, excused: false, reason: '' };
    const draftsDue = new Date(AT.reviewing).toISOString();
    await world.do(INES, 'put', `/exchanges/${id}/personal-dates`, { ...none, studentId: enrolment, draftsDue });
    await world.do(INES, 'put', `/exchanges/${id}/personal-dates`, { ...none, studentId: `e-${BEN}`, excused: true });
    expect(read(await feed(await linkOf(ANN)))[0]).toMatchObject({ at: draftsDue });
    expect(read(await feed(await linkOf(BEN)))).toEqual([]);
    expect(read(await feed(await linkOf(INES))).map(({ summary }) => summary)).toContain(
      'Field report: reviews open (Coastal Restoration)',
    );
  });

  it('ends when its address is taken back or replaced', async () => {
    await publishedExchange(world);
    const first = await linkOf(ANN);
    const second = await linkOf(ANN);
    expect((await world.as(null, 'get', first)).status).toBe(404);
    expect((await world.as(null, 'get', second)).status).toBe(200);
    await world.do(ANN, 'delete', '/calendar-link');
    expect((await world.as(null, 'get', second)).status).toBe(404);
    expect(await world.do(ANN, 'get', '/calendar-link')).toEqual({ madeAt: null });
  });
});
