import request from 'supertest';
import { Person, Session } from '../../model/person.js';
import { hashPassword } from '../../platform/security/passwords.js';
import { cookieName } from '../../auth/session-cookie.js';
import { assertEnoughFiles, assertWritable } from '../../platform/config/start-checks.js';
import { readSettings } from '../../platform/config/settings.js';
import { assertPurpose } from '../../platform/database/purpose.js';
import { publishedExchange } from '../acts.js';
import { ANN, INES } from '../people.js';
import { World } from '../world.js';

let world: World;
beforeAll(async () => {
  world = await World.open();
  const passwordHash = await hashPassword('saltmarsh at noon');
  await world.database.write((manager) => manager.update(Person, { id: 'p-ann' }, { passwordHash }));
});
afterAll(() => world.close());

const server = () => request(world.app.getHttpServer());
const signIn = (email: string, password: string) =>
  server().post('/api/session').set('x-salt-circle', '1').send({ email, password });

describe('signing in', () => {
  it('gives a cookie that scripts cannot read and other sites cannot use, and stores only its fingerprint', async () => {
    const { status, headers } = await signIn('Ann@Example.org', 'saltmarsh at noon');
    expect(status).toBe(204);
    const cookie = headers['set-cookie']?.[0] ?? '';
    expect(cookie).toMatch(new RegExp(`^${cookieName({ secure: false })}=\\S+; .*HttpOnly; SameSite=Lax$`));
    const token = /=([^;]+)/.exec(cookie)?.[1] ?? '';
    const sessions = await world.database.read.find(Session);
    expect(sessions.length).toBeGreaterThan(0);
    expect(JSON.stringify(sessions)).not.toContain(token);
    const { body } = await server().get('/api/session').set('cookie', cookie);
    expect(body).toMatchObject({ person: { name: 'Ann Mensah' } });
    await server().delete('/api/session').set('x-salt-circle', '1').set('cookie', cookie).expect(204);
    await server().get('/api/today').set('cookie', cookie).expect(401);
  });

  it('says the same for a wrong password and for an unknown account', async () => {
    const [wrong, unknown, without] = [
      await signIn('ann@example.org', 'x'),
      await signIn('none@example.org', 'x'),
      await signIn('ben@example.org', 'x'),
    ];
    expect(wrong.body).toMatchObject({ code: 'sign-in-wrong' });
    expect([unknown.text, without.text]).toEqual([wrong.text, wrong.text]);
  });

  it('stops after ten tries, for that account from that address only', async () => {
    const statuses: number[] = [];
    for (let tries = 0; tries < 12; tries += 1)
      statuses.push((await signIn('guess@example.org', `try ${tries}`)).status);
    expect(statuses.slice(0, 10)).toEqual(Array(10).fill(401));
    expect(statuses.slice(10)).toEqual([429, 429]);
    expect((await signIn('ann@example.org', 'saltmarsh at noon')).status).toBe(204);
  });

  it('hashes with argon2id', async () => {
    // The PHC string format: algorithm, version, parameters; memory in KiB. RFC 9106, section 4, names 64 MiB and 3 passes.
    expect(await hashPassword('x')).toMatch(/^\$argon2id\$v=19\$m=65536,t=3,p=1\$/);
  });

  it('ends a session that was idle for two weeks', async () => {
    expect((await world.as(INES, 'get', '/today')).status).toBe(200);
    await world.database.write((manager) =>
      manager.update(Session, { personId: 'p-ines' }, { lastSeenAt: Date.now() - 15 * 24 * 3_600_000 }),
    );
    expect((await world.as(INES, 'get', '/today')).body).toMatchObject({ code: 'signed-out' });
    world.signOut(INES);
  });
});

describe('requests from other sites', () => {
  const post = () => server().post('/api/session').send({ email: 'ann@example.org', password: 'x' });
  it.each([
    ['without our header', () => post()],
    ['that the browser calls cross-site', () => post().set('x-salt-circle', '1').set('sec-fetch-site', 'cross-site')],
    ['from a sibling site', () => post().set('x-salt-circle', '1').set('sec-fetch-site', 'same-site')],
    ['with another origin', () => post().set('x-salt-circle', '1').set('origin', 'https://evil.example')],
    ['with no real origin', () => post().set('x-salt-circle', '1').set('origin', 'null')],
  ])('are refused %s', async (_, send) => {
    const { status, body } = await send();
    expect([status, body.code]).toEqual([403, 'cross-site']);
  });
});

describe('answers', () => {
  it('carry a strict content policy and are not kept by caches', async () => {
    const { headers } = await server().get('/api/health');
    const policy = headers['content-security-policy'] ?? '';
    expect(policy).toContain("script-src 'self';");
    expect(policy).toContain("default-src 'none';");
    expect(policy).not.toMatch(/unsafe|\*/);
    expect(headers).toMatchObject({ 'x-content-type-options': 'nosniff', 'cache-control': 'no-store' });
    expect(headers['x-powered-by']).toBeUndefined();
  });

  it('are problems of one shape, for whatever goes wrong', async () => {
    const answers = [
      await server().get('/api/nowhere'),
      await server().get('/api/today'),
      await server()
        .post('/api/session')
        .set('x-salt-circle', '1')
        .set('content-type', 'application/json')
        .send('{"email":'),
      await server().post('/api/session').set('x-salt-circle', '1').send({ email: 5, password: '', more: 1 }),
    ];
    expect(answers.map(({ status, body }) => [status, body.code])).toEqual([
      [404, 'not-found'],
      [401, 'signed-out'],
      [400, 'not-json'],
      [422, 'invalid'],
    ]);
    for (const { headers, body } of answers) {
      expect(headers['content-type']).toContain('application/problem+json');
      expect(Object.keys(body).sort()).toEqual(['code', 'fields', 'sentence', 'whatToDo']);
    }
    expect(answers[3]?.body.fields.map(({ path }: { path: string }) => path)).toEqual(['more', 'email', 'password']);
  });
});

