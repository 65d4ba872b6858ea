import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Settings } from '../config/settings.js';
import { AddressRefused, Networks } from './guarded-lookup.js';
import { Outward, OutwardError } from './outward.js';

const settings = (platformNetworks: readonly string[]) => ({ platformNetworks }) as unknown as Settings;

let server: Server | null = null;
let outward: Outward | null = null;

afterEach(async () => {
  await outward?.onApplicationShutdown();
  server?.closeAllConnections();
  server?.close();
});

/** @returns where it listens, by a name that leads to this machine */
async function listening(answer: RequestListener): Promise<string> {
  server = createServer(answer);
  await new Promise<void>((done) => server?.listen(0, '127.0.0.1', done));
  return `http://localhost:${(server.address() as AddressInfo).port}`;
}

const faultOf = (asked: Promise<unknown>) =>
  asked.then(
    () => 'answered',
    (error: unknown) => (error instanceof OutwardError ? error.fault : error),
  );

describe('asking systems outside', () => {
  // Ranges of the registries of special-purpose addresses (RFC 6890 and what came after it).
  it.each([
    ['93.184.216.34', 'open'],
    ['2606:2800:220:1:248:1893:25c8:1946', 'open'],
    ...[
      '127.0.0.1',
      '10.1.2.3',
      '172.16.0.1',
      '192.168.0.1',
      '169.254.169.254',
      '100.64.0.1',
      '0.0.0.0',
      '224.0.0.1',
      '255.255.255.255',
      '192.0.2.1',
      '198.18.0.1',
    ].map((one) => [one, 'closed']),
    ...[
      '::1',
      '::',
      'fe80::1',
      'fd12::1',
      '::ffff:127.0.0.1',
      '::ffff:10.0.0.1',
      '64:ff9b::7f00:1',
      '2002:7f00:1::',
      'ff02::1',
      '2001:db8::1',
    ].map((one) => [one, 'closed']),
    ['10.20.0.9', 'allowed'],
    ['::ffff:10.20.0.9', 'allowed'],
    ['10.21.0.9', 'closed'],
  ])('of %s is %s', (address, standing) => {
    expect(new Networks(['10.20.0.0/16']).standing(address)).toBe(standing);
  });

  it('looks at where a name leads in the lookup that is used', async () => {
    const found = (ranges: readonly string[]) =>
      new Promise((done) =>
        new Networks(ranges).lookup('localhost', { all: true }, (error, addresses) => done(error ?? addresses)),
      );
    expect(await found([])).toBeInstanceOf(AddressRefused);
    expect(await found(['127.0.0.0/8'])).toEqual([{ address: '127.0.0.1', family: 4 }]);
  });

  it('goes where it may, and takes an answer', async () => {
    const url = await listening((request, response) =>
      response.end(`${request.method} ${String(request.headers['x-a'])}`),
    );
    outward = new Outward(settings(['127.0.0.0/8']));
    expect(await outward.ask(`${url}/x`, { method: 'POST', headers: { 'x-a': 'b' }, body: '1' })).toMatchObject({
      status: 200,
      text: 'POST b',
    });
  });

  it.each<[string, string, RequestListener]>([
    ['is sent elsewhere', 'moved', (_, response) => response.writeHead(302, { location: 'http://127.0.0.1/' }).end()],
    ['gets more than anybody has to say', 'large', (_, response) => response.end('x'.repeat(6_000_000))],
    ['is hung up on', 'none', (request) => request.socket.destroy()],
  ])('ends where it %s', async (_, fault, answer) => {
    const url = await listening(answer);
    outward = new Outward(settings(['127.0.0.0/8']));
    expect(await faultOf(outward.ask(url))).toBe(fault);
  });

  it('is not done in a network that nobody has allowed, by no way of writing it', async () => {
    let reached = 0;
    const url = await listening((_, response) => {
      reached += 1;
      response.end();
    });
    const { port } = new URL(url);
    outward = new Outward(settings([]));
    for (const host of [
      'localhost',
      '127.0.0.1',
      '127.1',
      '2130706433',
      '0x7f000001',
      '0177.0.0.1',
      '[::1]',
      '[::ffff:127.0.0.1]',
      'localhost.',
    ])
      for (const scheme of ['http', 'https']) {
        const fault = await faultOf(outward.ask(`${scheme}://${host}:${port}/`));
        expect([scheme, host, fault === 'closed' || fault === 'none']).toEqual([scheme, host, true]);
      }
    expect(reached).toBe(0);
  });
});
