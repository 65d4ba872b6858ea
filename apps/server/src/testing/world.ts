import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
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
import {
  DATE_ORDER,
  EMPTY_FORM,
  NO_PRACTICE,
  seededRandom,
  USUAL_AFTER,
  type DateName,
  type FormItem,
} from '@salt-circle/core';
import type {
  AllocationView,
  ChangeNews,
  DeskView,
  HandInCheck,
  JobView,
  MyDraftView,
  NoteRequest,
  PlanSettings,
  PreviewRequest,
  PreviewView,
  VersionMeta,
} from '@salt-circle/contracts';
import request from 'supertest';
import { In } from 'typeorm';
import { Person } from '../model/person.js';
import { SessionService } from '../access/session.service.js';
import { createApp } from '../app.js';
import { Clock } from '../platform/clock/clock.js';
import { mailSettingsOf, type Settings } from '../platform/config/settings.js';
import { HAPPENING_HANDLERS } from '../handlers.js';
import { Course, Enrolment } from '../model/course.js';
import { writerSource } from '../platform/database/data-source.js';
import { Database } from '../platform/database/database.js';
import { MIGRATIONS } from '../platform/database/migrations/index.js';
import { Ids } from '../platform/ids/ids.js';

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
}

export interface TestPerson {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly campusId?: string;
  readonly role: Enrolment['role'] | null;
}

export const PEOPLE: readonly TestPerson[] = [
  { id: 'p-ines', name: 'Ines Marchetti', email: 'ines@example.org', role: 'instructor' },
  { id: 'p-tom', name: 'Tomasz Wilk', email: 'tomasz@example.org', role: 'assistant' },
  { id: 'p-ann', name: 'Ann Mensah', email: 'ann@example.org', campusId: 'c-1', role: 'student' },
  { id: 'p-ben', name: 'Ben Kiss', email: 'ben@example.org', campusId: 'c-2', role: 'student' },
  { id: 'p-cho', name: 'Cho Sato', email: 'cho@example.org', campusId: 'c-3', role: 'student' },
  { id: 'p-out', name: 'Otto Fremd', email: 'otto@example.org', role: null },
];

export const DAY = 24 * 3_600_000;
const day = (number: number) => Date.UTC(2026, 2, number);
/** Drafts 2 to 12 March, reviews 14 to 20 March, release 26 March. */
export const DATES = {
  ...(Object.fromEntries(DATE_ORDER.map((name) => [name, null])) as Record<DateName, string | null>),
  draftsOpen: new Date(day(2)).toISOString(),
  draftsDue: new Date(day(12)).toISOString(),
  reviewsOpen: new Date(day(14)).toISOString(),
  reviewsDue: new Date(day(20)).toISOString(),
  release: new Date(day(26)).toISOString(),
};
export const AT = {
  drafting: day(5),
  afterDue: day(13),
  reviewing: day(15),
  checking: day(22),
  closed: day(27),
} as const;

export const ITEMS: FormItem[] = [
  {
    kind: 'criterion',
    id: 'evidence',
    title: 'Evidence',
    guidance: '',
    required: true,
    weight: 1,
    comment: 'optional',
    levels: [
      { id: 'low', title: 'Claims only', description: '', points: 0 },
      { id: 'high', title: 'All backed', description: '', points: 4 },
    ],
  },
  { kind: 'prompt', id: 'first', title: 'What first?', guidance: '', required: true, weight: 1, minimumWords: 5 },
];

export const FORM = { ...EMPTY_FORM, overall: 'none' as const, items: ITEMS };

export const PLAN: PlanSettings = {
  title: 'Field report',
  briefHtml: '<p>Write a report.</p>',
  guideHtml: '',
  dates: DATES,
  late: null,
  deliverables: [
    { id: 'text', kind: 'text', title: 'Report', description: '', required: true, families: [], maxMegabytes: 50 },
  ],
  takesPart: { kind: 'everyone', sections: [], groupIds: [], studentIds: [] },
  handInAs: 'alone',
  whom: 'anyone',
  groupSetId: null,
  reviewsPerStudent: 1,
  selfReview: 'off',
  ownHandInFirst: true,
  names: 'both-ways',
  showNamesAtRelease: false,
  feedbackEach: false,
  reviewsFinal: false,
  practice: NO_PRACTICE,
  after: USUAL_AFTER,
  remindHours: null,
  gradeParts: [],
  shorthandId: null,
};

const CACHE = join(import.meta.dirname, '../../../../.cache/tests');

