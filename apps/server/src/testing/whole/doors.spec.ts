import { mkdirSync, statSync, unlinkSync, utimesSync, writeFileSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { join } from 'node:path';
import type { AllocationImportView, OpenUploadView } from '@salt-circle/contracts';
import { parse } from 'csv-parse/sync';
import { strFromU8, unzipSync } from 'fflate';
import request from 'supertest';
import { OPEN } from '../../auth/front-gate.js';
import { Cleaner } from '../../features/files/cleaner.js';
import { Enrolment } from '../../model/course.js';
import { GroupSet } from '../../model/group.js';
import { StoredFile } from '../../model/stored-file.js';
import { NoteRow, Review } from '../../model/review.js';
import { readSettings } from '../../platform/config/settings.js';
import { FileStore } from '../../platform/files/file-store.js';
import { attached, begin, exchangeOfFiles, sample, send } from '../uploads.js';
import { leaveNote, noteFor, publishedExchange, reviewedExchange } from '../acts.js';
import { ANN, BEN, INES, OUT } from '../people.js';
import { AT, FORM, PLAN } from '../plan.js';
import { World } from '../world.js';

/** What was found by somebody who tried the doors, one after the other. Each of these was open once. */

let world: World;
afterEach(() => world.close());

const tus = (method: 'head' | 'patch' | 'delete', path: string, cookie: string) =>
  request(world.app.getHttpServer())
    [method](path)
    .set({ 'x-salt-circle': '1', 'tus-resumable': '1.0.0', cookie, 'upload-offset': '0' })
    .set('content-type', 'application/offset+octet-stream');

describe('uploads', () => {
  let id: string;
  const file = (name: string, bytes = sample('report.pdf')) => ({
    exchangeId: id,
    deliverableId: 'files',
    name,
    bytes,
  });
  beforeEach(async () => {
    world = await World.open();
    id = await exchangeOfFiles(world);
  });

  it('are found by the one id that was checked, whatever else the address says', async () => {
    const [mine, theirs] = [(await begin(world, BEN, file('a.pdf'))).id, (await begin(world, ANN, file('b.pdf'))).id];
    const cookie = await world.cookieOf(BEN);
    for (const path of [`/api/uploads/${mine}?x=/${theirs}`, `/api/uploads/${mine}?${theirs}`]) {
      await tus('patch', path, cookie).send(Buffer.from('%PDF overwritten'));
      await tus('delete', path, cookie);
    }
    const head = await tus('head', `/api/uploads/${theirs}`, await world.cookieOf(ANN));
    expect([head.status, head.headers['upload-offset']]).toEqual([200, '0']);
    expect((await tus('delete', `/api/uploads/${theirs}`, cookie)).status).toBe(404);
  });

  it('say nothing of where things lie, when something is missing there', async () => {
    const { id: upload } = await begin(world, ANN, file('a.pdf'));
    unlinkSync(join(world.dataFolder, 'uploads', upload));
    const { status, text } = await send(world, ANN, upload, sample('report.pdf'));
    expect(status).toBeGreaterThanOrEqual(400);
    expect(text).not.toContain(world.dataFolder);
    expect(text).not.toMatch(/ENOENT|\/tmp\//);
  });

  it('have an end in number, are listed until they are in a draft, and can be dropped', async () => {
    // All at once: none of them slips through while another one is looked at.
    const all = await Promise.all(Array.from({ length: 25 }, (_, count) => begin(world, ANN, file(`${count}.pdf`))));
    const begun = all.filter(({ response }) => response.status === 201);
    const refused = all.filter(({ response }) => response.status === 422);
    expect([begun.length, refused.length]).toEqual([20, 5]);
    const one = (await world.do<OpenUploadView[]>(ANN, 'get', '/uploads')).find(({ id }) => id === begun[0]?.id);
    expect(JSON.parse(refused[0]?.response.text ?? '{}').sentence).toContain('20 files on the way');
    // Nobody else is kept from anything by it.
    expect((await begin(world, BEN, file('b.pdf'))).response.status).toBe(201);
    const list = () => world.do<OpenUploadView[]>(ANN, 'get', '/uploads');
    expect(await list()).toHaveLength(20);
    await send(world, ANN, begun[0]?.id ?? '', sample('report.pdf').subarray(0, 1_000));
    expect((await list()).find(({ name }) => name === one?.name)).toMatchObject({ received: 1_000 });
    await tus('delete', `/api/uploads/${begun[0]?.id}`, await world.cookieOf(ANN));
    expect((await begin(world, ANN, file('again.pdf'))).response.status).toBe(201);
  });

  it('end when the draft has as much as it may have, earlier versions included', async () => {
    const part = await attached(world, ANN, file('a.pdf'));
    await world.database.write((manager) =>
      manager.update(StoredFile, { digest: part.digest as string }, { size: 1_999_990_000 }),
    );
    const { response } = await begin(world, ANN, file('b.pdf', Buffer.alloc(20_000, 1)));
    expect([response.status, response.body.sentence]).toEqual([422, expect.stringContaining('more than 2000 MB')]);
    expect((await begin(world, BEN, file('b.pdf'))).response.status).toBe(201);
  });

  it('end before the disk is full', async () => {
    const full = await World.open({ diskRest: Number.MAX_SAFE_INTEGER });
    const exchangeId = await exchangeOfFiles(full);
    const { response } = await begin(full, ANN, { ...file('a.pdf'), exchangeId });
    expect([response.status, response.body.code]).toEqual([507, 'store-full']);
    await full.close();
  });

  it('are kept by when they came into the store, not by when they were begun', async () => {
    const store = world.app.get(FileStore);
    const path = join(await store.workFolder(), 'old');
    writeFileSync(path, 'finished hours ago');
    const long = new Date(Date.now() - 7 * 3_600_000);
    utimesSync(path, long, long);
    const { digest } = await store.adopt(path);
    // Between the rename and the row that names it.
    await world.app.get(Cleaner).clean();
    expect(store.has(digest)).toBe(true);
  });

  it('that are text are taken along as text, whatever they were called', async () => {
    const part = await attached(world, ANN, file('page.html', Buffer.from('Not <b>HTML</b> at all, says the server.')));
    const draft = await world.do<{ id: string }>(ANN, 'get', `/exchanges/${id}/draft`);
    const { headers } = await world.as(ANN, 'get', `/exchanges/${id}/drafts/${draft.id}/parts/${part.id}/original`);
    expect(headers['content-disposition']).toBe('attachment; filename="page.html.txt"');
    expect(headers['content-type']).toContain('text/plain');
  });
});

describe('requests', () => {
  it('that cannot be read are told so, also where the web application is served', async () => {
    world = await World.open({}, []);
    const webFolder = join(world.dataFolder, 'web');
    mkdirSync(webFolder);
    writeFileSync(join(webFolder, 'index.html'), '<!doctype html>');
    const whole = await World.open({ webFolder });
    const raw = (body: string, path = '/api/session') =>
      request(whole.app.getHttpServer())
        .post(path)
        .set({ 'x-salt-circle': '1', 'content-type': 'application/json' })
        .send(body);
    expect((await raw('{"email":')).body.code).toBe('not-json');
    expect((await raw(`{"email":"${'x'.repeat(9_000)}"}`)).body.code).toBe('too-large');
    // A look may carry a body, too.
    const look = await request(whole.app.getHttpServer())
      .get('/api/health')
      .set('content-type', 'application/json')
      .send(`{"a":"${'x'.repeat(9_000)}"}`);
    expect(look.body.code).toBe('too-large');
    expect((await raw('[]')).body.code).toBe('not-json');
    expect((await raw('{}', '/api/courses')).body.code).toBe('signed-out');
    await whole.close();
  });

  it('by nobody reach what is open to nobody, and no other change', async () => {
    world = await World.open({ mode: 'demo' }, []);
    const { stack } = (
      world.app.getHttpAdapter().getInstance() as {
        router: { stack: Array<{ route?: { path: string; methods: Record<string, boolean> } }> };
      }
    ).router;
    const changes = stack.flatMap(({ route }) => {
      const methods = Object.keys(route?.methods ?? {});
      // What answers to every method there is, is middleware.
      const changing = methods.filter((method) => methods.length <= 5 && !['get', 'head'].includes(method));
      return changing.map((method) => [method, route?.path ?? ''] as const);
    });
    expect(changes.length).toBeGreaterThan(60);
    for (const [method, path] of changes) {
      const { status } = await world.as(null, method as 'post', path.replace('/api', ''), {});
      const open = OPEN.some((name) => path === `/api/${name}` || path.startsWith(`/api/${name}/`));
      expect([method, path, status === 401]).toEqual([method, path, !open]);
    }
  });

  it('with very much wrong in them are told of fifty things, and how many more there are', async () => {
    world = await World.open();
    const id = await publishedExchange(world);
    const items = FORM.items.flatMap((item) => Array.from({ length: 30 }, () => ({ ...item, title: 5, guidance: 6 })));
    const { status, body } = await world.as(INES, 'put', `/exchanges/${id}/form`, { ...FORM, items, revision: 1 });
    expect([status, body.fields.length]).toEqual([422, 51]);
    expect(body.fields[50].sentence).toBe('70 more things are wrong.');
    const long = { [`${'k'.repeat(100_000)}`]: 1, title: 'T' };
    const named = await world.as(INES, 'post', '/courses/course/exchanges', long);
    expect([named.status, named.text.length < 1_000]).toEqual([422, true]);
  });

  it('with null for what may be missing are refused in words, not by a fault', async () => {
    world = await World.open();
    const { id, byAnn } = await reviewedExchange(world);
    const tries: Array<[number, 'put' | 'post', string, object]> = [
      [ANN, 'put', `/reviews/${byAnn}/answers/evidence`, { revision: 0, text: null }],
      [ANN, 'put', `/reviews/${byAnn}/answers/evidence`, { revision: 0, next: null }],
      [ANN, 'put', `/reviews/${byAnn}/answers/evidence`, { revision: 0, checks: null }],
      [ANN, 'put', `/reviews/${byAnn}/answers/evidence`, { revision: 0, choices: null }],
      [ANN, 'put', `/reviews/${byAnn}/answers/evidence`, { revision: 0, version: null }],
      [INES, 'post', `/exchanges/${id}/reminders`, { participantIds: [], about: 'draft', words: null }],
      [INES, 'post', `/exchanges/${id}/allocation/acts`, { add: null, confirmed: null }],
    ];
    for (const [who, method, path, body] of tries) {
      const { status } = await world.as(who, method, path, body);
      expect([path, body, status]).toEqual([path, body, 422]);
    }
  });

  it('come from where they come, unless a proxy that is trusted says otherwise', async () => {
    const statuses = async (proxies: readonly string[]) => {
      world = await World.open({ proxies });
      const url = await world.url();
      const answers: number[] = [];
      for (let tries = 0; tries < 12; tries += 1) {
        const { status } = await fetch(`${url}/api/session`, {
          method: 'POST',
          headers: {
            'x-salt-circle': '1',
            'content-type': 'application/json',
            'x-forwarded-for': `203.0.113.${tries}`,
          },
          body: JSON.stringify({ email: 'guess@example.org', password: 'x' }),
        });
        answers.push(status);
      }
      return answers;
    };
    // Forged by whoever connects directly: counted as one.
    expect((await statuses([])).slice(10)).toEqual([429, 429]);
    await world.close();
    expect(new Set(await statuses(['loopback']))).toEqual(new Set([401]));
  });
});

describe('settings', () => {
  const secret = { SALT_CIRCLE_SECRET: 'a secret of some thirty characters' };

  it('listen on this machine alone, trust nobody, and bind cookies to TLS where there is TLS', async () => {
    world = await World.open({ secure: true });
    expect(readSettings(secret)).toMatchObject({ host: '127.0.0.1', proxies: [], secure: false });
    const given = {
      ...secret,
      HOST: '0.0.0.0',
      SALT_CIRCLE_PROXIES: 'loopback, 10.0.0.0/8',
      SALT_CIRCLE_URL: 'https://x.example',
    };
    expect(readSettings(given)).toMatchObject({ host: '0.0.0.0', proxies: ['loopback', '10.0.0.0/8'], secure: true });
    for (const wrong of [
      { HOST: 'everywhere' },
      { SALT_CIRCLE_PROXIES: '10.0.0.0/99' },
      { SALT_CIRCLE_PROXIES: 'proxy' },
    ])
      expect(() => readSettings({ ...secret, ...wrong })).toThrow(/HOST|PROXIES/);
    expect(() => readSettings({ ...secret, SALT_CIRCLE_BEHIND_PROXY: 'yes' })).toThrow('not used any more');
    const out = await world.as(null, 'delete', '/session');
    expect(out.headers['set-cookie']?.[0]).toMatch(/^__Host-salt_circle=;.* Path=\/;.*Secure/);
    expect(out.headers['set-cookie']?.[0]).not.toContain('Domain');
  });

  it('keep data from other users of the machine', async () => {
    world = await World.open();
    const mode = (path: string) => (statSync(join(world.dataFolder, path)).mode & 0o777).toString(8);
    await attached(world, ANN, {
      exchangeId: await exchangeOfFiles(world),
      deliverableId: 'files',
      name: 'a.pdf',
      bytes: sample('report.pdf'),
    });
    expect([mode('.'), mode('salt-circle.sqlite'), mode('files'), mode('uploads')]).toEqual([
      '700',
      '600',
      '700',
      '700',
    ]);
  });
});

describe('a plan', () => {
  it('names groups, labels and students of its own course only', async () => {
    world = await World.open();
    await world.do(OUT, 'post', '/courses/elsewhere/group-sets', { title: 'Theirs' });
    const { id: setId } = await world.database.read.findOneByOrFail(GroupSet, { courseId: 'elsewhere' });
    const { id: shorthandId } = await world.do<{ id: string }>(OUT, 'post', '/courses/elsewhere/library', {
      kind: 'shorthand',
      title: 'Theirs',
      exchangeId: null,
    });
    const theirs = await world.database.read.findOneByOrFail(Enrolment, { courseId: 'elsewhere' });
    const { id } = await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Field report' });
    const takesPart = { kind: 'except', sections: [], groupIds: [], studentIds: [] };
    const tries: Array<[object, string]> = [
      [{ groupSetId: setId }, 'groupSetId'],
      [{ shorthandId }, 'shorthandId'],
      [{ takesPart: { ...takesPart, studentIds: [theirs.id] } }, 'takesPart.studentIds'],
      [{ takesPart: { ...takesPart, groupIds: [setId] } }, 'takesPart.groupIds'],
    ];
    for (const [part, path] of tries) {
      const { status, body } = await world.as(INES, 'put', `/exchanges/${id}/plan`, { ...PLAN, ...part, revision: 1 });
      expect([status, body.fields?.[0]?.path]).toEqual([422, path]);
    }
    await world.do(INES, 'put', `/exchanges/${id}/plan`, { ...PLAN, revision: 1 });
  });
});

describe('a review', () => {
  it('has an end in notes and in what stands in them, counted where they are kept', async () => {
    world = await World.open();
    const { byAnn } = await reviewedExchange(world);
    await leaveNote(world, ANN, byAnn);
    const note = await world.database.read.findOneByOrFail(NoteRow, { reviewId: byAnn });
    const uuid = (index: number) => `7f1c2a34-5b6d-4e8f-9a0b-${String(index).padStart(12, '0')}`;
    await world.database.write((manager) =>
      manager.insert(
        NoteRow,
        Array.from({ length: 299 }, (_, index) => ({ ...note, id: uuid(index) })),
      ),
    );
    const one = { ...(await noteFor(world, ANN, byAnn)), body: 'One too many.' };
    const refused = await world.as(ANN, 'put', `/reviews/${byAnn}/notes/${uuid(900)}`, one);
    expect([refused.status, refused.body.code]).toEqual([409, 'review-full']);
    // What is there can be changed all the same.
    await world.do(ANN, 'put', `/reviews/${byAnn}/notes/${note.id}`, { ...one, revision: note.revision });
    await world.database.write((manager) => manager.update(NoteRow, { id: uuid(1) }, { body: 'x'.repeat(1_000_000) }));
    await world.do(ANN, 'delete', `/reviews/${byAnn}/notes/${uuid(2)}`);
    const large = await world.as(ANN, 'put', `/reviews/${byAnn}/notes/${uuid(900)}`, one);
    expect(large.body.sentence).toContain('more text than can be kept');
    expect((await world.database.read.findOneByOrFail(Review, { id: byAnn })).noteCount).toBe(299);
  });
});

describe('a link in a draft', () => {
  it('leads out of the application, or within the text', async () => {
    world = await World.open();
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    const links = ['/account', 'account', '//evil.example', 'https:evil.example', 'ftp://x.example/', '../x'];
    const kept = ['https://example.org/map', 'HTTP://example.org', 'mailto:ann@example.org', '#fn-1'];
    const html = [...links, ...kept].map((href) => `<p><a href="${href}">a</a></p>`).join('');
    await world.do(ANN, 'put', `/exchanges/${id}/draft/texts/text`, { revision: 0, html });
    const { texts } = await world.do<{ texts: Record<string, { html: string }> }>(ANN, 'get', `/exchanges/${id}/draft`);
    const found = [...(texts['text']?.html ?? '').matchAll(/href="([^"]*)"/g)].map(([, href]) => href);
    expect(found).toEqual(kept);
  });
});

describe('a name that a spreadsheet would run', () => {
  const FORMULA = '=HYPERLINK("http://evil.example")';
  const MAIL = '+ben@example.org';
  /** What spreadsheets take for a formula: OWASP, “CSV injection”. */
  const runs = (text: string) => {
    const rows: string[][] = parse(text, { bom: true });
    return rows.flat().filter((cell) => /^[=+\-@\t\r]/.test(cell));
  };

  it('is a text in every table that leaves, and comes back as what it was', async () => {
    world = await World.open();
    await world.database.write((manager) =>
      manager.update(Enrolment, { personId: 'p-ben' }, { name: FORMULA, email: MAIL, campusId: '-1' }),
    );
    const { id } = await reviewedExchange(world, { title: '@SUM(A1)' });
    const allocation = (await world.as(INES, 'get', `/exchanges/${id}/allocation/file`)).text;
    expect([runs(allocation), allocation.includes(MAIL)]).toEqual([[], true]);
    const { same, problems } = await world.do<AllocationImportView>(INES, 'post', `/exchanges/${id}/allocation/file`, {
      text: allocation,
      base64: null,
      apply: false,
    });
    expect([same, problems]).toEqual([2, []]);
    const archive = await world.file(INES, `/exchanges/${id}/archive?names=name`);
    const index = strFromU8(unzipSync(archive.body as Buffer)['index.csv'] ?? new Uint8Array());
    expect([runs(index), index.includes('HYPERLINK')]).toEqual([[], true]);
    const form = await world.do<{ id: string }>(INES, 'post', '/courses/course/library', {
      kind: 'form',
      title: FORMULA,
      exchangeId: null,
    });
    await world.do(INES, 'put', `/courses/course/library/forms/${form.id}`, {
      ...FORM,
      items: FORM.items.map((item) => ({ ...item, title: FORMULA, guidance: '-1+1' })),
      title: FORMULA,
      revision: 1,
    });
    const table = (await world.as(INES, 'get', `/courses/course/library/forms/${form.id}/files/csv`)).text;
    expect([runs(table), table.includes('HYPERLINK')]).toEqual([[], true]);
  });
});

describe('a process that is stopped in the middle of a request', () => {
  it('is none: what a client leaves half-sent ends with its connection', async () => {
    world = await World.open();
    const url = new URL(await world.url());
    const call = httpRequest({
      port: url.port,
      host: url.hostname,
      path: '/api/session',
      method: 'POST',
      headers: { 'x-salt-circle': '1', 'content-type': 'application/json', 'content-length': '500' },
    });
    call.on('error', () => undefined);
    call.write('{"email":');
    await new Promise((done) => setTimeout(done, 50));
    call.destroy();
    expect((await world.as(null, 'get', '/health')).status).toBe(200);
  });
});
