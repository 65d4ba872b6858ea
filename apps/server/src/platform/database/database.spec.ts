import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { Person, Session } from '../../model/person.js';
import { Invitation } from '../../model/invitation.js';
import { Clock } from '../clock/clock.js';
import { AuditEntry } from '../../model/audit-entry.js';
import { Enrolment } from '../../model/course.js';
import { Exchange, Participant, ReviewFormRow } from '../../model/exchange.js';
import { EVENT_HANDLERS } from '../../handlers.js';
import { SettingsError } from '../config/settings.js';
import { LtiPerson, LtiPlatform } from '../../model/lti.js';
import { Mail } from '../../model/mail.js';
import { endHolding, settleInstallation } from './installation.js';
import { Database } from './database.js';
import { DATABASE_FILE, ENTITIES, writerSource } from './data-source.js';
import { MIGRATIONS } from './migrations/index.js';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'salt-circle-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const MAIL = { publicUrl: 'https://salt-circle.example.org', sendsMail: false };
const person = (id: string) => ({ id, email: `${id}@example.org`, name: id, createdAt: 0 });

describe('the schema', () => {
  it('is the same whether migrated or made fresh from the entities', async () => {
    const migrated = await writerSource(folder).initialize();
    await migrated.runMigrations();
    const fresh = await new DataSource({
      type: 'better-sqlite3',
      database: ':memory:',
      entities: ENTITIES,
      synchronize: true,
    }).initialize();
    const differences = await migrated.driver.createSchemaBuilder().log();
    expect(differences.upQueries.map(({ query }) => query)).toEqual([]);
    expect(await columns(migrated)).toEqual(await columns(fresh));
    expect((await columns(fresh)).length).toBeGreaterThan(60);
    await migrated.destroy();
    await fresh.destroy();
  });

  it('can be taken back step by step and made again', async () => {
    const source = await writerSource(folder).initialize();
    await source.runMigrations();
    const before = await columns(source);
    for (const _ of MIGRATIONS) await source.undoLastMigration();
    expect(await columns(source)).toEqual([]);
    await source.runMigrations();
    expect(await columns(source)).toEqual(before);
    await source.destroy();
  });

  it('takes the work of an earlier version along', async () => {
    const old = await writerSource(folder)
      .setOptions({ migrations: [MIGRATIONS[0]] })
      .initialize();
    await old.runMigrations();
    const item = { kind: 'prompt', id: 'a', title: 'Why?', guidance: '', required: true, minimumWords: 5 };
    await old.query(`INSERT INTO person VALUES ('p', 'p@example.org', 'P', 'c-7', NULL, 0, 0)`);
    await old.query(`INSERT INTO course VALUES ('c', 'C', 'UTC', 0)`);
    await old.query(`INSERT INTO enrolment VALUES ('e', 'c', 'p', 'student', 1)`);
    await old.query(`INSERT INTO review_form VALUES ('f', 'c', ?, 1)`, [JSON.stringify([item])]);
    await old.query(
      `INSERT INTO exchange VALUES ('x', 'c', 'f', 'X', '', '', NULL, NULL, NULL, NULL, NULL, 2, 'open', NULL, 1, 0)`,
    );
    await old.destroy();

    const database = await Database.open(folder, new Clock());
    expect(await database.read.findOneByOrFail(Enrolment, { id: 'e' })).toMatchObject({ campusId: 'c-7' });
    const form = await database.read.findOneByOrFail(ReviewFormRow, { id: 'f' });
    expect(form).toMatchObject({ overall: 'none', weighting: 'points', items: [{ ...item, weight: 1 }] });
    expect(await database.read.findOneByOrFail(Exchange, { id: 'x' })).toMatchObject({
      whom: 'anyone',
      ownHandInFirst: true,
      deliverables: [{ kind: 'text', required: true }],
    });
    await database.onApplicationShutdown();
  });

  it('holds every digest of a file by a foreign key, and mends what leads nowhere', async () => {
    const source = await writerSource(folder)
      .setOptions({ migrations: MIGRATIONS.slice(0, 25) })
      .initialize();
    await source.runMigrations();
    const file = { mime: '', family: 'pdf', createdAt: 0, copyState: 'ready', size: 1 };
    await source.query('PRAGMA foreign_keys = OFF');
    await insertRow(source, 'stored_file', { ...file, digest: 'a', copyDigest: 'b', pictures: '["c","d","c"]' });
    const part = { draftId: 'draft', deliverableId: 'x', position: 0, kind: 'file' };
    await insertRow(source, 'draft_part', { ...part, id: 'good', digest: 'a', captions: 'gone' });
    await insertRow(source, 'draft_part', { ...part, id: 'dangling', digest: 'gone' });
    await insertRow(source, 'draft_picture', { draftId: 'draft', digest: 'e' });
    for (const digest of ['a', 'gone'])
      await insertRow(source, 'exchange_attachment', {
        ...{ id: digest, exchangeId: 'exchange', place: 'brief', digest, name: '', addedAt: 0 },
      });
    await source.destroy();

    const database = await Database.open(folder, new Clock());
    const all = (query: string) => database.read.query<unknown[]>(query);
    expect(await all('SELECT digest FROM file_content ORDER BY digest')).toEqual(
      ['a', 'b', 'c', 'd', 'e'].map((digest) => ({ digest })),
    );
    expect(await all('SELECT digest FROM file_picture ORDER BY digest')).toEqual([{ digest: 'c' }, { digest: 'd' }]);
    expect(await all('SELECT id, digest, captions FROM draft_part ORDER BY id')).toEqual([
      { id: 'dangling', digest: null, captions: null },
      { id: 'good', digest: 'a', captions: null },
    ]);
    expect(await all('SELECT id FROM exchange_attachment')).toEqual([{ id: 'a' }]);
    const unheld = await all(`SELECT tables.name || '.' || columns.name AS "column"
      FROM sqlite_master tables, pragma_table_info(tables.name) columns
      WHERE tables.type = 'table' AND (columns.name LIKE '%digest' OR columns.name = 'captions')
        AND columns.name NOT IN (SELECT "from" FROM pragma_foreign_key_list(tables.name))`);
    // Of what was handed in as a whole, not of a file; and what the others refer to.
    expect(unheld).toEqual([{ column: 'draft_version.digest' }, { column: 'file_content.digest' }]);
    await database.onApplicationShutdown();
  });

  it('keeps platforms and grades that were told under the names and in the form of now, and back', async () => {
    const source = await writerSource(folder)
      .setOptions({ migrations: MIGRATIONS.slice(0, 28) })
      .initialize();
    await source.runMigrations();
    await source.query('PRAGMA foreign_keys = OFF');
    await insertRow(source, 'campus', {
      ...{
        id: 'n',
        name: 'N',
        issuer: '',
        clientId: 'c',
        authUrl: '',
        tokenUrl: '',
        keysUrl: '',
        pages: '[]',
        createdAt: 0,
      },
      arrivalFault: 'campus-paused',
    });
    await insertRow(source, 'campus_person', { campusId: 'n', user: 'u-1', personId: 'p', createdAt: 0 });
    await insertRow(source, 'enrolment', {
      ...{ id: 'e', courseId: 'c', personId: 'p', name: 'P', email: 'p@example.org', role: 'student', campusId: 'c-7' },
      ...{ source: 'campus', campusUser: 'u-1' },
    });
    await insertRow(source, 'audit_entry', {
      ...{ at: 0, action: 'campus-refused', details: '{"fault":"campus-paused","campus":"n"}', version: 2 },
    });
    const told = ['87%', '17.5 of 20', '', 'Very good', null, '3 of us'];
    for (const [at, gradeTold] of told.entries())
      await insertRow(source, 'participant', {
        id: `p${at}`,
        exchangeId: 'x',
        personId: `p${at}`,
        alias: `A${at}`,
        gradeTold,
      });
    const before = await stored(source);
    await source.destroy();

    const now = await writerSource(folder).initialize();
    await now.query('PRAGMA foreign_keys = OFF');
    await now.runMigrations();
    expect(await now.manager.findOneBy(LtiPlatform, { id: 'n' })).toMatchObject({ arrivalFault: 'platform-paused' });
    expect(await now.manager.findOneBy(LtiPerson, { platformId: 'n' })).toMatchObject({ user: 'u-1', personId: 'p' });
    expect(await now.manager.findOneBy(Enrolment, { id: 'e' })).toMatchObject({
      ...{ source: 'platform', ltiUser: 'u-1', campusId: 'c-7' },
    });
    expect(await now.manager.find(AuditEntry)).toMatchObject([
      { action: 'platform-refused', details: { fault: 'platform-paused', platform: 'n' } },
    ]);
    const grades = await now.manager.find(Participant, { select: { id: true, gradeTold: true }, order: { id: 'ASC' } });
    expect(grades.map(({ gradeTold }) => gradeTold)).toEqual([
      { scale: 'percent', value: 87 },
      { scale: 'points', value: 17.5, of: 20 },
      { scale: 'none' },
      { scale: 'bands', name: 'Very good' },
      null,
      { scale: 'bands', name: '3 of us' },
    ]);
    while ((await now.query<unknown[]>('SELECT 1 FROM migrations')).length > 28) {
      await now.query('PRAGMA foreign_keys = OFF');
      await now.undoLastMigration();
    }
    expect(await stored(now)).toEqual(before);
    await now.destroy();
  });

  it('makes of somebody without an account as many people as there are places, and of an account one', async () => {
    const old = await writerSource(folder)
      .setOptions({ migrations: MIGRATIONS.slice(0, 5) })
      .initialize();
    await old.runMigrations();
    for (const [id, password] of [
      ['open', null],
      ['known', 'hash'],
    ] as const) {
      await old.query(`INSERT INTO person VALUES (?, ?, ?, ?, 0, 0)`, [id, `${id}@example.org`, id, password]);
    }
    for (const course of ['c1', 'c2']) {
      await old.query(`INSERT INTO course (id, title, timeZone, createdAt) VALUES (?, ?, 'UTC', 0)`, [course, course]);
      await old.query(`INSERT INTO review_form (id, courseId, items, revision) VALUES (?, ?, '[]', 1)`, [
        course,
        course,
      ]);
      await old.query(
        `INSERT INTO exchange (id, courseId, formId, title, briefHtml, guideHtml, reviewsPerStudent, names, revision, createdAt)
          VALUES (?, ?, ?, 'X', '', '', 2, 'open', 1, 0)`,
        [course, course, course],
      );
      for (const id of ['open', 'known']) {
        const columns = '(id, courseId, personId, role, active)';
        await old.query(`INSERT INTO enrolment ${columns} VALUES (?, ?, ?, 'student', 1)`, [
          `${course}-${id}`,
          course,
          id,
        ]);
        await old.query(`INSERT INTO participant (id, exchangeId, personId, alias) VALUES (?, ?, ?, ?)`, [
          `${course}-${id}`,
          course,
          id,
          id,
        ]);
      }
    }
    await old.query(`INSERT INTO session VALUES ('t', 'known', 0, 0)`);
    await old.query(`INSERT INTO invitation VALUES ('i', 'open', 'c2', 'known', 0, NULL)`);
    await old.destroy();

    const database = await Database.open(folder, new Clock());
    const places = await database.read.find(Enrolment, { order: { id: 'ASC' } });
    const personOf = new Map(places.map(({ id, personId }) => [id, personId]));
    expect([personOf.get('c1-known'), personOf.get('c2-known')]).toEqual(['known', 'known']);
    expect(personOf.get('c1-open')).not.toBe(personOf.get('c2-open'));
    expect(places.map(({ name, email }) => [name, email])).toContainEqual(['open', 'open@example.org']);
    for (const { id, personId } of await database.read.find(Participant)) expect(personId).toBe(personOf.get(id));
    const people = await database.read.find(Person);
    expect(people.map(({ email }) => email).sort()).toEqual(['known@example.org', null, null]);
    // A link that staff may have read gives its own place only.
    expect(await database.read.find(Invitation)).toMatchObject([{ enrolmentId: 'c2-open', shown: true }]);
    expect(await database.read.find(Session)).toMatchObject([{ personId: 'known' }]);
    await database.onApplicationShutdown();
  });
});