/** Making the tables takes longer than most tests: it is done once for these migrations, and copied. */
async function copyEmpty(folder: string): Promise<void> {
  const name = 'salt-circle.sqlite';
  const of = createHash('sha256').update(MIGRATIONS.map(String).join('\n')).digest('hex').slice(0, 16);
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
    writeFileSync(join(folder, 'salt-circle.sqlite'), gunzipSync(readFileSync(database)));
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
      ...part,
    };
    const ids = new SeededIds();
    const database = await Database.open(folder, clock, {
      mail: mailSettingsOf(settings),
      handlers: HAPPENING_HANDLERS,
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

export const [INES, TOM, ANN, BEN, CHO, OUT] = [0, 1, 2, 3, 4, 5] as const;

/** A published exchange with the plan and form above. */
export async function publishedExchange(world: World, part: Partial<PlanSettings> = {}): Promise<string> {
  const { id } = await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Field report' });
  await world.do(INES, 'put', `/exchanges/${id}/plan`, { ...PLAN, ...part, revision: 1 });
  await world.do(INES, 'put', `/exchanges/${id}/form`, { ...FORM, revision: 1 });
  await world.do(INES, 'post', `/exchanges/${id}/publish`);
  return id;
}

export async function handIn(
  world: World,
  person: number,
  exchangeId: string,
  text = 'The bed rose by four centimetres a decade.',
): Promise<void> {
  await write(world, person, exchangeId, text);
  await handInSaved(world, person, exchangeId);
}

/** Saves a title and a text, without handing in. */
export async function write(
  world: World,
  person: number,
  exchangeId: string,
  text: string,
  title = 'On the basin',
): Promise<void> {
  const draft = await world.do<MyDraftView>(person, 'get', `/exchanges/${exchangeId}/draft`);
  await world.do(person, 'put', `/exchanges/${exchangeId}/draft`, { revision: draft.revision, title, context: '' });
  await world.do(person, 'put', `/exchanges/${exchangeId}/draft/texts/text`, {
    revision: draft.texts['text']?.revision ?? 0,
    html: `<p>${text}</p>`,
  });
}

export async function handInSaved(world: World, person: number, exchangeId: string): Promise<VersionMeta> {
  const { fingerprint } = await world.do<HandInCheck>(person, 'get', `/exchanges/${exchangeId}/draft/check`);
  return world.do(person, 'post', `/exchanges/${exchangeId}/draft/hand-in`, { fingerprint, namesSeen: true });
}

/** A preview, as soon as it is there. */
export async function previewOf(
  world: World,
  exchangeId: string,
  part: Partial<PreviewRequest> = {},
  person: number = INES,
): Promise<PreviewView> {
  const path = `/exchanges/${exchangeId}/allocation`;
  let job = await world.do<JobView>(person, 'post', `${path}/previews`, {
    kind: 'new',
    seed: 1,
    wishes: null,
    ...part,
  });
  while (job.state === 'running') job = await world.do<JobView>(person, 'get', `${path}/jobs/${job.id}`);
  if (job.preview === null) throw new Error(job.problem?.sentence ?? job.state);
  return job.preview;
}

/** Previews an allocation and applies it. */
export async function allocateAll(
  world: World,
  exchangeId: string,
  part: Partial<PreviewRequest> = {},
): Promise<AllocationView> {
  const { id: previewId } = await previewOf(world, exchangeId, part);
  return world.do<AllocationView>(INES, 'post', `/exchanges/${exchangeId}/allocation`, { previewId });
}

/** Ann and Ben have handed in and review each other; Cho has not. It is reviewing time. */
export async function reviewedExchange(
  world: World,
  part: Partial<PlanSettings> = {},
): Promise<{ id: string; byAnn: string; byBen: string }> {
  const id = await publishedExchange(world, part);
  world.clock.goTo(AT.drafting);
  await handIn(world, ANN, id, 'The bed rose by four centimetres a decade.');
  await handIn(world, BEN, id, 'Geese have grazed the islands bare since 2009.');
  await allocateAll(world, id);
  world.clock.goTo(AT.reviewing);
  const [byAnn] = await world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${id}/reviews`);
  const [byBen] = await world.do<Array<{ id: string }>>(BEN, 'get', `/exchanges/${id}/reviews`);
  return { id, byAnn: byAnn?.id ?? '', byBen: byBen?.id ?? '' };
}

export const NOTE_ID = '7f1c2a34-5b6d-4e8f-9a0b-1c2d3e4f5a6b';
/** A note on a passage of the first text of the draft that a review is of. */
export async function noteFor(
  world: World,
  person: number,
  reviewId: string,
  { start = 4, end = 12, ...part }: Partial<NoteRequest> & { readonly start?: number; readonly end?: number } = {},
): Promise<NoteRequest> {
  const { draft } = await world.do<DeskView>(person, 'get', `/reviews/${reviewId}`);
  const text = draft.parts.find(({ show }) => show === 'html');
  return {
    revision: 0,
    kind: 'ask',
    body: 'How was this measured?',
    place: {
      version: draft.version,
      partId: text?.id ?? '',
      selector: {
        type: 'text',
        quote: { type: 'TextQuoteSelector', exact: 'bed rose', prefix: 'The ', suffix: ' by four' },
        position: { type: 'TextPositionSelector', start, end },
      },
    },
    ...part,
  };
}

/** Leaves that note. */
export async function leaveNote(
  world: World,
  person: number,
  reviewId: string,
  part: Parameters<typeof noteFor>[3] = {},
  id = NOTE_ID,
): Promise<void> {
  const note = await noteFor(world, person, reviewId, part);
  await world.do(person, 'put', `/reviews/${reviewId}/notes/${id}`, note);
}

export async function fillIn(world: World, person: number, reviewId: string): Promise<void> {
  await world.do(person, 'put', `/reviews/${reviewId}/answers/evidence`, {
    revision: 0,
    levelId: 'high',
    text: 'Dated readings.',
  });
  await world.do(person, 'put', `/reviews/${reviewId}/answers/first`, {
    revision: 0,
    text: 'Say how large the site is.',
  });
}
