import type { MadeTokenView, TokensView } from '@salt-circle/contracts';
import request from 'supertest';
import { OPENS } from '../../auth/token-scopes.js';
import { AccessToken } from '../../model/access-token.js';
import { Session } from '../../model/person.js';
import { reviewedExchange } from '../../testing/acts.js';
import { ANN, CHO, INES, TOM } from '../../testing/people.js';
import { World } from '../../testing/world.js';

let world: World;
let id: string;
let byAnn: string;

beforeEach(async () => {
  world = await World.open();
  ({ id, byAnn } = await reviewedExchange(world));
});
afterEach(() => world.close());

const make = (part: object = {}, who: number = INES) =>
  world.as(who, 'post', '/account/tokens', { name: 'Marks into R', scope: 'read', days: 30, ...part });
const token = async (part: object = {}, who: number = INES) => ((await make(part, who)).body as MadeTokenView).token;
const listed = (who: number = INES) => world.do<TokensView>(who, 'get', '/account/tokens');
/** As a script asks: without a cookie. */
const by = (bearer: string, path: string, method: 'get' | 'post' | 'put' | 'delete' = 'get') =>
  request(world.app.getHttpServer())
    [method](`/api${path}`)
    .set('x-salt-circle', '1')
    .set('authorization', `Bearer ${bearer}`);
const status = async (bearer: string, path: string, method?: 'get' | 'post' | 'put' | 'delete') =>
  (await by(bearer, path, method)).status;

describe('access tokens', () => {
  it('read what their person may read, and nothing else', async () => {
    const ines = await token();
    expect((await by(ines, `/exchanges/${id}/grades`)).body).toEqual(
      await world.do(INES, 'get', `/exchanges/${id}/grades`),
    );
    expect(await status(ines, `/reviews/${byAnn}`)).toBe(200);
    expect(await status(ines, '/openapi.json')).toBe(200);
    // The person is no instructor there.
    expect(await status(await token({}, TOM), '/courses/course/results.zip')).toBe(403);
    const closed = await Promise.all(
      ['/account', '/account/tokens', '/session', '/inbox', '/today', '/uploads', '/demo/people', '/coursesx'].map(
        (path) => status(ines, path),
      ),
    );
    expect(new Set(closed)).toEqual(new Set([403]));
  });

  it('open no route but those listed, which are all there are by that name', async () => {
    const ines = await token();
    const { paths } = (await by(ines, '/openapi.json')).body as { paths: Record<string, Record<string, object>> };
    const routes = Object.entries(paths).flatMap(([path, methods]) =>
      'get' in methods ? [path.replace(/^\/api/, '').replace(/\{(\w+)\}/g, ':$1')] : [],
    );
    for (const listedRoute of OPENS.read) expect(routes).toContain(listedRoute);
    const closed = routes.filter((route) => !OPENS.read.includes(route));
    // What lets somebody in, and what is of the account, is closed, whatever the names in it.
    expect(closed).toEqual(
      expect.arrayContaining([
        '/courses/:courseId/outbox',
        '/courses/:courseId/outbox/:mailId',
        '/account',
        '/inbox',
        '/calendar-link',
      ]),
    );
    for (const route of closed) {
      const path = route.replace(':courseId', 'course').replace(':exchangeId', id).replace(':reviewId', byAnn);
      if (route.startsWith('/changes')) continue;
      expect(`${route} ${await status(ines, path.replace(/:\w+/g, 'none'))}`).toBe(`${route} 403`);
    }
  });

  it('change nothing', async () => {
    const ines = await token();
    const answers = await Promise.all([
      by(ines, `/exchanges/${id}/grades/release`, 'post'),
      by(ines, `/exchanges/${id}/plan`, 'put'),
      by(ines, '/account/sessions', 'delete'),
    ]);
    expect(answers.map(({ status: code }) => code)).toEqual([403, 403, 403]);
    expect((answers[0]?.body as { sentence: string }).sentence).toBe('An access token reads, and changes nothing.');
  });

  it('for grades open grades alone', async () => {
    const grades = await token({ scope: 'grades' });
    const codes = (paths: readonly string[]) => Promise.all(paths.map((path) => status(grades, path)));
    const own = `/exchanges/${id}`;
    expect(
      await codes([`${own}/grades`, `${own}/grades.csv`, `${own}/insights`, own, '/courses', '/courses/course']),
    ).toEqual(Array(6).fill(200));
    expect(
      await codes([
        `/reviews/${byAnn}`,
        `${own}/progress`,
        `${own}/notes.jsonld`,
        '/courses/course/people',
        `${own}/grades/../plan`,
      ]),
    ).toEqual(Array(5).fill(403));
  });

  it('are stored nowhere, shown once, listed with when they were used, and taken back', async () => {
    const made = await token();
    expect(made).toMatch(/^salt_\S{20,}$/);
    expect(JSON.stringify(await world.database.read.find(AccessToken))).not.toContain(made.slice(6));
    const [row] = (await listed()).tokens;
    expect(row).toMatchObject({ name: 'Marks into R', scope: 'read', used: null });
    expect(JSON.stringify(row)).not.toContain(made);
    await by(made, '/courses');
    expect((await listed()).tokens[0]?.used).not.toBeNull();
    // Nobody takes back somebody else’s.
    await world.as(TOM, 'delete', `/account/tokens/${row?.id}`);
    expect(await status(made, '/courses')).toBe(200);
    expect((await world.as(INES, 'delete', `/account/tokens/${row?.id}`)).status).toBe(204);
    expect(await status(made, '/courses')).toBe(401);
  });

  it('end at their time, and with all else that is signed out', async () => {
    const [ended, other] = [await token(), await token({ scope: 'grades' })];
    await world.database.write((manager) =>
      manager.update(AccessToken, { scope: 'read' }, { endsAt: world.clock.real() }),
    );
    expect([await status(ended, '/courses'), await status(other, '/courses')]).toEqual([401, 200]);
    expect((await world.as(INES, 'delete', '/account/sessions')).status).toBe(204);
    expect(await status(other, '/courses')).toBe(401);
    expect(await world.database.read.countBy(Session, {})).toBeGreaterThan(0);
  });

  it('are for staff, in bounds, and no cookie helps a wrong one', async () => {
    const refused = await Promise.all([
      make({}, ANN),
      make({}, CHO),
      make({ days: 0 }),
      make({ days: 367 }),
      make({ days: 1.5 }),
      make({ name: ' ' }),
      make({ scope: 'everything' }),
    ]);
    expect(refused.map(({ status: code }) => code)).toEqual([403, 403, 422, 422, 422, 422, 422]);
    expect((await listed(ANN)).may).toBe(false);
    const cookie = await world.cookieOf(INES);
    expect((await by('salt_wrong', '/courses').set('cookie', cookie)).status).toBe(401);
    for (let made = 0; made < 20; made += 1) await token();
    expect((await make()).status).toBe(422);
  });
});