async function insertRow(source: DataSource, table: string, row: Readonly<Record<string, unknown>>): Promise<void> {
  const columns = Object.keys(row).map((column) => `"${column}"`);
  const values = columns.map(() => '?');
  await source.query(`INSERT INTO "${table}" (${columns.join()}) VALUES (${values.join()})`, Object.values(row));
}

/** What the tables hold that have other names now. */
async function stored(source: DataSource): Promise<unknown[]> {
  const tables = ['campus', 'campus_person', 'enrolment', 'audit_entry', 'participant'];
  return Promise.all(tables.map((table) => source.query(`SELECT * FROM "${table}" ORDER BY 1`)));
}

/** Every column, index and foreign key, as SQLite itself describes them. */
async function columns(source: DataSource): Promise<string[]> {
  const tables = await source.query<Array<{ name: string }>>(
    "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name <> 'migrations'",
  );
  const lines: string[] = [];
  for (const { name } of tables) {
    for (const pragma of ['table_info', 'foreign_key_list', 'index_list']) {
      const rows = await source.query<Array<Record<string, unknown>>>(`PRAGMA ${pragma}("${name}")`);
      for (const { cid: _cid, seq: _seq, id: _id, ...rest } of rows)
        lines.push(`${name} ${pragma} ${JSON.stringify(rest)}`);
    }
  }
  return lines.sort();
}

