import request from 'supertest';
import { VIEW_AS_ROUTES } from '../../auth/view-as-routes.js';
import type { ExchangeView, SessionView } from '@salt-circle/contracts';
import { publishedExchange, reviewedExchange, submitFilled } from '../acts.js';
import { ANN, BEN, INES, OUT, TOM } from '../people.js';
import { AT } from '../plan.js';
import { World } from '../world.js';

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

/** A request of the one at `index`, with the eyes that the header names. */
async function see(index: number, eyes: string, path: string, method: 'get' | 'put' | 'post' = 'get') {
  const cookie = await world.cookieOf(index);
  return request(world.app.getHttpServer())
    [method](`/api${path}`)
    .set({ 'x-salt-circle': '1', 'x-salt-circle-view-as': eyes, cookie });
}
const participantOf = async (id: string, name: string) =>
  (
    await world.do<{ rows: Array<{ id: string; person: { name: string } }> }>(INES, 'get', `/exchanges/${id}/progress`)
  ).rows.find(({ person }) => person.name.startsWith(name))?.id ?? '';

describe('viewing as a student', () => {
  it('answers to the letter what the student gets', async () => {
    const { id, byAnn, byBen } = await reviewedExchange(world);
    await submitFilled(world, BEN, byBen);
    const eyes = `${id}/${await participantOf(id, 'Ann')}`;
    const paths = [
      `/exchanges/${id}`,
      `/exchanges/${id}/draft`,
      `/exchanges/${id}/reviews`,
      `/exchanges/${id}/feedback`,
      `/reviews/${byBen}`,
    ];
    for (const at of [AT.reviewing, AT.closed]) {
      world.clock.goTo(at);
      for (const path of paths) {
        const own = await world.as(ANN, 'get', path);
        for (const staff of [INES, TOM]) {
          const seen = await see(staff, eyes, path);
          expect([path, seen.status, seen.text]).toEqual([path, own.status, own.text]);
        }
      }
    }
    // What can be written in the student's own review cannot be written with borrowed eyes, and the page is told so.
    world.clock.goTo(AT.reviewing);
    expect((await see(INES, eyes, `/reviews/${byAnn}`)).body).toMatchObject({ editable: false, submittable: false });
  });

  it('changes nothing, sees no other exchange, and leads to no other course', async () => {
    const other = await publishedExchange(world);
    const { id, byAnn } = await reviewedExchange(world);
    const eyes = `${id}/${await participantOf(id, 'Ann')}`;
    for (const [method, path] of [
      ['put', `/exchanges/${id}/draft`],
      ['post', `/reviews/${byAnn}/submit`],
      ['put', `/exchanges/${id}/plan`],
    ] as const) {
      const { status, body } = await see(INES, eyes, path, method);
      expect([status, body.code]).toEqual([403, 'read-only']);
    }
    expect((await see(INES, eyes, `/exchanges/${other}`)).status).toBe(404);
    expect((await see(INES, eyes, '/courses/elsewhere')).status).toBe(404);
    expect((await see(INES, eyes, '/today')).body).toEqual({ items: [], waiting: [] });
  });

  it('opens what its list names, and no other route of the server', async () => {
    const { id } = await reviewedExchange(world);
    const eyes = `${id}/${await participantOf(id, 'Ann')}`;
    interface Layer {
      readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
    }
    const { stack } = (world.app.getHttpAdapter().getInstance() as { router: { stack: Layer[] } }).router;
    const routes = stack.flatMap(({ route }) =>
      route?.methods['get'] === true && Object.keys(route.methods).length === 1 ? [route.path.replace('/api', '')] : [],
    );
    const closed = routes.filter((route) => !(VIEW_AS_ROUTES as readonly string[]).includes(route));
    expect(closed).toEqual(expect.arrayContaining(['/account/tokens', '/calendar-link', '/inbox', '/own-remarks']));
    expect(VIEW_AS_ROUTES.filter((route) => !routes.includes(route))).toEqual([]);
    for (const route of closed) {
      const path = route.replace(':exchangeId', id).replace(':courseId', 'course').replaceAll(/:\w+/g, 'none');
      const { status, body } = await see(INES, eyes, path);
      expect([route, status, body.code]).toEqual([route, 404, 'not-found']);
    }
  });

  it('is for staff of the course alone', async () => {
    const id = await publishedExchange(world);
    const eyes = `${id}/${await participantOf(id, 'Ann')}`;
    expect((await see(BEN, eyes, `/exchanges/${id}`)).status).toBe(404);
    expect((await see(OUT, eyes, `/exchanges/${id}`)).status).toBe(404);
    expect((await see(INES, `${id}/nobody`, `/exchanges/${id}`)).status).toBe(404);
    expect((await see(INES, '../../etc', `/exchanges/${id}`)).status).toBe(404);
  });

  it('shows an example student what will be there, at any moment, before it is published', async () => {
    const { id } = await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Field report' });
    const published = await publishedExchange(world);
    const at = new Date(AT.reviewing).toISOString();
    const seen = (await see(INES, `${published}/example@${at}`, `/exchanges/${published}`)).body as ExchangeView;
    expect(seen).toMatchObject({
      stage: 'reviewing',
      published: true,
      course: { role: 'student' },
      marks: { draft: 'none' },
    });
    const session = (await see(INES, `${id}/example@${at}`, '/session')).body as SessionView;
    expect(session).toMatchObject({ now: at, viewAs: { by: 'Ines Marchetti', example: true, exchangeId: id } });
    expect((await see(INES, `${id}/example`, `/exchanges/${id}`)).body).toMatchObject({
      published: true,
      stage: 'planning',
    });
    expect((await see(INES, `${id}/example`, `/exchanges/${id}/draft`)).status).toBe(200);
  });
});
