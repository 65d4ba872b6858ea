import { mkdtempSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ArrivalView, PlatformsView } from '@salt-circle/contracts';
import { readSettings, SettingsError } from '../../../platform/config/settings.js';
import { LtiPlatform } from '../../../model/lti.js';
import { Person } from '../../../model/person.js';
import { LtiWorld } from '../../../testing/lti.js';
import { ANN, INES, TOM } from '../../../testing/people.js';
import { World } from '../../../testing/world.js';
import { addInstructor } from '../../accounts/commands.js';
import { letRunPlatforms, listPlatforms, removePlatform } from './commands.js';

let world: World;
let at: LtiWorld;

beforeAll(async () => {
  world = await World.open();
  at = await LtiWorld.open(world);
  await world.database.write((manager) => manager.update(Person, { id: 'p-ines' }, { runsPlatforms: true }));
});
afterAll(async () => {
  await at.platform.stop();
  await world.close();
});

const list = () => world.do<PlatformsView>(INES, 'get', '/platforms');
const link = async () =>
  (await world.do<{ url: string }>(INES, 'post', '/platforms/registration', { name: 'Northmere, again' })).url;
const register = async (url: string, configuration: string, token = 'none') => {
  const asked = new URLSearchParams({ openid_configuration: configuration, registration_token: token });
  const path = new URL(url).pathname.replace('/api', '');
  return world.as(null, 'get', `${path}?${asked.toString()}`);
};

/** Describes itself as it is told. */
async function describing(claims: (own: string) => object): Promise<{ url: string; server: Server }> {
  let own = '';
  const server = createServer((_, response) => response.end(JSON.stringify(claims(own))));
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  own = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return { url: own, server };
}

describe('platforms', () => {
  it('are connected by a link that works once: the platform registers us, and people come in by it', async () => {
    const url = await link();
    const configuration = `${at.platform.url}/.well-known/openid-configuration`;
    at.platform.store.state.registrations.push('given');
    // With a token that the platform has not given, nothing is registered, and the link can be used again.
    const refused = await register(url, configuration, 'another');
    expect([refused.status, refused.text.includes('No registration has been begun with this token.')]).toEqual([
      422,
      true,
    ]);
    const done = await register(url, configuration, 'given');
    expect([done.status, done.text.includes('Northmere, again is connected')]).toEqual([200, true]);
    expect(done.headers['content-security-policy']).toMatch(/script-src 'nonce-[^']+';.*form-action 'none'/);
    expect((await register(url, configuration, 'given')).status).toBe(422);
    const row = (await list()).platforms.find(({ name }) => name === 'Northmere, again');
    expect(row).toMatchObject({
      issuer: at.platform.url,
      active: true,
      deployments: [{ id: 'northmere-1', allowed: true }],
      pages: [at.platform.url],
    });
    expect(at.platform.store.state.tool?.clientId).toBe(row?.clientId);
    const visitor = at.visitor('u-2001');
    const arrival = await visitor.come();
    const { body } = await visitor.see<ArrivalView>(arrival);
    expect(body.platform).toBe('Northmere, again');
  });

  it.each<[string, RegExp, (own: string) => object]>([
    [
      'is somebody else',
      /names elsewhere\.example/,
      (own) => ({ ...complete(own), issuer: 'https://elsewhere.example' }),
    ],
    ['says too little', /description lacks something/, (own) => ({ ...complete(own), jwks_uri: undefined })],
    ['is no learning platform', /does not support LTI 1.3/, (own) => ({ ...complete(own), [PLATFORM]: undefined })],
    ['says nothing that can be read', /not a JSON object/, () => [] as unknown as object],
    ...(['authorization_endpoint', 'token_endpoint', 'jwks_uri', 'registration_endpoint'] as const).flatMap((field) =>
      ['https://x;sandbox/auth', 'javascript:alert(1)', 'https://a b/', 'https://x,y/', 'https://u:p@x/', '//x'].map(
        (address): [string, RegExp, (own: string) => object] => [
          `names ${address} as its ${field}`,
          /which is not a valid web address/,
          (own) => ({ ...complete(own), [field]: address }),
        ],
      ),
    ),
  ])('are not connected where what describes itself %s', async (_, words, claims) => {
    const { url, server } = await describing(claims);
    const given = await link();
    const { status, text } = await register(given, `${url}/`);
    expect([status, words.test(text) || text]).toEqual([422, true]);
    server.close();
    // Nothing was kept of it, pages are still answered, and the link can be used again.
    expect((await world.as(null, 'get', '/health')).status).toBe(200);
    expect((await register(given, `${url}/gone`)).text).not.toContain('This link to register');
  });

  it('that are kept with an address that no header takes: pages are answered, and the row says what is wrong', async () => {
    const row = { ...{ id: 'odd', name: 'Odd', issuer: 'https://odd.example', clientId: 'c', createdAt: 0 } };
    await world.database.write((manager) =>
      manager.insert(LtiPlatform, {
        ...row,
        ...{ authUrl: 'javascript:alert(1)', tokenUrl: 'https://odd.example/t', keysUrl: 'none' },
        pages: ['https://x;sandbox', 'https://odd.example'],
      }),
    );
    // What is changed has the headers built again, from all rows.
    await world.do(INES, 'post', '/platforms', { ...BY_HAND, clientId: 'beside' });
    const { status, headers } = await world.as(null, 'get', '/lti/keys');
    expect([status, headers['content-security-policy']]).toEqual([200, expect.not.stringContaining('sandbox')]);
    expect(headers['content-security-policy']).toContain('https://odd.example');
    const shown = (await list()).platforms.find(({ id }) => id === 'odd');
    expect(shown?.faults.map(({ sentence }) => sentence)).toEqual([
      expect.stringContaining('javascript:alert(1)'),
      expect.stringContaining('“none”'),
      expect.stringContaining('https://x;sandbox'),
    ]);
    const login = await world.as(null, 'get', `/lti/login?iss=${encodeURIComponent(row.issuer)}&login_hint=h`);
    expect([login.status, login.headers['location']]).toEqual([303, '/arrive/stopped/address-odd']);
    expect(await removePlatform(world.dataFolder, 'odd')).toBe('Odd');
    await expect(removePlatform(world.dataFolder, 'odd')).rejects.toThrow('no platform');
    expect(await world.database.read.countBy(LtiPlatform, { id: 'odd' })).toBe(0);
  });

  it('are seen to by those who have the right, and by nobody else; links end with it', async () => {
    for (const who of [TOM, ANN]) expect((await world.as(who, 'get', '/platforms')).status).toBe(404);
    const url = await link();
    await world.database.write((manager) => manager.update(Person, { id: 'p-ines' }, { runsPlatforms: false }));
    expect((await register(url, `${at.platform.url}/.well-known/openid-configuration`)).status).toBe(422);
    expect((await world.as(INES, 'get', '/platforms')).status).toBe(404);
    await world.database.write((manager) => manager.update(Person, { id: 'p-ines' }, { runsPlatforms: true }));
  });

  it('are entered by hand once, changed, paused, and removed; a part that was seen waits to be allowed', async () => {
    const facts = {
      ...{
        name: 'By hand',
        issuer: 'https://by-hand.example',
        clientId: 'c',
        tokenAudience: '',
        active: true,
        makesCourses: false,
      },
      ...{
        authUrl: 'https://by-hand.example/a',
        tokenUrl: 'https://by-hand.example/t',
        keysUrl: 'https://by-hand.example/k',
      },
      ...{ pages: ['https://by-hand.example/a/page?x'], deployments: ['1', '1'] },
    };
    const { id } = await world.do(INES, 'post', '/platforms', facts);
    expect((await world.as(INES, 'post', '/platforms', facts)).body).toMatchObject({
      fields: [{ path: 'clientId', code: 'there-already' }],
    });
    const shown = (await list()).platforms.find((one) => one.id === id);
    expect(shown).toMatchObject({
      pages: ['https://by-hand.example'],
      tokenAudience: null,
      deployments: [{ id: '1', allowed: true }],
    });
    await world.do(INES, 'put', `/platforms/${id}`, { ...facts, deployments: ['2'], active: false });
    expect((await list()).platforms.find((one) => one.id === id)?.deployments).toEqual([
      { id: '1', allowed: false },
      { id: '2', allowed: true },
    ]);
    // A page may be shown by those that are active alone.
    expect((await world.as(null, 'get', '/lti/keys')).headers['content-security-policy']).not.toContain('by-hand');
    await world.do(INES, 'delete', `/platforms/${id}`);
    expect(await world.database.read.countBy(LtiPlatform, { id })).toBe(0);
    expect((await world.as(INES, 'post', '/platforms', { ...facts, pages: ['no address'] })).status).toBe(422);
  });
});