describe('Database', () => {
  let database: Database;
  beforeEach(async () => {
    database = await Database.open(folder, new Clock(), { mail: MAIL, handlers: EVENT_HANDLERS });
  });
  afterEach(() => database.onApplicationShutdown());

  it('keeps nothing of a transaction that throws, what it reported included', async () => {
    const failing = database.write(async (manager, emit) => {
      await manager.insert(Person, person('a'));
      emit({ action: 'course-created', actorId: 'a' });
      throw new Error('half-way');
    });
    await expect(failing).rejects.toThrow('half-way');
    expect(await database.read.count(Person)).toBe(0);
    expect(await database.read.count(AuditEntry)).toBe(0);
  });

  it('runs transactions one after the other, and never shows the middle of one', async () => {
    const steps: string[] = [];
    const outside = database.read;
    const work = (name: string) =>
      database.write(async (manager) => {
        steps.push(`${name} begins`);
        await manager.insert(Person, person(`${name}1`));
        expect(await outside.count(Person)).toBe(steps.filter((step) => step.endsWith('ends')).length * 2);
        await manager.insert(Person, person(`${name}2`));
        steps.push(`${name} ends`);
      });
    await Promise.all(['a', 'b', 'c'].map(work));
    expect(steps).toEqual(['a begins', 'a ends', 'b begins', 'b ends', 'c begins', 'c ends']);
    expect(await database.read.count(Person)).toBe(6);
  });

  it('reads within a transaction what that transaction has written', async () => {
    const seen = await database.write(async (manager) => {
      await manager.insert(Person, person('a'));
      return database.read.count(Person);
    });
    expect(seen).toBe(1);
  });

  it('refuses a transaction within another one, which would wait for itself', async () => {
    const nested = database.write(() => database.write(() => Promise.resolve()));
    await expect(nested).rejects.toThrow('a transaction cannot wait for one within it');
    await database.write((manager) => manager.insert(Person, person('a')));
  });

  it('tells what changed once it is kept, and nothing of what is not', async () => {
    const told: string[] = [];
    database.changes.listen((changes) => told.push(...changes.map(({ topic }) => topic)));
    const about = { courseId: 'c', exchangeId: 'x' };
    await database.write((_, emit) => {
      emit.quietly({ topic: 'drafts', ...about });
      emit({ action: 'allocation-planned', actorId: 'a', ...about, details: { schedule: 'off' } });
      expect(told).toEqual([]);
      return Promise.resolve();
    });
    expect(told).toEqual(['allocation', 'drafts']);
    const failing = database.write((_, emit) => {
      emit.quietly({ topic: 'reviews', ...about });
      return Promise.reject(new Error('half-way'));
    });
    await expect(failing).rejects.toThrow('half-way');
    expect(told).toHaveLength(2);
  });

  it('waits for a command beside the server, and is waited for: neither is refused in the middle', async () => {
    const beside = await writerSource(folder).initialize();
    await beside.query('PRAGMA busy_timeout = 0');
    await database.write(async (manager) => {
      expect(await manager.count(Person)).toBe(0);
      // What was read is what will be there when it is written: nobody comes in between.
      await expect(beside.manager.insert(Person, person('b'))).rejects.toThrow('database is locked');
      await manager.insert(Person, person('a'));
    });
    await beside.manager.insert(Person, person('b'));
    await beside.destroy();
    expect(await database.read.count(Person)).toBe(2);
  });

  it('leaves the process free while somebody else holds the database, and says so after ten seconds', async () => {
    const beside = await writerSource(folder).initialize();
    await beside.query('BEGIN IMMEDIATE');
    let longest = 0;
    let last = performance.now();
    const watching = setInterval(() => {
      longest = Math.max(longest, performance.now() - last);
      last = performance.now();
    }, 5);
    const waiting = database.write((manager) => manager.insert(Person, person('a')));
    const given = database.write((manager) => manager.insert(Person, person('b')));
    const results = Promise.allSettled([waiting, given]);
    // Reading goes on meanwhile.
    await new Promise((done) => setTimeout(done, 300));
    expect(await database.read.count(Person)).toBe(0);
    const [first, second] = await results;
    clearInterval(watching);
    expect([first, second]).toMatchObject([{ reason: { status: 503 } }, { reason: { status: 503 } }]);
    // It waited for a lock of the driver's, 20 ms at a time; with the driver's own 5 s nothing would have gone on.
    expect(longest).toBeLessThan(2_500);
    const again = database.write((manager) => manager.insert(Person, person('c')));
    await beside.query('COMMIT');
    await again;
    expect(await database.read.count(Person)).toBe(1);
    await beside.destroy();
  });

  it('says when the disk is full, and goes on once there is room', async () => {
    const limit = (pages: number) => database.write((manager) => manager.query(`PRAGMA max_page_count = ${pages}`));
    const [{ page_count: pages }] = await database.read.query<[{ page_count: number }]>('PRAGMA page_count');
    await limit(pages);
    const much = { ...person('a'), name: 'x'.repeat(500_000) };
    await expect(database.write((manager) => manager.insert(Person, much))).rejects.toMatchObject({ status: 507 });
    expect(database.isFull).toBe(true);
    await limit(1_000_000);
    await database.write((manager) => manager.insert(Person, much));
    expect(database.isFull).toBe(false);
  });

  it('is not opened by a version that does not know all of its changes', async () => {
    await database.write((manager) =>
      manager.query("INSERT INTO migrations (timestamp, name) VALUES (9999999999999, 'Later9999999999999')"),
    );
    const opened = Database.open(folder, new Clock());
    await expect(opened).rejects.toThrow('was used by a newer Salt Circle');
    await expect(opened).rejects.toBeInstanceOf(SettingsError);
    await database.write((manager) => manager.query("DELETE FROM migrations WHERE name = 'Later9999999999999'"));
  });

  it('knows a restored or moved folder, and holds its mail until somebody says', async () => {
    const letter = {
      id: 'm',
      at: 0,
      address: 'a@example.org',
      courseId: null,
      exchangeId: null,
      subject: 's',
      text: 't',
    };
    await database.write((manager) => manager.insert(Mail, { ...letter, secret: null, state: 'waiting' }));
    // The first start, and starts after it, in the same place.
    expect([await settleInstallation(database, folder), await settleInstallation(database, folder)]).toEqual([
      false,
      false,
    ]);
    const copy = mkdtempSync(join(tmpdir(), 'salt-circle-'));
    const beside = await writerSource(folder).initialize();
    await beside.query(`VACUUM INTO '${join(copy, DATABASE_FILE)}'`);
    await beside.destroy();
    copyFileSync(join(folder, 'installation.json'), join(copy, 'installation.json'));
    const there = await Database.open(copy, new Clock());
    expect(await settleInstallation(there, copy)).toBe(true);
    // Started again in the copy's place, it is still held.
    expect(await settleInstallation(there, copy)).toBe(true);
    expect(await endHolding(there, 'drop')).toBe(1);
    expect(await there.read.findOneBy(Mail, { id: 'm' })).toMatchObject({ state: 'ended' });
    expect(await settleInstallation(there, copy)).toBe(false);
    await there.onApplicationShutdown();
    rmSync(copy, { recursive: true, force: true });
  });

  it('goes on after a failed transaction', async () => {
    await database.write(() => Promise.reject(new Error('no'))).catch(() => undefined);
    await database.write((manager) => manager.insert(Person, person('a')));
    expect(await database.read.count(Person)).toBe(1);
  });

  it('holds foreign keys, waits for locks, and logs ahead', async () => {
    const [keys, mode, busy] = await database.write(async (manager) => [
      await manager.query('PRAGMA foreign_keys'),
      await manager.query('PRAGMA journal_mode'),
      await manager.query('PRAGMA busy_timeout'),
    ]);
    expect([keys, mode, busy]).toEqual([[{ foreign_keys: 1 }], [{ journal_mode: 'wal' }], [{ timeout: 20 }]]);
    const orphan = database.write((manager) =>
      manager.query("INSERT INTO session VALUES ('t', 's', 'nobody', '', 0, 0, NULL)"),
    );
    await expect(orphan).rejects.toThrow(/FOREIGN KEY/);
  });

  it('cannot write by the reading connection', async () => {
    await expect(database.read.insert(Person, person('a'))).rejects.toThrow(/readonly/);
  });

  it('refuses to change or delete the record', async () => {
    await database.report({ action: 'signed-in', actorId: 'a' });
    for (const statement of ["UPDATE audit_entry SET action = 'x'", 'DELETE FROM audit_entry']) {
      await expect(database.write((manager) => manager.query(statement))).rejects.toThrow('append-only');
    }
    expect(await database.read.find(AuditEntry)).toMatchObject([{ action: 'signed-in', actorId: 'a' }]);
  });
});
