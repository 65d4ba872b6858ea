import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { seededRandom } from '@salt-circle/core';
import type { ChangeNews } from '@salt-circle/contracts';
import request from 'supertest';
import { In } from 'typeorm';
import { Person } from '../model/person.js';
import { SessionService } from '../auth/session.service.js';
import { createApp } from '../app.js';
import { Clock } from '../platform/clock/clock.js';
import { mailSettingsOf, type Settings } from '../platform/config/settings.js';
import { EVENT_HANDLERS } from '../handlers.js';
import { Course, Enrolment } from '../model/course.js';
import { DATABASE_FILE, writerSource } from '../platform/database/data-source.js';
import { Database } from '../platform/database/database.js';
import { Ids } from '../platform/ids/ids.js';
import { PEOPLE, type TestPerson } from './people.js';

/** Ids in a fixed order, so that two worlds built alike are alike to the letter. */
class SeededIds extends Ids {
  readonly #random = seededRandom(1962);

  override uuid(): string {
    const hex = (digits: number) => [...Array(digits)].map(() => Math.floor(this.#random() * 16).toString(16)).join('');
    return `${hex(8)}-${hex(4)}-4${hex(3)}-8${hex(3)}-${hex(12)}`;
  }

  override seed(): number {
    return Math.floor(this.#random() * 2 ** 32);
  }

  override token(): string {
    return [...Array(43)].map(() => 'abcdefghijklmnop'[Math.floor(this.#random() * 16)]).join('');
  }
}

/** Stands still, so that answers with times in them can be compared. */
class StandingClock extends Clock {
  #at = Date.UTC(2026, 2, 1, 8);

  override now(): number {
    return this.#at;
  }

  override move(offset: number): void {
    this.#at = Date.now() + offset;
  }

  goTo(at: number): void {
    this.#at = at;
  }

  #skipped = 0;

  override real(): number {
    return Date.now() + this.#skipped;
  }

  /** For what waits in real time. Milliseconds. */
  skip(time: number): void {
    this.#skipped += time;
  }
}

const CACHE = join(import.meta.dirname, '../../../../.cache/tests');
const MIGRATIONS = join(import.meta.dirname, '../platform/database/migrations');

/** Making the tables takes longer than most tests: it is done once for these migrations, and copied. */
async function copyEmpty(folder: string): Promise<void> {
  const name = DATABASE_FILE;
  const sources = readdirSync(MIGRATIONS).map((file) => readFileSync(join(MIGRATIONS, file), 'utf8'));
  const of = createHash('sha256').update(sources.join('\n')).digest('hex').slice(0, 16);
  const empty = join(CACHE, of);
  if (!existsSync(empty)) {
    mkdirSync(CACHE, { recursive: true });
    const made = mkdtempSync(join(CACHE, 'made-'));
    const source = await writerSource(made).initialize();
    await source.runMigrations();
    // Closing writes what waits in the log of the database into its file.
    await source.destroy();
    renameSync(join(made, name), empty);
    rmSync(made, { recursive: true, force: true });
  }
  copyFileSync(empty, join(folder, name));
}

type Method = 'get' | 'post' | 'put' | 'delete' | 'patch' | 'head';

/** The application on a database of its own, with people to act as. */
export class World {
  readonly #cookies = new Map<string, string>();
  readonly #listening: AbortController[] = [];

  private constructor(
    readonly app: NestExpressApplication,
    readonly database: Database,
    readonly clock: StandingClock,
    readonly people: readonly TestPerson[],
    readonly dataFolder: string,
  ) {}

  static async open(part: Partial<Settings> = {}, people: readonly TestPerson[] = PEOPLE): Promise<World> {
    const folder = mkdtempSync(join(tmpdir(), 'salt-circle-'));
    await copyEmpty(folder);
    const world = await World.#begin(folder, part, people);
    await world.#addPeople();
    return world;
  }

  /** On data that is there already. @param database a file of SQLite, packed by gzip @param emails of people to act as */
  static async stored(database: string, emails: readonly string[]): Promise<World> {
    const folder = mkdtempSync(join(tmpdir(), 'salt-circle-'));
    writeFileSync(join(folder, DATABASE_FILE), gunzipSync(readFileSync(database)));
    const opened = await Database.open(folder, new StandingClock());
    const rows = await opened.read.findBy(Enrolment, { email: In([...emails]) });
    await opened.onApplicationShutdown();
    const people = emails.map((email): TestPerson => {
      const { personId = '', name = '' } = rows.find((row) => row.email === email) ?? {};
      return { id: personId, name, email, role: null };
    });
    return World.#begin(folder, {}, people);
  }

  static async #begin(folder: string, part: Partial<Settings>, people: readonly TestPerson[]): Promise<World> {
    const clock = new StandingClock();
    const settings: Settings = {
      mode: 'test',
      port: 0,
      dataFolder: folder,
      secret: 'only for tests, and long enough for them',
      webFolder: null,
      host: '127.0.0.1',
      proxies: [],
      secure: false,
      diskRest: 0,
      log: false,
      publicUrl: 'https://salt-circle.example.org',
      smtp: null,
      mailFrom: 'Salt Circle <salt-circle@example.org>',
      platformNetworks: ['127.0.0.0/8'],
      demoPlatform: null,
      ...part,
    };
    const ids = new SeededIds();
    const database = await Database.open(folder, clock, {
      mail: mailSettingsOf(settings),
      handlers: EVENT_HANDLERS,
      ids,
    });
    const app = await createApp({ settings, database, clock, ids });
    await app.init();
    return new World(app, database, clock, people, folder);
  }

  async close(): Promise<void> {
    for (const end of this.#listening) end.abort();
    await this.app.close();
    rmSync(this.dataFolder, { recursive: true, force: true });
  }

  async #addPeople(): Promise<void> {
    await this.database.write(async (manager) => {
      await manager.insert(Course, [
        { id: 'course', title: 'Coastal Restoration', timeZone: 'Europe/Tallinn', createdAt: 0 },
        { id: 'elsewhere', title: 'Elsewhere', timeZone: 'UTC', createdAt: 0 },
      ]);
      for (const { role, campusId = null, ...person } of this.people) {
        await manager.insert(Person, {
          passwordHash: null,
          createsCourses: role === 'instructor',
          createdAt: 0,
          ...person,
        });
        await manager.insert(Enrolment, {
          // Not from the person's id: nothing that is shown may hang on it.
          id: `e-${this.people.findIndex((one) => one.email === person.email)}`,
          courseId: role === null ? 'elsewhere' : 'course',
          personId: person.id,
          name: person.name,
          email: person.email,
          role: role ?? 'instructor',
          active: true,
          campusId,
        });
      }
    });
  }

  /** A request in the name of the person at this place in the list, or of nobody. */
  async as(index: number | null, method: Method, path: string, body?: object): Promise<request.Response> {
    const call = request(this.app.getHttpServer())[method](`/api${path}`).set('x-salt-circle', '1');
    if (index !== null) call.set('cookie', await this.cookieOf(index));
    return body === undefined ? call : call.send(body);
  }

  /** Gets a file; its body as bytes. */
  async file(index: number, path: string, headers: Record<string, string> = {}): Promise<request.Response> {
    return request(this.app.getHttpServer())
      .get(`/api${path}`)
      .set('cookie', await this.cookieOf(index))
      .set(headers)
      .buffer(true)
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts)));
      });
  }

