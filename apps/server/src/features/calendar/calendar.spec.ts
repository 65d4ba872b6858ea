import ICAL from 'ical.js';
import { AT, ANN, BEN, DATES, INES, publishedExchange, World } from '../../testing/world.js';

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
    expect(text).toContain('BEGIN:VTIMEZONE');
    expect(text).toContain('TZID=Europe/Tallinn:20260330T235900');
    expect(read(text)).toEqual([
      { summary: 'Field report; one, two: draft due (Coastal Restoration)', at: dates.draftsDue },
      { summary: 'Field report; one, two: reviews due (Coastal Restoration)', at: dates.reviewsDue },
      { summary: 'Field report; one, two: feedback (Coastal Restoration)', at: dates.release },
    ]);
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

  it('leaves out what nothing goes by yet, though it is planned', async () => {
    const dates = { ...DATES, repliesDue: '2026-04-01T09:00:00.000Z', revisionDue: '2026-04-08T09:00:00.000Z' };
    await publishedExchange(world, { dates });
    for (const person of [ANN, INES]) {
      const due = read(await feed(await linkOf(person))).map(({ at }) => at);
      expect(due).toContain(DATES.release);
      expect(due.filter((at) => at > DATES.release)).toEqual([]);
    }
  });

  it('is of one person: own extensions, no exchange that is not published, nothing when excused', async () => {
    await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Still planned' });
    const id = await publishedExchange(world);
    const enrolment = `e-${ANN}`;
    const none = { draftsDue: null, reviewsDue: null, repliesDue: null, revisionDue: null, excused: false, reason: '' };
    const draftsDue = new Date(AT.reviewing).toISOString();
    await world.do(INES, 'put', `/exchanges/${id}/own-times`, { ...none, studentId: enrolment, draftsDue });
    await world.do(INES, 'put', `/exchanges/${id}/own-times`, { ...none, studentId: `e-${BEN}`, excused: true });
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