describe('the audit log', () => {
  it('says who did what, when, and nothing of what they wrote', async () => {
    const id = await publishedExchange(world);
    const rows = await world.do<Array<{ actor: string; action: string; at: string }>>(
      INES,
      'get',
      `/exchanges/${id}/activity`,
    );
    expect(rows.map(({ action }) => action)).toEqual([
      'exchange-published',
      'form-changed',
      'plan-changed',
      'dates-changed',
      'exchange-created',
    ]);
    expect(new Set(rows.map(({ actor }) => actor))).toEqual(new Set(['Ines Marchetti']));
    expect(JSON.stringify(rows)).not.toContain('Write a report');
    expect((await world.as(ANN, 'get', `/exchanges/${id}/activity`)).status).toBe(403);
  });
});

describe('settings', () => {
  const secret = 'a secret of some thirty characters';
  it('start production only with a secret, and say how to make one', () => {
    expect(() => readSettings({})).toThrow(/SALT_CIRCLE_SECRET is not set[\s\S]*openssl rand/);
    expect(() => readSettings({ SALT_CIRCLE_SECRET: 'short' })).toThrow('has only 5 characters');
    expect(readSettings({ SALT_CIRCLE_SECRET: secret })).toMatchObject({ mode: 'production', port: 4600 });
  });

  it('are each checked, in words', () => {
    const wrong: ReadonlyArray<readonly [Record<string, string>, string | RegExp]> = [
      [
        { SALT_CIRCLE_SMPT: 'smtp://mail.example.org' },
        'There is no setting SALT_CIRCLE_SMPT. Did you mean SALT_CIRCLE_SMTP?',
      ],
      [{ SALT_CIRCLE_SECRET: 'x'.repeat(64) }, 'repeats a few characters'],
      [{ SALT_CIRCLE_PROXIES: '0.0.0.0/0' }, 'which is every address there is'],
      [{ SALT_CIRCLE_PROXIES: '::/0' }, 'which is every address there is'],
      [{ SALT_CIRCLE_LOG: 'quiet' }, 'Use "on" or "off"'],
      [{ SALT_CIRCLE_URL: 'https://user@salt.example.org' }, /SALT_CIRCLE_URL is/],
      [{ SALT_CIRCLE_SMTP: 'smtp://mail.example.org', SALT_CIRCLE_MAIL_FROM: 'us' }, /SALT_CIRCLE_MAIL_FROM is "us"/],
      [{ SALT_CIRCLE_DISK_REST: 'some' }, /SALT_CIRCLE_DISK_REST is "some"/],
      [{ HOST: 'here' }, /HOST is "here"/],
    ];
    for (const [part, words] of wrong)
      expect(() => readSettings({ SALT_CIRCLE_SECRET: secret, ...part })).toThrow(words);
    // Empty is not set.
    const empty = { SALT_CIRCLE_SMTP: '', SALT_CIRCLE_URL: ' ', SALT_CIRCLE_MAIL_FROM: '', PORT: '', HOST: '' };
    expect(readSettings({ SALT_CIRCLE_SECRET: secret, ...empty })).toMatchObject({ smtp: null, port: 4600 });
    expect(() =>
      assertEnoughFiles('Max open files            256                  4096                 files'),
    ).toThrow('only 256 files');
    expect(() => assertWritable('/etc/hostname/salt-circle')).toThrow(/cannot be written/);
  });

  it('do not switch the demo on in production by accident', () => {
    expect(() => readSettings({ SALT_CIRCLE_MODE: 'demo', NODE_ENV: 'production' })).toThrow(
      /lets anybody step into any account/,
    );
    expect(() => readSettings({ SALT_CIRCLE_MODE: 'Demo' })).toThrow(/Use one of/);
    expect(() => readSettings({ SALT_CIRCLE_SECRET: secret, PORT: 'http' })).toThrow(/PORT is "http"/);
  });

  it('keep demo data and real data apart', async () => {
    await expect(assertPurpose(world.database, 'demo')).rejects.toThrow(/holds real data/);
    const demo = await World.open({ mode: 'demo' }, []);
    await assertPurpose(demo.database, 'demo');
    await expect(assertPurpose(demo.database, 'production')).rejects.toThrow(/holds demo data/);
    await demo.close();
  });

  it('leave no demo routes outside the demo', async () => {
    expect((await server().get('/api/demo/people')).status).toBe(404);
    expect(
      (await server().post('/api/demo/step-in').set('x-salt-circle', '1').send({ personId: 'p-ann' })).status,
    ).toBe(404);
  });
});
