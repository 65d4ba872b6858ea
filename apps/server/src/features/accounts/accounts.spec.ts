import type { AccountView, SessionView } from '@salt-circle/contracts';
import request from 'supertest';
import { Like } from 'typeorm';
import { Enrolment } from '../../model/course.js';
import { Mail } from '../../model/mail.js';
import { PasswordLink, Person, Session } from '../../model/person.js';
import { AuditEntry } from '../../model/audit-entry.js';
import { Expiry } from '../../platform/expiry/expiry.js';
import { hashPassword } from '../../platform/security/passwords.js';
import { ANN, BEN, INES } from '../../testing/people.js';
import { World } from '../../testing/world.js';

const OLD = 'saltmarsh at noon';
const NEW = 'glasswort and thrift';
const HOUR = 3_600_000;

let world: World;
let passwordHash: string;
beforeAll(async () => {
  passwordHash = await hashPassword(OLD);
});
beforeEach(async () => {
  world = await World.open();
  await world.database.write((manager) => manager.update(Person, { id: 'p-ann' }, { passwordHash }));
});
afterEach(() => world.close());

const signIn = (email: string, password: string) => world.as(null, 'post', '/session', { email, password });
/** Links in letters to an address, as its reader finds them. */
const linksTo = async (address: string, kind: string) => {
  const mails = await world.database.read.findBy(Mail, { address, text: Like(`%/${kind}/%`) });
  return mails.flatMap(({ text }) => new RegExp(`/${kind}/([\\w-]{43})`).exec(text)?.[1] ?? []);
};
/** The answer does not wait for the letter. */
const ask = async (email: string) => {
  const { status, text } = await world.as(null, 'post', '/forgotten', { email });
  await new Promise((done) => setTimeout(done, 50));
  return { status, text };
};

describe('a forgotten password', () => {
  it('is chosen anew by a link in the mail, once; whoever was signed in is signed out', async () => {
    const before = await signIn('ann@example.org', OLD);
    expect(await ask('Ann@Example.org')).toEqual(await ask('nobody@example.org'));
    const [token = ''] = await linksTo('ann@example.org', 'password');
    expect(await world.do(BEN, 'get', `/password-links/${token}`)).toEqual({ email: 'ann@example.org' });
    const chosen = await world.as(null, 'post', `/password-links/${token}`, { password: NEW });
    expect([chosen.status, chosen.headers['set-cookie']?.[0]]).toEqual([204, expect.stringContaining('salt_circle=')]);
    const old = before.headers['set-cookie']?.[0] ?? '';
    const left = await request(world.app.getHttpServer()).get('/api/today').set('cookie', old);
    expect(left.status).toBe(401);
    expect([(await signIn('ann@example.org', OLD)).status, (await signIn('ann@example.org', NEW)).status]).toEqual([
      401, 204,
    ]);
    expect((await world.as(null, 'post', `/password-links/${token}`, { password: OLD })).status).toBe(410);
    expect((await world.database.read.findOneByOrFail(Person, { id: 'p-ann' })).addressConfirmedAt).not.toBeNull();
  });

  it('has links that last an hour, three within it, and leave nothing behind', async () => {
    for (let times = 0; times < 5; times += 1) await ask('ann@example.org');
    const links = await linksTo('ann@example.org', 'password');
    expect(links).toHaveLength(3);
    await world.database.write((manager) =>
      manager.update(PasswordLink, { personId: 'p-ann' }, { createdAt: Date.now() - HOUR - 1 }),
    );
    expect((await world.as(null, 'post', `/password-links/${links[0]}`, { password: NEW })).status).toBe(410);
    await world.app.get(Expiry).remove();
    expect(await world.database.read.count(PasswordLink)).toBe(0);
  });

  it('is also helped with by an instructor, who learns neither link nor address', async () => {
    await world.database.write((manager) => manager.update(Person, { id: 'p-ann' }, { email: 'ann@private.example' }));
    const { id } = await world.database.read.findOneByOrFail(Enrolment, { courseId: 'course', personId: 'p-ann' });
    await world.do(INES, 'post', `/courses/course/people/${id}/password-link`);
    expect(await linksTo('ann@private.example', 'password')).toHaveLength(1);
    const outbox = await world.as(INES, 'get', '/courses/course/outbox');
    expect(outbox.text).not.toMatch(/private|password/);
  });

  it('is not promised where no mail leaves', async () => {
    const silent = await World.open({ mode: 'production' }, []);
    const { status, body } = await silent.as(null, 'post', '/forgotten', { email: 'ann@example.org' });
    expect([status, body.code, (await silent.as(null, 'get', '/session')).body.mail]).toEqual([409, 'no-mail', false]);
    await silent.close();
  });
});

