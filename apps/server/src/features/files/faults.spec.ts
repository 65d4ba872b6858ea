import { spawn, type ChildProcess } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { join } from 'node:path';
import type { HandInCheck, MyDraftView, PartView, VersionMeta } from '@salt-circle/contracts';
import { attach, exchangeOfFiles, sample } from '../../testing/uploads.js';
import { ANN } from '../../testing/people.js';
import { DATES, DAY } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { FileStore } from '../../platform/files/file-store.js';
import { FileWorkers } from '../../platform/files/file-workers.js';
import { WorkStopped } from '../../platform/jobs/threads.js';

describe('a reader that does not come back', () => {
  const STUCK = join(import.meta.dirname, '../../testing/stuck-worker.mjs');
  const workers = new FileWorkers({ inspect: 400, convert: 20_000, memory: 32 }, STUCK);
  afterAll(() => workers.onApplicationShutdown());

  it('is ended after its time, and the next file is looked at', async () => {
    let ticks = 0;
    const ticking = setInterval(() => (ticks += 1), 20);
    await expect(workers.inspect({ path: 'endless', name: '' })).rejects.toThrow(WorkStopped);
    clearInterval(ticking);
    // Meanwhile the server went on.
    expect(ticks).toBeGreaterThan(5);
    expect(await workers.inspect({ path: 'good', name: '' })).toEqual({ done: 'looked at' });
  });

  it('is ended when it takes too much memory', async () => {
    await expect(workers.convert({ path: '', mime: '', folder: '' }, () => {})).rejects.toThrow(WorkStopped);
    expect(await workers.inspect({ path: 'good', name: '' })).toEqual({ done: 'looked at' });
  });

  it('that breaks is a fault of ours, not a refusal', async () => {
    await expect(workers.inspect({ path: 'crash', name: '' })).rejects.toThrow('a fault in a reader');
  });
});

describe('a full disk', () => {
  it('takes no file, changes no draft, and says so', async () => {
    const world = await World.open();
    const id = await exchangeOfFiles(world);
    const sending = { exchangeId: id, deliverableId: 'files', name: 'a.png', bytes: sample('picture.png') };
    const full = Object.assign(new Error('no space left on device'), { code: 'ENOSPC' });
    const adopt = jest.spyOn(FileStore.prototype, 'adopt').mockRejectedValueOnce(full);
    const { status, body } = await attach(world, ANN, sending);
    adopt.mockRestore();
    expect([status, body.code]).toEqual([507, 'store-full']);
    expect(body.sentence).toContain('Everything else is as it was.');
    expect((await world.do<MyDraftView>(ANN, 'get', `/exchanges/${id}/draft`)).parts).toEqual([]);
    expect((await attach(world, ANN, sending)).status).toBe(201);
    await world.close();
  });
});

/** The compiled server in a process of its own, so that it can be killed. */
class Killable {
  #process: ChildProcess | null = null;
  #requests = 0;
  #last = () => {};

  private constructor(
    private readonly world: World,
    private readonly cookie: string,
    readonly port: number,
  ) {}

  static async prepare(world: World): Promise<Killable> {
    const cookie = await world.cookieOf(ANN);
    await world.app.close();
    const probe = createServer();
    const port = await new Promise<number>((done) => {
      probe.listen(0, '127.0.0.1', () => done((probe.address() as AddressInfo).port));
    });
    await new Promise((done) => probe.close(done));
    return new Killable(world, cookie, port);
  }

