import { publishedExchange } from '../../testing/acts.js';
import { ANN, CHO, INES, OUT, TOM } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

interface CourseAnswer {
  readonly role: string;
  readonly students: number | null;
  readonly exchanges: Array<{
    readonly id: string;
    readonly title: string;
    readonly stage: string;
    readonly next: { readonly date: string } | null;
  }>;
}

describe('a course', () => {
  it('is made by those who may, and its maker teaches it', async () => {
    const { id } = await world.do(INES, 'post', '/courses', { title: ' Tidal ecology ', timeZone: 'Europe/Lisbon' });
    expect(await world.do(INES, 'get', `/courses/${id}`)).toMatchObject({
      title: 'Tidal ecology',
      timeZone: 'Europe/Lisbon',
      role: 'instructor',
      exchanges: [],
    });
    expect((await world.as(ANN, 'get', `/courses/${id}`)).status).toBe(404);
    expect((await world.as(ANN, 'post', '/courses', { title: 'Mine', timeZone: 'UTC' })).body.code).toBe('not-yours');
  });

  it('needs a time zone that there is', async () => {
    const { status, body } = await world.as(INES, 'post', '/courses', { title: 'X', timeZone: 'Europe/Atlantis' });
    expect([status, body.fields[0].path]).toEqual([422, 'timeZone']);
    expect(await world.do(INES, 'get', '/courses')).toHaveLength(1);
  });

  it('tells staff alone how many students there are', async () => {
    expect((await world.do<CourseAnswer>(TOM, 'get', '/courses/course')).students).toBe(3);
    expect((await world.do<CourseAnswer>(ANN, 'get', '/courses/course')).students).toBeNull();
  });

  it('has holidays, which end after they begin', async () => {
    const settings = { title: 'Coastal Restoration', timeZone: 'Europe/Tallinn' };
    const holiday = { title: 'Spring break', from: '2026-03-16', to: '2026-03-12' };
    const wrong = await world.as(INES, 'put', '/courses/course', { ...settings, holidays: [holiday] });
    expect([wrong.status, wrong.body.fields[0].path]).toEqual([422, 'holidays.0.to']);
    const right = { ...holiday, from: '2026-03-12', to: '2026-03-16' };
    await world.do(INES, 'put', '/courses/course', { ...settings, holidays: [right] });
    const id = await publishedExchange(world);
    const { remarks } = await world.do<{ remarks: Array<{ path: string; sentence: string }> }>(
      INES,
      'get',
      `/exchanges/${id}/plan`,
    );
    expect(remarks).toMatchObject([
      { path: 'dates.draftsDue', sentence: '“Drafts due” (Thu 12 Mar 2026, 02:00 EET) falls on “Spring break”.' },
      { path: 'dates.reviewsOpen' },
    ]);
  });

  it('shows students an exchange once it is published, with its stage and what comes next', async () => {
    await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Still planned' });
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    const asStudent = await world.do<CourseAnswer>(CHO, 'get', '/courses/course');
    expect(asStudent.exchanges).toMatchObject([
      { id, title: 'Field report', stage: 'drafting', next: { date: 'draftsDue' } },
    ]);
    const asStaff = await world.do<CourseAnswer>(INES, 'get', '/courses/course');
    expect(asStaff.exchanges.map(({ title }) => title)).toEqual(['Still planned', 'Field report']);
  });

  it('is closed to somebody who has left it', async () => {
    await world.database.write((manager) => manager.query("UPDATE enrolment SET active = 0 WHERE personId = 'p-ann'"));
    expect((await world.as(ANN, 'get', '/courses/course')).status).toBe(404);
    expect(await world.do(ANN, 'get', '/courses')).toEqual([]);
    expect(await world.do<Array<{ role: string }>>(OUT, 'get', '/courses')).toMatchObject([
      { title: 'Elsewhere', role: 'instructor' },
    ]);
  });
});