describe('a new password', () => {
  const change = (password: string, old = OLD) => world.as(ANN, 'put', '/account/password', { old, password });

  // The list is that of zxcvbn-ts; that these are on it, or variants of it, is common practice with no source.
  it.each([
    ['too short', 'ninesigns', 'invalid'],
    ['common', 'qwertyuiop', 'password-weak'],
    ['common, with signs after it', 'sunshine2026!', 'password-weak'],
    ['repeated', 'abcabcabcabc', 'password-weak'],
    ['the own name', 'Mensah.1234', 'password-weak'],
    ['name of the place', 'Salt-Circle-26', 'password-weak'],
  ])('is refused when it is %s', async (_, password, code) => {
    const { status, body } = await change(password);
    expect([status, body.code, body.fields[0].path]).toEqual([422, code, 'password']);
  });

  it('asks for the old one, signs out other browsers, and is told by mail', async () => {
    expect((await change(NEW, 'not it')).body.code).toBe('password-wrong');
    await signIn('ann@example.org', OLD);
    expect((await change(NEW)).status).toBe(204);
    expect((await world.as(ANN, 'get', '/account')).body.sessions).toHaveLength(1);
    expect((await signIn('ann@example.org', NEW)).status).toBe(204);
    const subjects = (await world.database.read.findBy(Mail, { address: 'ann@example.org' })).map(
      ({ subject }) => subject,
    );
    expect(subjects).toEqual(['Your password for Salt Circle has been changed']);
  });
});

describe('sessions', () => {
  it('are listed with their browsers, and ended one by one or all but this one', async () => {
    const firefox = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0';
    const other = await request(world.app.getHttpServer())
      .post('/api/session')
      .set({ 'x-salt-circle': '1', 'user-agent': firefox })
      .send({ email: 'ann@example.org', password: OLD });
    await signIn('ann@example.org', OLD);
    const sessions = async () => (await world.do<AccountView>(ANN, 'get', '/account')).sessions;
    const listed = await sessions();
    expect(listed.map(({ thisOne }) => thisOne).sort()).toEqual([false, false, true]);
    const elsewhere = listed.find(({ browser }) => browser === 'Firefox on Linux');
    await world.do(ANN, 'delete', `/account/sessions/${elsewhere?.id}`);
    const cookie = other.headers['set-cookie']?.[0] ?? '';
    expect((await request(world.app.getHttpServer()).get('/api/today').set('cookie', cookie)).status).toBe(401);
    // Nobody ends somebody else's.
    expect((await world.as(BEN, 'delete', `/account/sessions/${listed[0]?.id}`)).status).toBe(404);
    await world.do(ANN, 'delete', '/account/sessions');
    expect((await sessions()).map(({ thisOne }) => thisOne)).toEqual([true]);
  });

  it('are extended beside what is read, which never waits for a change', async () => {
    await world.as(ANN, 'get', '/today');
    const before = Date.now() - 2 * HOUR;
    await world.database.write((manager) => manager.update(Session, { personId: 'p-ann' }, { lastSeenAt: before }));
    let end: () => void = () => undefined;
    const held = world.database.write(() => new Promise<void>((resolve) => (end = resolve)));
    expect((await world.as(ANN, 'get', '/today')).status).toBe(200);
    end();
    await held;
    await world.database.write(() => Promise.resolve());
    expect((await world.database.read.findOneByOrFail(Session, { personId: 'p-ann' })).lastSeenAt).toBeGreaterThan(
      before,
    );
  });

  it('that have run out are removed', async () => {
    await world.as(ANN, 'get', '/today');
    await world.database.write((manager) =>
      manager.update(Session, { personId: 'p-ann' }, { lastSeenAt: Date.now() - 15 * 24 * HOUR }),
    );
    await world.app.get(Expiry).remove();
    expect(await world.database.read.countBy(Session, { personId: 'p-ann' })).toBe(0);
  });
});

describe('a new address', () => {
  const change = (email: string, password = OLD) => world.as(ANN, 'put', '/account/address', { email, password });
  const confirm = (token: string) => world.as(null, 'post', `/address-links/${token}`);
  const me = async () => (await world.do<SessionView>(ANN, 'get', '/session')).person?.email;

  it('counts once it is confirmed from both mailboxes, in any order', async () => {
    expect((await change('ann@new.example', 'not it')).body.code).toBe('password-wrong');
    expect((await change('Ann@New.example')).status).toBe(204);
    const [[fromOld = ''], [fromNew = '']] = [
      await linksTo('ann@example.org', 'address'),
      await linksTo('ann@new.example', 'address'),
    ];
    expect((await confirm(fromNew)).body).toEqual({ made: false });
    expect([await me(), (await confirm(fromNew)).status]).toEqual(['ann@example.org', 410]);
    const { newAddress } = await world.do<AccountView>(ANN, 'get', '/account');
    expect(newAddress).toEqual({ email: 'ann@new.example', fromOld: false, fromNew: true });
    expect((await world.as(null, 'get', `/address-links/${fromOld}`)).body).toMatchObject({ which: 'old', last: true });
    expect((await confirm(fromOld)).body).toEqual({ made: true });
    expect(await me()).toBe('ann@new.example');
    // The course lists what it listed.
    const listed = await world.database.read.findOneByOrFail(Enrolment, { personId: 'p-ann' });
    expect(listed.email).toBe('ann@example.org');
  });

  it('that has an account is never taken over, nor told of', async () => {
    expect((await change('ben@example.org')).status).toBe(204);
    expect(await linksTo('ben@example.org', 'address')).toEqual([]);
    const [fromOld = ''] = await linksTo('ann@example.org', 'address');
    expect((await confirm(fromOld)).body).toEqual({ made: false });
    expect(await me()).toBe('ann@example.org');
    await world.do(ANN, 'delete', '/account/address');
    expect((await world.do<AccountView>(ANN, 'get', '/account')).newAddress).toBeNull();
  });
});