  /** Like `as`, for what must succeed. */
  async do<T = { id: string; revision: number }>(
    index: number,
    method: Method,
    path: string,
    body?: object,
  ): Promise<T> {
    const { status, text } = await this.as(index, method, path, body);
    if (status >= 300) throw new Error(`${method} ${path}: ${status} ${text}`);
    return (text === '' ? null : JSON.parse(text)) as T;
  }

  /** The session cookie of the person at this place in the list. */
  async cookieOf(index: number): Promise<string> {
    const person = this.people[index] as TestPerson;
    const known = this.#cookies.get(person.email);
    if (known !== undefined) return known;
    const row = await this.database.read.findOneByOrFail(Person, { id: person.id });
    const cookie = `salt_circle=${await this.app.get(SessionService).open(row, 'signed-in')}`;
    this.#cookies.set(person.email, cookie);
    return cookie;
  }

  /** Where the application listens, for tests that need more than a request. */
  async url(): Promise<string> {
    const server = this.app.getHttpServer();
    if (!server.listening) await this.app.listen(0, '127.0.0.1');
    return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  }

  /** Listens to what changes, until it is ended. @returns the status, and a function that ends it */
  async listen(
    index: number | null,
    heard: (news: ChangeNews) => void,
  ): Promise<{ readonly status: number; readonly end: () => void }> {
    const end = new AbortController();
    const cookie = index === null ? '' : await this.cookieOf(index);
    const { status, body } = await fetch(`${await this.url()}/api/changes`, {
      headers: { cookie },
      signal: end.signal,
    });
    const read = async (lines: AsyncIterable<Uint8Array>) => {
      let text = '';
      for await (const chunk of lines) {
        text += Buffer.from(chunk).toString('utf8');
        const whole = text.split('\n\n');
        text = whole.pop() ?? '';
        for (const event of whole) {
          const data = /^data: (.*)$/m.exec(event)?.[1];
          if (data !== undefined) heard(JSON.parse(data) as ChangeNews);
        }
      }
    };
    // Ended in the middle: that is how it ends.
    if (status === 200 && body !== null) read(body as unknown as AsyncIterable<Uint8Array>).catch(() => undefined);
    if (status !== 200) end.abort();
    this.#listening.push(end);
    return { status, end: () => end.abort() };
  }

  signOut(index: number): void {
    this.#cookies.delete((this.people[index] as TestPerson).email);
  }
}
