import { createHmac, createPublicKey, generateKeyPairSync } from 'node:crypto';
import type { ArrivalView, CoursePlatformView, SessionView } from '@salt-circle/contracts';
import { signed, type Member } from '@salt-circle/stand-in-platform';
import jwt from 'jsonwebtoken';
import { LtiPlatform, LtiCourse, LtiPerson } from '../../../model/lti.js';
import { Course, Enrolment } from '../../../model/course.js';
import { Mail } from '../../../model/mail.js';
import { Person, Session } from '../../../model/person.js';
import { AuditEntry } from '../../../model/audit-entry.js';
import { LtiWorld, fieldsIn, type Visitor } from '../../../testing/lti.js';
import { ANN, INES } from '../../../testing/people.js';
import { World } from '../../../testing/world.js';
import { hashPassword } from '../../../platform/security/passwords.js';

const ODILE = 'u-1001';
const ANOUK = 'u-2001';
const MONA = 'u-3001';

let world: World;
let at: LtiWorld;

const begin = async () => {
  world = await World.open();
  at = await LtiWorld.open(world);
};
const end = async () => {
  await at.platform.stop();
  await world.close();
};

const faultsOnRecord = async () =>
  (await world.database.read.findBy(AuditEntry, { action: 'platform-refused' })).map(({ details }) => details['fault']);

/** An instructor of the platform who makes a course of it here. */
async function makeCourse(): Promise<{ odile: Visitor; courseId: string }> {
  const odile = at.visitor(ODILE);
  const arrival = await odile.come();
  await odile.say(arrival, 'begin');
  const { body } = await odile.say<ArrivalView>(arrival, 'course', {
    courseId: null,
    title: 'Reading Rivers',
    timeZone: 'Europe/Oslo',
  });
  const course = await world.database.read.findOneByOrFail(Course, { title: 'Reading Rivers' });
  expect(body).toMatchObject({ step: 'go', go: `/courses/${course.id}` });
  return { odile, courseId: course.id };
}