const BY_HAND = {
  ...{ name: 'Beside', issuer: 'https://beside.example', tokenAudience: '', active: true, makesCourses: false },
  ...{ authUrl: 'https://beside.example/a', tokenUrl: 'https://beside.example/t', keysUrl: 'https://beside.example/k' },
  ...{ pages: [], deployments: [] },
};
const PLATFORM = 'https://purl.imsglobal.org/spec/lti-platform-configuration';
const complete = (own: string) => ({
  ...{ issuer: own, authorization_endpoint: `${own}/a`, token_endpoint: `${own}/t`, jwks_uri: `${own}/k` },
  ...{ registration_endpoint: `${own}/r`, [PLATFORM]: {} },
});

describe('at the keyboard of the server', () => {
  it('somebody is let see to platforms, and platforms are listed', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'salt-circle-'));
    await addInstructor(folder, { name: 'Una', email: 'una@example.org', password: 'three herons stand' });
    expect(await letRunPlatforms(folder, ' Una@example.org ', true)).toBe('Una');
    await expect(letRunPlatforms(folder, 'nobody@example.org', true)).rejects.toThrow('There is no account');
    expect(await listPlatforms(folder)).toEqual([]);
    expect(await listPlatforms(world.dataFolder)).toContainEqual(
      expect.objectContaining({ name: 'Northmere', active: true }),
    );
  });

  it('networks of platforms are ranges; without any, nothing of the own network is asked', () => {
    const secret = 'a secret of some thirty characters';
    const settings = (networks?: string) =>
      readSettings({
        SALT_CIRCLE_SECRET: secret,
        ...(networks !== undefined && { SALT_CIRCLE_PLATFORM_NETWORKS: networks }),
      });
    expect(settings().platformNetworks).toEqual([]);
    expect(settings('10.1.0.0/16, fd00::/8').platformNetworks).toEqual(['10.1.0.0/16', 'fd00::/8']);
    for (const wrong of ['10.1.0.0', 'any', '10.1.0.0/33']) expect(() => settings(wrong)).toThrow(SettingsError);
  });
});