describe('tries to sign in', () => {
  it('that come to nothing are counted for account and network together, and cost the database nothing', async () => {
    const before = await world.database.read.count(AuditEntry);
    const tries = await Promise.all([...Array(12)].map((_, index) => signIn('guess@example.org', `try ${index}`)));
    expect(tries.map(({ status }) => status).filter((status) => status === 401)).toHaveLength(10);
    expect(tries.filter(({ status }) => status === 429)).toHaveLength(2);
    expect(await world.database.read.count(AuditEntry)).toBe(before);
    expect((await signIn('ann@example.org', OLD)).status).toBe(204);
  });

  it('from one line of IPv6 count together, and keep nobody out', async () => {
    const from = (address: string) =>
      request(world.app.getHttpServer()).post('/api/session').set('x-salt-circle', '1').set('x-forwarded-for', address);
    world.app.getHttpAdapter().getInstance().set('trust proxy', true);
    const statuses: number[] = [];
    for (let tries = 0; tries < 50; tries += 1)
      statuses.push(
        (await from(`2001:db8:1:2::${tries.toString(16)}`).send({ email: 'ann@example.org', password: 'no' })).status,
      );
    expect(statuses.filter((status) => status === 401)).toHaveLength(10);
    expect((await from('198.51.100.7').send({ email: 'ann@example.org', password: OLD })).status).toBe(204);
    world.app.getHttpAdapter().getInstance().set('trust proxy', false);
  });

  it('by others never keep out a browser that has signed in with the account before', async () => {
    const first = await signIn('ann@example.org', OLD);
    const cookie = (first.headers['set-cookie'] as unknown as string[]).map((one) => one.split(';')[0]).join('; ');
    const known = (password: string) =>
      request(world.app.getHttpServer())
        .post('/api/session')
        .set({ 'x-salt-circle': '1', cookie })
        .send({ email: 'ann@example.org', password });
    for (let tries = 0; tries < 11; tries += 1) await signIn('ann@example.org', 'no');
    expect((await signIn('ann@example.org', OLD)).status).toBe(429);
    expect((await known(OLD)).status).toBe(204);
    // It is no way to guess: its own tries are counted, and it stands for that account alone.
    for (let tries = 0; tries < 10; tries += 1) await known('no');
    expect((await known(OLD)).status).toBe(429);
    const asBen = request(world.app.getHttpServer())
      .post('/api/session')
      .set({ 'x-salt-circle': '1', cookie: cookie.replace(/~./, '~!') });
    expect((await asBen.send({ email: 'ann@example.org', password: OLD })).status).toBe(429);
  });

  it('that are right count for nothing: a whole class signs in from one network', async () => {
    for (let times = 0; times < 15; times += 1) expect((await signIn('ann@example.org', OLD)).status).toBe(204);
  });
});

describe('what lasts longer than a session', () => {
  it('asks for the password again ten minutes after it was given', async () => {
    const make = () => world.as(INES, 'post', '/account/tokens', { name: 'Grades', scope: 'grades', days: 7 });
    expect((await make()).status).toBe(201);
    const { passwordHash } = await world.database.read.findOneByOrFail(Person, { email: 'ann@example.org' });
    await world.database.write((manager) => manager.update(Person, { id: 'p-ines' }, { passwordHash }));
    world.clock.skip(11 * 60_000);
    expect((await make()).body).toMatchObject({ code: 'password-needed' });
    await world.database.write((manager) => manager.update(Person, { id: 'p-ines' }, { runsPlatforms: true }));
    for (const [method, path, body] of [
      ['post', '/platforms/registration', { name: 'North' }],
      ['post', '/platforms/keys', {}],
    ] as const)
      expect((await world.as(INES, method, path, body)).body.code).toBe('password-needed');
    expect((await world.as(INES, 'post', '/session/password', { password: 'no' })).status).toBe(422);
    expect((await make()).status).toBe(403);
    expect((await world.as(INES, 'post', '/session/password', { password: OLD })).status).toBe(204);
    expect((await make()).status).toBe(201);
  });
});
