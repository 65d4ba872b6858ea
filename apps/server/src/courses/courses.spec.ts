import { ANN, AT, CHO, INES, OUT, publishedExchange, TOM, World } from '../testing/world.js';

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

interface CourseAnswer {
  readonly role: string;
  readonly people: Array<{ readonly name: string; readonly role: string }> | null;
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

  it('shows its people to staff only, staff first', async () => {
    const seen = await world.do<CourseAnswer>(TOM, 'get', '/courses/course');
    expect(seen.people?.map(({ name, role }) => `${name}, ${role}`)).toEqual([
      'Ines Marchetti, instructor',
      'Tomasz Wilk, assistant',
      'Ann Mensah, student',
      'Ben Kiss, student',
      'Cho Sato, student',
    ]);
    expect((await world.do<CourseAnswer>(ANN, 'get', '/courses/course')).people).toBeNull();
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