describe('coming from a platform', () => {
  beforeEach(begin);
  afterEach(end);

  it('an instructor makes the course, a student arrives in it, and the next time nobody is asked anything', async () => {
    const { odile, courseId } = await makeCourse();
    expect(await odile.ask('get', '/session')).toMatchObject({ body: { person: { name: 'Odile Brandt' } } });
    expect((await odile.ask<CoursePlatformView>('get', `/courses/${courseId}/platform`)).body.platform).toMatchObject({
      ...{ name: 'Northmere', title: 'Reading Rivers', givesPeople: true, takesGrades: true },
    });
    const anouk = at.visitor(ANOUK);
    const arrival = await anouk.come();
    expect((await anouk.see<ArrivalView>(arrival)).body).toMatchObject({
      ...{ platform: 'Northmere', name: 'Anouk Vermeer', course: 'Reading Rivers', role: 'student', step: 'who' },
    });
    expect((await anouk.say<ArrivalView>(arrival, 'begin')).body).toMatchObject({ step: 'go', go: '/' });
    const place = await world.database.read.findOneByOrFail(Enrolment, { courseId, ltiUser: ANOUK });
    expect(place).toMatchObject({
      name: 'Anouk Vermeer',
      role: 'student',
      campusId: 'N71001',
      source: 'platform',
      active: true,
    });
    expect(await at.visitor(ODILE).come()).toBe(`/courses/${courseId}`);
    expect(await at.visitor(ANOUK).come()).toBe('/');
    expect(await world.database.read.countBy(Enrolment, { courseId })).toBe(2);
    // Nobody of another course sees it.
    expect((await world.as(ANN, 'get', `/courses/${courseId}/platform`)).status).toBe(404);
    expect((await anouk.ask('get', `/courses/${courseId}/people`)).status).toBe(403);
  });

  it('a student whose course nobody has set up is told so, and so is who has no place in it', async () => {
    const anouk = at.visitor(ANOUK);
    const arrival = await anouk.come();
    const { body } = await anouk.see<ArrivalView>(arrival);
    expect([body.step, body.stop?.code]).toEqual(['stop', 'not-linked']);
    await makeCourse();
    const mona = at.visitor(MONA);
    const there = await mona.come();
    const stopped = await mona.see<ArrivalView>(there);
    expect(stopped.body.stop?.code).toBe('no-role');
    expect((await mona.say(there, 'begin')).status).toBe(422);
    expect(await world.database.read.count(LtiPerson)).toBe(1);
  });

  it('an instructor links an own course; a place with the same address is given only to who reads its mail', async () => {
    // The roster of the course has somebody with Anouk's address, whose place nobody has taken.
    const email = 'anouk.vermeer@northmere.example';
    await world.do(INES, 'post', '/courses/course/people', {
      ...{ name: 'A. Vermeer', email, role: 'student', campusId: null, section: null, invite: false },
    });
    await world.database.write(async (manager) => {
      await manager.update(Person, { id: 'p-ines' }, { passwordHash: await hashPassword('seven herons stand') });
    });
    const odile = at.visitor(ODILE);
    const arrival = await odile.come();
    const account = { email: 'ines@example.org', password: 'seven herons stand' };
    expect((await odile.say(arrival, 'account', { ...account, password: 'seven herons sit' })).status).toBe(401);
    const said = await odile.say<ArrivalView>(arrival, 'account', account);
    expect([said.body.step, said.body.courses]).toEqual(['course', [{ id: 'course', title: 'Coastal Restoration' }]]);
    // Not a course of somebody else's.
    expect((await odile.say(arrival, 'course', { courseId: 'elsewhere', title: 'x', timeZone: 'UTC' })).status).toBe(
      404,
    );
    const linked = await odile.say<ArrivalView>(arrival, 'course', { courseId: 'course', title: 'x', timeZone: 'UTC' });
    expect(linked.body.go).toBe('/courses/course');
    const anouk = at.visitor(ANOUK);
    const there = await anouk.come();
    expect((await anouk.see<ArrivalView>(there)).body).toMatchObject({
      ...{
        step: 'prove',
        prove: { name: 'A. Vermeer', hint: 'a…@northmere.example', taken: false, byPassword: true },
      },
    });
    // Not by going on, nor by an account of another address.
    expect((await anouk.say(there, 'begin')).status).toBe(422);
    expect((await anouk.say(there, 'account', account)).status).toBe(422);
    expect((await anouk.say(there, 'mail', { email: null })).status).toBe(204);
    const { secret, address } = await world.database.read.findOneByOrFail(Mail, {
      subject: 'Is it you who comes from Northmere?',
    });
    expect(address).toBe(email);
    const token = /platform-proof\/(.+)$/.exec(secret ?? '')?.[1] ?? '';
    expect((await world.as(null, 'post', `/lti/proofs/${token}`)).status).toBe(204);
    expect((await world.as(null, 'post', `/lti/proofs/${token}`)).status).toBe(410);
    const after = await anouk.see<ArrivalView>(there);
    expect(after.body).toMatchObject({ step: 'go', go: '/' });
    expect((await anouk.ask<SessionView>('get', '/session')).body.person?.name).toBe('A. Vermeer');
    expect(await world.database.read.countBy(Enrolment, { courseId: 'course', email })).toBe(1);
  });

  it('somebody with an account ties it by a link to its address; for an address without one, the answer is the same', async () => {
    await world.do(INES, 'post', '/courses/course/people', {
      ...{
        name: 'Nobody yet',
        email: 'later@example.org',
        role: 'student',
        campusId: null,
        section: null,
        invite: false,
      },
    });
    const odile = at.visitor(ODILE);
    const arrival = await odile.come();
    for (const email of ['nobody@example.org', 'later@example.org', 'Ines@example.org '])
      expect((await odile.say(arrival, 'mail', { email })).status).toBe(204);
    const mails = await world.database.read.findBy(Mail, { subject: 'Is it you who comes from Northmere?' });
    expect(mails.map(({ address }) => address)).toEqual(['ines@example.org']);
    const token = /platform-proof\/(.+)$/.exec(mails[0]?.secret ?? '')?.[1] ?? '';
    expect((await world.as(null, 'get', `/lti/proofs/${token}`)).body).toEqual({
      platform: 'Northmere',
      name: 'Ines Marchetti',
    });
    expect((await world.as(null, 'post', `/lti/proofs/${token}`)).status).toBe(204);
    const { body } = await odile.see<ArrivalView>(arrival);
    expect([body.step, body.courses.map(({ id }) => id)]).toEqual(['course', ['course']]);
    expect(await world.database.read.countBy(LtiPerson, { user: ODILE, personId: 'p-ines' })).toBe(1);
  });

  it('keeps the role that the course gives, and says when the platform gives another one; who was dropped stays out', async () => {
    const { courseId } = await makeCourse();
    const anouk = at.visitor(ANOUK);
    await anouk.say(await anouk.come(), 'begin');
    const people = at.platform.store.state.people as Array<Member & { roles: string[] }>;
    (people.find(({ id }) => id === ANOUK) as { roles: string[] }).roles = ['Instructor'];
    const arrival = await anouk.come();
    const { body } = await anouk.see<ArrivalView>(arrival);
    expect([body.step, body.role, body.courseRole]).toEqual(['role', 'instructor', 'student']);
    expect((await anouk.say<ArrivalView>(arrival, 'role')).body.go).toBe('/');
    expect(await world.database.read.findOneByOrFail(Enrolment, { courseId, ltiUser: ANOUK })).toMatchObject({
      role: 'student',
    });
    await world.database.write((manager) => manager.update(Enrolment, { courseId, ltiUser: ANOUK }, { active: false }));
    const again = await anouk.come();
    expect((await anouk.see<ArrivalView>(again)).body.stop?.code).toBe('dropped');
  });

  it('a platform that was connected by earlier addresses goes on using them', async () => {
    const { state } = at.platform.store;
    const tool = state.tool as NonNullable<typeof state.tool>;
    const earlier = (url: string) => url.replace('/api/lti/', '/api/campus/');
    state.tool = { ...tool, loginUrl: earlier(tool.loginUrl), launchUrl: earlier(tool.launchUrl) };
    const odile = at.visitor(ODILE);
    const form = await odile.press();
    expect((await odile.go('/api/campus/launch', { form })).to).toMatch(/^\/arrive\//);
    expect((await odile.go('/api/campus/keys')).status).toBe(200);
  });

  it('a link is chosen for an exchange, with a column; it opens that exchange, and says when it is gone', async () => {
    const { odile, courseId } = await makeCourse();
    const { body: made } = await odile.ask<{ id: string }>('post', `/courses/${courseId}/exchanges`, {
      title: 'First drafts',
    });
    const arrival = await odile.come('/choose');
    const asked = await odile.see<ArrivalView>(arrival);
    expect(asked.body).toMatchObject({
      step: 'choose',
      acceptsColumn: true,
      exchanges: [{ id: made.id, title: 'First drafts' }],
    });
    expect((await odile.say(arrival, 'choice', { exchangeId: 'another', column: true })).status).toBe(404);
    const { body } = await odile.say<ArrivalView>(arrival, 'choice', { exchangeId: made.id, column: true });
    const back = await odile.go(body.go ?? '');
    expect([back.status, back.text.includes(`action="${at.platform.url}/chosen"`)]).toEqual([200, true]);
    // Signed by us: read by another package, with the keys that we publish, and taken by the platform.
    const token = fieldsIn(back.text)['JWT'] ?? '';
    const { keys } = (await world.as(null, 'get', '/lti/keys')).body as { keys: Array<{ kid: string }> };
    const key = keys.find(({ kid }) => kid === jwt.decode(token, { complete: true })?.header.kid);
    expect(
      jwt.verify(token, createPublicKey({ key: key as never, format: 'jwk' }), {
        algorithms: ['RS256'],
        audience: at.platform.url,
        issuer: 'client-1',
      }),
    ).toMatchObject({
      'https://purl.imsglobal.org/spec/lti/claim/message_type': 'LtiDeepLinkingResponse',
      'https://purl.imsglobal.org/spec/lti/claim/deployment_id': 'd-1',
      'https://purl.imsglobal.org/spec/lti-dl/claim/data': 'place-3',
    });
    expect((await odile.go(`${at.platform.url}/chosen`, { form: { JWT: token } })).status).toBe(303);
    const [, link] = at.platform.store.state.links;
    expect(link).toMatchObject({ title: 'First drafts', custom: { exchange: made.id } });
    expect(await odile.come(`/open/${link?.id}`)).toBe(`/exchanges/${made.id}`);
    // Not published: not for students.
    const anouk = at.visitor(ANOUK);
    const there = await anouk.come(`/open/${link?.id}`);
    expect((await anouk.say<ArrivalView>(there, 'begin')).body.stop?.code).toBe('exchange-gone');
    at.platform.store.state.links.push({
      id: 'old',
      title: 'Of old',
      custom: { exchange: 'long-gone' },
      columnId: null,
    });
    const gone = await odile.come('/open/old');
    expect((await odile.see<ArrivalView>(gone)).body.stop?.code).toBe('exchange-gone');
  });

  it('inside a page of the platform, only registered ones may show us; without cookies, one press opens a window', async () => {
    const { body, headers } = await world.as(null, 'get', '/lti/keys');
    expect(body).toMatchObject({ keys: [{ kty: 'RSA', alg: 'RS256', use: 'sig' }] });
    expect(JSON.stringify(body)).not.toMatch(/"[dpq]"/);
    expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
    await world.database.write((manager) => manager.update(Person, { id: 'p-ines' }, { runsPlatforms: true }));
    const [row] = (
      await world.do<{ platforms: Array<LtiPlatform & { deployments: Array<{ id: string }> }> }>(
        INES,
        'get',
        '/platforms',
      )
    ).platforms;
    const { name = '', issuer = '', clientId = '', authUrl = '', tokenUrl = '', keysUrl = '' } = row ?? {};
    const facts = {
      name,
      issuer,
      clientId,
      authUrl,
      tokenUrl,
      keysUrl,
      tokenAudience: null,
      active: true,
      makesCourses: true,
    };
    await world.do(INES, 'put', '/platforms/northmere', {
      ...facts,
      pages: [`${at.platform.url}/some/page`],
      deployments: ['d-1'],
    });
    const policy = (await world.as(null, 'get', '/lti/keys')).headers['content-security-policy'];
    expect(policy).toMatch(new RegExp(`frame-ancestors ${at.platform.url}(;|$)`));
    const anouk = at.visitor(ANOUK);
    const form = await anouk.press();
    anouk.cookies.get(at.ours)?.delete('salt_circle_arriving');
    const { to } = await anouk.go('/api/lti/launch', { form, inside: true });
    expect(to).toContain('/lti-window?');
    // In a window of its own it begins again, with what the platform said.
    const again = new URL(to, at.ours).searchParams;
    expect([again.get('iss'), again.get('login_hint'), again.get('lti_message_hint')]).toEqual([
      at.platform.url,
      ANOUK,
      'link-1',
    ]);
    const sent = await anouk.go(`/api/lti/login?${again.toString()}`);
    const came = fieldsIn((await anouk.go(sent.to)).text);
    expect((await anouk.go('/api/lti/launch', { form: came })).to).toMatch(/^\/arrive\/[^/]+$/);
  });
});

describe('over TLS', () => {
  afterEach(end);

  it('a session that begins inside of a page is kept for that page alone; in a window it is as ever', async () => {
    world = await World.open({ secure: true });
    at = await LtiWorld.open(world);
    const anouk = at.visitor(ANOUK);
    await makeCourse();
    await anouk.say(await anouk.come(), 'begin');
    const cookiesOf = async (inside: boolean) => {
      const form = await anouk.press();
      const { cookies } = await anouk.go('/api/lti/launch', { form, inside });
      return cookies.filter((one) => one.startsWith('__Host-salt_circle=')).map((one) => one.replace(/=[^;]+/, ''));
    };
    const inside = await cookiesOf(true);
    expect(inside).toHaveLength(1);
    for (const part of ['HttpOnly', 'Secure', 'SameSite=None', 'Partitioned']) expect(inside[0]).toContain(part);
    const [window] = await cookiesOf(false);
    expect(window).toContain('SameSite=Lax');
    expect(window).not.toContain('Partitioned');
  });
});

describe('what a platform says is believed only if', () => {
  beforeAll(begin);
  afterAll(end);

  /** Comes with a statement of which something has been changed, signed as it says. */
  const comeWith = async (change: (claims: Record<string, unknown>) => string): Promise<string> => {
    const visitor = at.visitor(ANOUK);
    const { state = '', id_token: token = '' } = await visitor.press();
    const claims = jwt.decode(token) as Record<string, unknown>;
    const { to } = await visitor.go('/api/lti/launch', { form: { state, id_token: change(claims) } });
    return to.replace('/arrive/stopped/', '');
  };
  const bySigning = (claims: Record<string, unknown>) => signed(at.platform.store, claims);
  const now = Math.floor(Date.now() / 1000);
  const deployment = 'https://purl.imsglobal.org/spec/lti/claim/deployment_id';

  it.each<[string, string, (claims: Record<string, unknown>) => string]>([
    ['it names the platform', 'issuer', (claims) => bySigning({ ...claims, iss: 'https://elsewhere.example' })],
    ['it is for us', 'audience', (claims) => bySigning({ ...claims, aud: 'client-2' })],
    [
      'of several audiences, it was made for us',
      'audience',
      (claims) => bySigning({ ...claims, aud: ['client-1', 'client-2'] }),
    ],
    ['it has not run out', 'expired', (claims) => bySigning({ ...claims, iat: now - 500, exp: now - 200 })],
    ['it was made lately', 'too-old', (claims) => bySigning({ ...claims, iat: now - 3_000, exp: now + 300 })],
    [
      'its clock is not ten minutes ahead',
      'too-early',
      (claims) => bySigning({ ...claims, iat: now + 600, exp: now + 900 }),
    ],
    ['it has an end', 'token-odd', ({ exp: _, ...claims }) => bySigning(claims)],
    ['it belongs to this way in', 'nonce', (claims) => bySigning({ ...claims, nonce: 'of another' })],
    ['it has a nonce at all', 'nonce', ({ nonce: _, ...claims }) => bySigning(claims)],
    ['its part of the platform is allowed', 'deployment', (claims) => bySigning({ ...claims, [deployment]: 'd-2' })],
    ['it speaks of somebody', 'anonymous', ({ sub: _, ...claims }) => bySigning(claims)],
    ['it is a statement', 'token-odd', () => 'a.b.c'],
    ['it is there', 'no-token', () => ''],
    // RFC 8725, section 2.1: no algorithm; a public key taken for a secret; another one than is used here.
    ['it is signed at all', 'signature', (claims) => jwt.sign(claims, '', { algorithm: 'none' })],
    [
      'its public key is not taken for a secret',
      'signature',
      (claims) => {
        const { id, pem } = at.platform.store.state.key;
        const key = createPublicKey(pem).export({ type: 'spki', format: 'pem' });
        const parts = [{ alg: 'HS256', kid: id }, claims].map((one) =>
          Buffer.from(JSON.stringify(one)).toString('base64url'),
        );
        return [...parts, createHmac('sha256', key).update(parts.join('.')).digest('base64url')].join('.');
      },
    ],
    [
      'the algorithm is ours',
      'signature',
      (claims) =>
        jwt.sign(claims, at.platform.store.state.key.pem, {
          algorithm: 'PS256',
          keyid: at.platform.store.state.key.id,
        }),
    ],
    [
      'the platform publishes the key',
      'key-unknown',
      (claims) => jwt.sign(claims, at.platform.store.state.key.pem, { algorithm: 'RS256', keyid: 'unheard-of' }),
    ],
    [
      'the key is the platform’s',
      'signature',
      (claims) =>
        jwt.sign(
          claims,
          generateKeyPairSync('rsa', { modulusLength: 2048 }).privateKey.export({ type: 'pkcs8', format: 'pem' }),
          { algorithm: 'RS256', keyid: at.platform.store.state.key.id },
        ),
    ],
    // RFC 8725, section 2.5 and 3.10: keys and addresses in the head are not followed.
    [
      'it brings no key of its own',
      'signature',
      (claims) => {
        const { privateKey, publicKey } = generateKeyPairSync('rsa', { modulusLength: 2048 });
        const header = {
          jwk: publicKey.export({ format: 'jwk' }),
          jku: `${at.ours}/api/lti/keys`,
          kid: at.platform.store.state.key.id,
          alg: 'RS256',
        } as never;
        return jwt.sign(claims, privateKey.export({ type: 'pkcs8', format: 'pem' }), { algorithm: 'RS256', header });
      },
    ],
  ])('%s', async (_, fault, change) => {
    const before = await world.database.read.count(Session);
    expect(await comeWith(change)).toBe(fault);
    expect((await faultsOnRecord()).at(-1)).toBe(fault);
    const { body } = await world.as(null, 'get', `/lti/faults/${fault}`);
    expect((body as { sentence: string }).sentence).toMatch(/\.$/);
    const { arrivalFault } = await world.database.read.findOneByOrFail(LtiPlatform, { id: 'northmere' });
    expect(arrivalFault === fault).toBe(fault !== 'nonce');
    expect([await world.database.read.count(Session), await world.database.read.count(LtiPerson)]).toEqual([before, 0]);
  });

  it('it comes once, in the browser that was sent, within ten minutes, from a platform that is known and not paused', async () => {
    const anouk = at.visitor(ANOUK);
    const form = await anouk.press();
    // Somebody else's browser, which an attacker has sent: that one is asked to begin by itself.
    const other = at.visitor('u-2002');
    await other.press();
    expect((await other.go('/api/lti/launch', { form })).to).toContain('/lti-window?');
    expect((await anouk.go('/api/lti/launch', { form })).to).toMatch(/^\/arrive\/[^/]+$/);
    expect((await anouk.go('/api/lti/launch', { form })).to).toBe('/arrive/stopped/state');
    expect((await anouk.go('/api/lti/launch', { form: { id_token: form['id_token'] ?? '' } })).to).toBe(
      '/arrive/stopped/state',
    );
    expect((await anouk.go('/api/lti/launch', { form: { ...form, state: 'made up' } })).to).toBe(
      '/arrive/stopped/state',
    );
    // Another person of the platform than was announced: the platform itself says no.
    anouk.cookies.get(at.platform.url)?.set('stand_in', 'u-2002');
    const begun = await anouk.go(
      `/api/lti/login?iss=${encodeURIComponent(at.platform.url)}&login_hint=${ANOUK}&lti_message_hint=link-1`,
    );
    const said = fieldsIn((await anouk.go(begun.to)).text);
    expect((await anouk.go('/api/lti/launch', { form: said })).to).toBe('/arrive/stopped/said-no');
    expect((await anouk.go('/api/lti/login?iss=https://unknown.example&login_hint=1')).to).toBe(
      '/arrive/stopped/platform-unknown',
    );
    expect((await anouk.go('/api/lti/login')).to).toBe('/arrive/stopped/asked-wrong');
    await world.database.write((manager) => manager.update(LtiPlatform, { id: 'northmere' }, { active: false }));
    expect((await anouk.go(`/api/lti/login?iss=${at.platform.url}&login_hint=1`)).to).toBe(
      '/arrive/stopped/platform-paused',
    );
    await world.database.write((manager) => manager.update(LtiPlatform, { id: 'northmere' }, { active: true }));
  });

  it('two platforms with the same ids of people are two people', async () => {
    const { courseId } = await makeCourse();
    const southmere = await LtiWorld.open(world, { id: 'southmere', name: 'Southmere' });
    const twin = southmere.visitor(ODILE);
    const arrival = await twin.come();
    const { body } = await twin.see<ArrivalView>(arrival);
    expect([body.platform, body.step]).toEqual(['Southmere', 'who']);
    await twin.say(arrival, 'begin');
    expect((await twin.ask('get', `/courses/${courseId}`)).status).toBe(401);
    await southmere.platform.stop();
    expect(await world.database.read.countBy(LtiPerson, { user: ODILE })).toBe(2);
  });

  it('the address of an arrival alone opens nothing', async () => {
    await world.database.write((manager) => manager.delete(LtiCourse, { platformId: 'northmere' }));
    await world.database.write((manager) => manager.delete(LtiPerson, { platformId: 'northmere' }));
    await world.database.write((manager) =>
      manager.update(Course, { title: 'Reading Rivers' }, { title: 'Of before' }),
    );
    await makeCourse();
    const anouk = at.visitor(ANOUK);
    const arrival = await anouk.come();
    const thief = at.visitor('u-2002');
    await thief.press();
    expect((await thief.say(arrival, 'begin')).status).toBe(422);
    expect((await world.as(null, 'post', `/lti${arrival.replace('/arrive', '/arrivals')}/begin`)).status).toBe(422);
    expect((await anouk.say<ArrivalView>(arrival, 'begin')).body.step).toBe('go');
  });
});