  async start(): Promise<void> {
    const child = spawn(process.execPath, [join(import.meta.dirname, '../../../dist/main.js')], {
      env: {
        PATH: process.env['PATH'],
        SALT_CIRCLE_MODE: 'test',
        SALT_CIRCLE_DATA: this.world.dataFolder,
        SALT_CIRCLE_SECRET: 'only for tests, and long enough for them',
        SALT_CIRCLE_LOG: 'off',
        PORT: String(this.port),
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.#process = child;
    await new Promise<void>((done, fail) => {
      child.stdout?.once('data', () => done());
      child.once('exit', (code) => fail(new Error(`the server ended with ${code}`)));
    });
  }

  async kill(): Promise<void> {
    const child = this.#process;
    if (child === null) return;
    child.removeAllListeners('exit');
    const gone = new Promise((done) => child.once('exit', done));
    child.kill('SIGKILL');
    await gone;
    this.#process = null;
  }

  /** Kills the server so many milliseconds after so many more requests. */
  killAfter(requests: number, delay: number): Promise<void> {
    this.#requests = requests;
    return new Promise((done, fail) => {
      this.#last = () => setTimeout(() => void this.kill().then(done, fail), delay);
    });
  }

  fetch(path: string, options: RequestInit = {}): Promise<Response> {
    this.#requests -= 1;
    if (this.#requests === 0) this.#last();
    return fetch(`http://127.0.0.1:${this.port}/api${path}`, {
      ...options,
      headers: { 'x-salt-circle': '1', cookie: this.cookie, ...(options.headers as Record<string, string>) },
    });
  }

  async json<T>(path: string, method = 'GET', body?: object): Promise<T> {
    const response = await this.fetch(path, {
      method,
      headers: { 'content-type': 'application/json' },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
    if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
    return (await response.json()) as T;
  }
}

const base64 = (text: string) => Buffer.from(text).toString('base64');

describe('a server that is killed in the middle', () => {
  /** What the server has said yes to, up to the moment it was killed. */
  interface Confirmed {
    readonly parts: Set<string>;
    readonly versions: Set<number>;
  }

  const ROUNDS = 8;

  async function work(server: Killable, id: string, confirmed: Confirmed): Promise<never> {
    for (let count = 0; ; count += 1) {
      const bytes = Buffer.from(`${count} ${randomBytes(60_000).toString('base64')}`);
      const name = `${count}.txt`;
      const pairs = { exchange: id, deliverable: 'files', name, use: 'part' };
      const metadata = Object.entries(pairs).map(([key, value]) => `${key} ${base64(value)}`);
      const headers = {
        'tus-resumable': '1.0.0',
        'upload-length': String(bytes.length),
        'upload-metadata': metadata.join(','),
      };
      const begun = await server.fetch('/uploads', { method: 'POST', headers });
      const uploadId = begun.headers.get('location')?.split('/').at(-1) ?? '';
      for (let at = 0; at < bytes.length; at += 20_000) {
        await server.fetch(`/uploads/${uploadId}`, {
          method: 'PATCH',
          headers: {
            'tus-resumable': '1.0.0',
            'upload-offset': String(at),
            'content-type': 'application/offset+octet-stream',
          },
          body: bytes.subarray(at, at + 20_000),
        });
      }
      const part = await server.json<PartView>(`/exchanges/${id}/draft/files`, 'POST', { uploadId });
      confirmed.parts.add(part.digest as string);
      const { fingerprint } = await server.json<HandInCheck>(`/exchanges/${id}/draft/check`);
      const version = await server.json<VersionMeta>(`/exchanges/${id}/draft/hand-in`, 'POST', {
        fingerprint,
        namesSeen: true,
      });
      confirmed.versions.add(version.number);
      await server.fetch(`/exchanges/${id}/draft/parts/${part.id}`, { method: 'DELETE' });
    }
  }

  async function lookAround(
    server: Killable,
    id: string,
    confirmed: Confirmed,
    store: (digest: string) => string,
  ): Promise<void> {
    const draft = await server.json<MyDraftView>(`/exchanges/${id}/draft`);
    const numbers = draft.versions.map(({ number }) => number);
    // In a row from 1, and all that was confirmed among them.
    expect(numbers).toEqual(numbers.map((_, index) => index + 1));
    expect(numbers).toEqual(expect.arrayContaining([...confirmed.versions]));
    for (const { parts } of draft.versions) {
      expect(parts.map(({ what }) => what.split(':')[0])).toEqual(['Report', 'Files']);
      const file = parts[1]?.digest as string;
      expect(
        createHash('sha256')
          .update(readFileSync(store(file)))
          .digest('hex'),
      ).toBe(file);
    }
    // What was added is there as a whole, and can be taken away.
    for (const part of draft.parts) {
      expect(existsSync(store(part.digest as string))).toBe(true);
      await server.fetch(`/exchanges/${id}/draft/parts/${part.id}`, { method: 'DELETE' });
    }
  }

  it('loses no hand-in, has none half, and counts none twice, whenever it is killed', async () => {
    const world = await World.open();
    world.clock.goTo(Date.now());
    const from = (days: number) => new Date(Date.now() + days * DAY).toISOString();
    const dates = {
      ...DATES,
      draftsOpen: from(-1),
      draftsDue: from(1),
      reviewsOpen: from(2),
      reviewsDue: from(3),
      release: from(4),
    };
    const id = await exchangeOfFiles(world, { dates });
    world.clock.goTo(Date.now());
    await world.do(ANN, 'put', `/exchanges/${id}/draft`, { revision: 0, title: 'Killed', context: '' });
    await world.do(ANN, 'put', `/exchanges/${id}/draft/texts/text`, { revision: 0, html: '<p>Text.</p>' });
    const server = await Killable.prepare(world);
    const confirmed: Confirmed = { parts: new Set(), versions: new Set() };
    const store = (digest: string) => join(world.dataFolder, 'files', digest.slice(0, 2), digest);
    try {
      await server.start();
      for (let round = 0; round < ROUNDS; round += 1) {
        // A moment of its own each time: within an upload, a look into a file, a hand-in.
        const killed = server.killAfter(4 + round * 7, (round * 7) % 25);
        await Promise.all([killed, work(server, id, confirmed).catch((error: Error) => error)]);
        await server.start();
        await lookAround(server, id, confirmed, store);
      }
      expect(confirmed.versions.size).toBeGreaterThan(3);
      const left = readdirSync(join(world.dataFolder, 'uploads')).filter((name) => !name.endsWith('.json'));
      expect(left.length).toBeLessThanOrEqual(ROUNDS);
    } finally {
      await server.kill();
      rmSync(world.dataFolder, { recursive: true, force: true });
    }
  }, 240_000);
});
