import type { ArchiveView, GradesView, ProgressView } from '@salt-circle/contracts';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { IsNull } from 'typeorm';
import { ForbiddenPair } from '../../model/allocation.js';
import { LookRequestRow } from '../../model/moderation.js';
import { Draft, DraftPicture } from '../../model/draft.js';
import { FileContent } from '../../model/stored-file.js';
import { Exchange, PersonalDatesRow, Participant } from '../../model/exchange.js';
import { GradingTask } from '../../model/grade.js';
import { GroupMemberRow, GroupSet, StudentGroup } from '../../model/group.js';
import { AdoptionRow } from '../../model/revision.js';
import { FileStore } from '../../platform/files/file-store.js';
import { Course } from '../../model/course.js';
import { Mail } from '../../model/mail.js';
import { Person } from '../../model/person.js';
import { Database } from '../../platform/database/database.js';
import { leaveNote, NOTE_ID, reviewedExchange, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, PEOPLE, TOM } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { begin, sample, send } from '../../testing/uploads.js';
import { World } from '../../testing/world.js';
import { SCHEMA_FILE } from './archive-schema.js';
import type { Line } from './kept/lines.js';
import { LEFT_OUT, TABLES } from './kept/tables.js';

let world: World;
let id: string;
let byAnn: string;
let byBen: string;

beforeEach(async () => {
  world = await World.open();
  ({ id, byAnn, byBen } = await reviewedExchange(world));
  await world.app.get(Database).write(async (manager) => {
    await manager.update(Person, { id: PEOPLE[INES]?.id }, { createsCourses: true, addressConfirmedAt: 1 });
  });
});
afterEach(() => world.close());

type Members = Record<string, Uint8Array>;
async function archived(exchangeId = id, query = ''): Promise<Members> {
  const { status, body } = await world.file(INES, `/exchanges/${exchangeId}/archive.zip${query}`);
  expect(status).toBe(200);
  return unzipSync(new Uint8Array(body as Buffer));
}
const rowsOf = (members: Members, table: string): Line[] =>
  strFromU8(members[`rows/${table}.jsonl`] ?? new Uint8Array())
    .split('\n')
    .filter((line) => line !== '')
    .map((line) => JSON.parse(line) as Line);
async function uploaded(members: Members, who: number = INES): Promise<string> {
  const bytes = Buffer.from(zipSync(members));
  const upload = await begin(world, who, { exchangeId: '', deliverableId: '', name: 'a.zip', use: 'archive', bytes });
  await send(world, who, upload.id, bytes);
  return upload.id;
}
const preview = async (members: Members) =>
  world.as(INES, 'post', '/archives/preview', { uploadId: await uploaded(members) });
const read = async (members: Members) =>
  world.as(INES, 'post', '/archives', { uploadId: await uploaded(members), courseTitle: 'Read back' });
const taken = async (members: Members) => (await read(members)).body as { courseId: string; exchangeId: string };

/** All ids of rows, and of people, in order. */
function idsOf(members: Members): string[] {
  const ids = TABLES.flatMap(({ name }) =>
    rowsOf(members, name).flatMap((row) => (typeof row['id'] === 'string' ? [row['id']] : [])),
  );
  const persons = rowsOf(members, 'enrolment')
    .filter(({ email }) => email !== PEOPLE[INES]?.email)
    .map(({ personId }) => personId as string);
  return [...ids, ...persons].sort();
}

/** Each table as text, with the ids of the first in the place of those of the second. */
function tablesOf(members: Members, instead: ReadonlyMap<string, string> = new Map()): Record<string, unknown> {
  const within = (value: unknown): unknown => {
    if (typeof value === 'string') return [...instead].reduce((so, [from, to]) => so.replaceAll(from, to), value);
    if (Array.isArray(value)) return value.map(within);
    if (value === null || typeof value !== 'object') return value;
    return Object.fromEntries(Object.entries(value).map(([key, one]) => [within(key), within(one)]));
  };
  return Object.fromEntries(
    TABLES.map(({ name }) => [
      name,
      rowsOf(members, name)
        .map((row) => JSON.stringify(within(row)))
        .sort(),
    ]),
  );
}

/** Tables that nothing is in, here: held by the journeys of the demo. */
const EMPTY_HERE = [
  'library_item',
  'exchange_attachment',
  'review_check',
  'reply',
  'rating',
  'decision',
  'reflection',
  'grade_override',
  'reviewing_mark',
  'practice_try',
] as const;

/** Read back and archived again, it is the same. */
async function expectSame(first: Members): Promise<void> {
  const { exchangeId } = await taken(first);
  const second = await archived(exchangeId);
  const [from, to] = [idsOf(second), idsOf(first)];
  expect(from).toHaveLength(to.length);
  const ines = (members: Members) =>
    rowsOf(members, 'enrolment').find(({ email }) => email === PEOPLE[INES]?.email)?.['personId'] as string;
  const back = new Map([
    ...from.map((one, index) => [one, to[index] as string] as const),
    [ines(second), ines(first)] as const,
  ]);
  const [was, is] = [tablesOf(first), tablesOf(second, back)];
  // What was done here is on record here; staff of then wait to be asked, and who is told already is not told again.
  for (const table of TABLES.map(({ name }) => name)) {
    if (['record', 'enrolment', 'participant'].includes(table)) continue;
    expect({ [table]: is[table] }).toEqual({ [table]: was[table] });
  }
  const places = (members: Members) => rowsOf(members, 'enrolment').map(({ name, role }) => [name, role]);
  expect(places(second).sort()).toEqual(places(first).sort());
  const active = rowsOf(second, 'enrolment').filter((row) => row['active'] === true);
  expect(active.map(({ name }) => name).sort()).toEqual([INES, ANN, BEN, CHO].map((who) => PEOPLE[who]?.name).sort());
}

describe('an archive of an exchange', () => {
  it.each([
    ['while it is reviewed', AT.reviewing],
    ['while it is checked', AT.checking],
    ['once it is over', AT.closed],
  ])('%s comes back as it was, field by field', async (_, at) => {
    await leaveNote(world, ANN, byAnn);
    await submitFilled(world, ANN, byAnn);
    await leaveNote(world, BEN, byBen, {}, '8f1c2a34-5b6d-4e8f-9a0b-1c2d3e4f5a6b');
    world.clock.goTo(at);
    await expectSame(await archived());
  });

  it('comes back with groups, own times, practice, files, pictures, and all that is done around reviews', async () => {
    await world.do(INES, 'post', `/exchanges/${id}/practice`, {
      title: 'To practise on',
      from: 'text',
      html: '<p>Mud.</p>',
    });
    await leaveNote(world, ANN, byAnn);
    const upload = await begin(world, ANN, {
      exchangeId: id,
      deliverableId: byAnn,
      name: 'a.docx',
      use: 'remark',
      bytes: sample('report.docx'),
    });
    await send(world, ANN, upload.id, sample('report.docx'));
    await world.do(ANN, 'post', `/reviews/${byAnn}/files`, { uploadId: upload.id, noteId: NOTE_ID });
    await submitFilled(world, ANN, byAnn);
    await world.do(ANN, 'post', `/reviews/${byAnn}/reopen`, {});
    const kept = { kind: 'note', targetId: NOTE_ID, reason: 'Not about the draft.', told: true, counts: false };
    await world.do(INES, 'put', `/reviews/${byAnn}/withheld`, kept);
    const store = world.app.get(FileStore);
    const path = join(await store.workFolder(), 'picture');
    writeFileSync(path, sample('picture.png'));
    const { digest } = await store.adopt(path);
    const database = world.app.get(Database);
    await database.write(async (manager) => {
      const [draft] = await manager.findBy(Draft, { exchangeId: id });
      const parts = await manager.findBy(Participant, { exchangeId: id });
      const [one, other] = parts as [Participant, Participant, ...Participant[]];
      const draftId = draft?.id ?? '';
      await manager.insert(FileContent, { digest });
      await manager.insert(DraftPicture, { draftId, digest });
      await manager.insert(GroupSet, { id: 'set', courseId: 'course', title: 'Teams', createdAt: 1 });
      await manager.insert(StudentGroup, { id: 'team', setId: 'set', title: 'Waders', position: 1 });
      await manager.insert(GroupMemberRow, { setId: 'set', enrolmentId: `e-${ANN}`, groupId: 'team' });
      await manager.update(Exchange, { id }, { groupSetId: 'set' });
      const times = { exchangeId: id, excused: true, reason: 'Away' };
      await manager.insert(PersonalDatesRow, [
        { id: 't-1', ...times, enrolmentId: `e-${BEN}` },
        { id: 't-2', ...times, groupId: 'team', draftsDue: 5 },
      ]);
      await manager.insert(ForbiddenPair, { exchangeId: id, reviewerId: one.id, authorId: other.id });
      await manager.insert(GradingTask, { participantId: one.id, work: 'draft', graderId: PEOPLE[TOM]?.id ?? '' });
      const asked = { words: 'Please look.', at: 7, answer: null, answeredAt: null };
      await manager.insert(LookRequestRow, {
        id: 'l-1',
        reviewId: byAnn,
        noteId: NOTE_ID,
        participantId: other.id,
        ...asked,
      });
      const adopted = { deliverableId: 'text', before: '<p>a</p>', after: '<p>b</p>', at: 8 };
      await manager.insert(AdoptionRow, { id: 'a-1', draftId, noteId: NOTE_ID, ...adopted });
    });
    const members = await archived();
    const empty = TABLES.filter(({ name }) => rowsOf(members, name).length === 0).map(({ name }) => name);
    expect(empty).toEqual([...EMPTY_HERE]);
    await expectSame(members);
  });

  it('is described by its schema, which is made from the types of the rows', async () => {
    const { createGenerator } = await import('ts-json-schema-generator');
    const here = import.meta.dirname;
    const made = createGenerator({
      ...{ path: join(here, 'kept/rows.ts'), tsconfig: join(here, '../../../tsconfig.json'), type: 'ExchangeArchive' },
      ...{ expose: 'export', topRef: false, skipTypeCheck: true, sortProps: true },
    }).createSchema('ExchangeArchive');
    const kept = JSON.parse(readFileSync(SCHEMA_FILE, 'utf8')) as { title: string };
    // Else: node scripts/archive-schema.mjs.
    expect({ ...made, title: kept.title }).toEqual(kept);
    const { connection } = world.app.get(Database).read;
    expect(connection.entityMetadatas.map(({ tableName }) => tableName).sort()).toEqual(
      [...TABLES.map(({ entity }) => connection.getMetadata(entity).tableName), ...Object.keys(LEFT_OUT)].sort(),
    );
  });

  it('is made by instructors and read by whoever makes courses', async () => {
    const members = await archived();
    const statuses = await Promise.all([TOM, ANN].map((who) => world.file(who, `/exchanges/${id}/archive.zip`)));
    expect(statuses.map(({ status }) => status)).toEqual([403, 403]);
    const uploadId = await uploaded(members);
    const asked = [TOM, ANN].map((who) => world.as(who, 'post', '/archives/preview', { uploadId }));
    expect((await Promise.all(asked)).map(({ status }) => status)).toEqual([403, 403]);
    const bytes = Buffer.from(zipSync(members));
    const begun = await begin(world, ANN, { exchangeId: '', deliverableId: '', name: 'a.zip', use: 'archive', bytes });
    expect(begun.response.status).toBe(403);
    expect((await preview(members)).body).toMatchObject({
      ...{ title: 'Field report', courseTitle: 'Coastal Restoration', people: 'names', drafts: true, you: true },
      ...{ students: 3, staff: ['Tomasz Wilk'], remarks: [] },
    });
  });

  it('looks the same to whoever reads it', async () => {
    await leaveNote(world, ANN, byAnn);
    await submitFilled(world, ANN, byAnn);
    const { exchangeId } = await taken(await archived());
    const board = async (of: string) => {
      const { rows } = await world.do<ProgressView>(INES, 'get', `/exchanges/${of}/progress`);
      return rows.map(({ person, reviews }) => [
        person.name,
        person.alias,
        reviews.map(({ state, notes }) => [state, notes]),
      ]);
    };
    expect(await board(exchangeId)).toEqual(await board(id));
    const grades = async (of: string) =>
      (await world.do<GradesView>(INES, 'get', `/exchanges/${of}/grades`)).rows.map(({ person, grade }) => [
        person.name,
        grade,
      ]);
    expect(await grades(exchangeId)).toEqual(await grades(id));
    // Nobody was let in by it, and nobody was told.
    expect((await world.as(ANN, 'get', `/exchanges/${exchangeId}`)).status).toBe(404);
    expect(await world.app.get(Database).read.countBy(Mail, { exchangeId })).toBe(0);
  });
});

describe('an archive for research', () => {
  it('tells nobody’s name, address or day, and lists what was found in texts', async () => {
    await leaveNote(world, ANN, byAnn, { body: 'As Ben Kiss says, and ann@example.org knows.' });
    await submitFilled(world, ANN, byAnn);
    const members = await archived(id, '?people=aliases');
    const { 'finds.csv': finds, ...others } = members;
    const all = Object.values(others)
      .map((one) => strFromU8(one))
      .join('\n');
    for (const { name, email, campusId = '-' } of PEOPLE) {
      for (const word of [...name.split(' '), email, `"${campusId}"`])
        expect(`${word}: ${new RegExp(`\\b${word}\\b`).exec(all)?.[0] ?? 'nowhere'}`).toBe(`${word}: nowhere`);
    }
    expect(strFromU8(finds as Uint8Array)).toContain(',body,Ben Kiss,yes');
    const [note] = rowsOf(members, 'note');
    expect(note?.['body']).toBe('As •••••••• says, and ••••••••••••••• knows.');
    const [was] = rowsOf(await archived(), 'exchange');
    const [is] = rowsOf(members, 'exchange');
    const moved = (is?.['draftsDue'] as number) - (was?.['draftsDue'] as number);
    expect([moved % (7 * 24 * 3_600_000), moved === 0]).toEqual([-0, false]);
    expect((is?.['reviewsDue'] as number) - (was?.['reviewsDue'] as number)).toBe(moved);
    expect((await preview(members)).body).toMatchObject({ people: 'aliases', you: false });
    expect((await read(members)).status).toBe(201);
  });

  it('has ids of its own: nothing in it can be joined with the installation, or with another archive', async () => {
    await leaveNote(world, ANN, byAnn);
    await submitFilled(world, ANN, byAnn);
    const [named, one, other] = [
      await archived(),
      await archived(id, '?people=aliases'),
      await archived(id, '?people=aliases'),
    ];
    const idsIn = (members: Members) => {
      const all = TABLES.flatMap(({ name }) => rowsOf(members, name)).map((row) => JSON.stringify(row));
      return new Set(all.join().match(/[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g) ?? []);
    };
    const [ofNamed, ofOne, ofOther] = [idsIn(named), idsIn(one), idsIn(other)];
    expect(ofNamed.size).toBeGreaterThan(10);
    const shared = (a: Set<string>, b: Set<string>) => [...a].filter((each) => b.has(each));
    expect([shared(ofNamed, ofOne), shared(ofOne, ofOther)]).toEqual([[], []]);
    const whole = Object.values(one)
      .map((member) => strFromU8(member))
      .join();
    for (const row of await world.database.read.find(Person)) expect(whole).not.toContain(`"${row.id}"`);
    expect(rowsOf(one, 'draft_version').map(({ digest }) => digest)).toEqual(
      rowsOf(named, 'draft_version').map(() => ''),
    );
    // Order tells nothing either: in the order of what is there, the authors come in another one each time.
    const order = (members: Members) => rowsOf(members, 'participant').map(({ alias }) => alias);
    expect([...order(one)].sort()).toEqual([...order(named)].sort());
    // References hold.
    expect((await read(one)).status).toBe(201);
  });

  it('is without what was handed in where that is wished', async () => {
    await leaveNote(world, ANN, byAnn);
    const members = await archived(id, '?drafts=no');
    const all = Object.values(members)
      .map((one) => strFromU8(one))
      .join('\n');
    expect(all).not.toContain('grazed the islands');
    expect(all).not.toContain('bed rose');
    expect(rowsOf(members, 'note')).toHaveLength(1);
    expect((await read(members)).status).toBe(201);
  });
});

describe('an archive that is not as it came', () => {
  const change = (members: Members, name: string, make: (text: string) => string): Members => ({
    ...members,
    [name]: strToU8(make(strFromU8(members[name] as Uint8Array))),
  });
  const rows = (members: Members, table: string, make: (row: Line) => object) =>
    change(members, `rows/${table}.jsonl`, (text) =>
      text
        .split('\n')
        .map((line) => (line === '' ? '' : JSON.stringify(make(JSON.parse(line) as Line))))
        .join('\n'),
    );
  /** A file that is attached to the brief, as the rows say it. */
  const withFile = (members: Members, bytes: Uint8Array): Members => {
    const digest = createHash('sha256').update(bytes).digest('hex');
    const [exchange] = rowsOf(members, 'exchange');
    const attachment = { id: 'f', exchangeId: exchange?.['id'], place: 'brief', digest, name: 'a.pdf', addedAt: 1 };
    const stored = { digest, size: bytes.length, mime: 'application/pdf', family: 'pdf' };
    const line = (row: object) => strToU8(`${JSON.stringify(row)}\n`);
    const counted = change(members, 'manifest.json', (text) =>
      text
        .replace('"exchange_attachment": 0', '"exchange_attachment": 1')
        .replace('"stored_file": 0', '"stored_file": 1'),
    );
    return {
      ...counted,
      ...{ 'rows/exchange_attachment.jsonl': line(attachment), 'rows/stored_file.jsonl': line(stored) },
      [`files/${digest}`]: bytes,
    };
  };
  const without = (members: Members, name: string) =>
    Object.fromEntries(Object.entries(members).filter(([key]) => key !== name));

  it('is refused in words, and changes nothing', async () => {
    await leaveNote(world, ANN, byAnn);
    const good = await archived();
    const wrong: ReadonlyArray<readonly [Members, string]> = [
      [without(good, 'manifest.json'), 'has no manifest.json'],
      [{ 'a.txt': strToU8('a') }, 'not the archive of an exchange'],
      [
        change(good, 'manifest.json', (text) => text.replace('"version": 3', '"version": 4')),
        'made by a newer Salt Circle',
      ],
      [change(good, 'manifest.json', () => '{'), 'is not JSON'],
      [
        change(good, 'manifest.json', (text) => text.replace('"aliases"', '"x"').replace('"names"', '"x"')),
        'manifest.json is not as',
      ],
      [without(good, 'rows/review.jsonl'), 'lacks its rows of “review”'],
      [change(good, 'rows/note.jsonl', (text) => `${text}{`), 'Line 2 of “note” is not JSON.'],
      [change(good, 'manifest.json', (text) => text.replace('"note": 1', '"note": 2')), 'says that they are 2'],
      [
        rows(good, 'enrolment', (row) => ({ ...row, email: 'one@example.org' })),
        'Rows of “enrolment” contradict each other',
      ],
      [rows(good, 'note', (row) => ({ ...row, kind: 'praise' })), 'Line 1 of “note” is not as such archives have it'],
      [rows(good, 'note', (row) => ({ ...row, selector: { type: 'text' } })), 'Line 1 of “note” is not as'],
      [rows(good, 'note', (row) => ({ ...row, admin: true })), 'Line 1 of “note” is not as'],
      [rows(good, 'note', (row) => ({ ...row, revision: 1e300 })), '“revision” is no number'],
      [
        rows(good, 'note', (row) => ({ ...row, reviewId: 'none' })),
        '“reviewId” names a row that is not in the archive',
      ],
      // Ids of others, who are here.
      [
        rows(good, 'participant', (row) => ({ ...row, personId: 'p-out' })),
        '“personId” names a row that is not in the archive',
      ],
      [rows(good, 'enrolment', (row) => ({ ...row, id: 'e-1' })), 'its id is there already'],
      [rows(good, 'exchange', (row) => ({ ...row, practiceOf: 'x' })), 'does not hold one exchange'],
      [rows(good, 'draft', (row) => ({ ...row, title: 'x'.repeat(2_000) })), '“title” is too long'],
      [{ ...good, 'rows/person.jsonl': strToU8('') }, 'nothing that is known here'],
      [withFile(good, strToU8('')), 'of this archive is not taken: This file is empty.'],
    ];
    const { read: manager } = world.app.get(Database);
    const before = await manager.count(Course);
    for (const [members, sentence] of wrong) {
      const { status, body } = await read(members);
      expect([sentence, status, body.sentence]).toEqual([sentence, 422, expect.stringContaining(sentence)]);
      expect(body.whatToDo).toContain('Nothing has changed here.');
    }
    const uploadId = await uploaded(good);
    const damaged = Buffer.from(zipSync(good)).subarray(0, 900);
    const upload = await begin(world, INES, {
      exchangeId: '',
      deliverableId: '',
      name: 'a.zip',
      use: 'archive',
      bytes: damaged,
    });
    await send(world, INES, upload.id, damaged);
    expect((await world.as(INES, 'post', '/archives/preview', { uploadId: upload.id })).body.sentence).toContain('ZIP');
    expect((await world.as(INES, 'post', '/archives', { uploadId, courseTitle: ' ' })).status).toBe(422);
    expect(await manager.count(Course)).toBe(before);
  });

  it('opens no file of this server that it does not bring itself', async () => {
    const bytes = sample('report.docx');
    const upload = await begin(world, ANN, {
      exchangeId: id,
      deliverableId: byAnn,
      name: 'a.docx',
      use: 'remark',
      bytes,
    });
    await send(world, ANN, upload.id, bytes);
    await leaveNote(world, ANN, byAnn);
    await world.do(ANN, 'post', `/reviews/${byAnn}/files`, { uploadId: upload.id, noteId: NOTE_ID });
    const good = await archived();
    const [file] = rowsOf(good, 'review_file');
    const digest = file?.['digest'] as string;
    const evil = rows(without(good, `files/${digest}`), 'draft_part', (row) => ({ ...row, digest, kind: 'file' }));
    const { exchangeId } = await taken(evil);
    const back = await archived(exchangeId);
    expect(rowsOf(back, 'draft_part').map((row) => row['digest'])).toEqual(rowsOf(good, 'draft_part').map(() => null));
    expect([rowsOf(back, 'review_file').length, Object.keys(back).filter((name) => name.startsWith('files/'))]).toEqual(
      [0, []],
    );
  });

  it('cannot bring in scripts, other addresses, or accounts', async () => {
    const good = await archived();
    const evil = rows(
      rows(good, 'exchange', (row) => ({ ...row, briefHtml: '<p onclick="x()">Hi<script>x()</script></p>' })),
      'draft_part',
      (row) => ({
        ...row,
        url: 'javascript:x()',
        html: `${row['html'] as string}<img src="https://elsewhere.example/x.png">`,
      }),
    );
    const { exchangeId } = await taken(evil);
    const back = await archived(exchangeId);
    expect(rowsOf(back, 'exchange')[0]?.['briefHtml']).toBe('<p>Hi</p>');
    const parts = rowsOf(back, 'draft_part').map(({ url, html }) => `${url as string}${html as string}`);
    expect(parts.join()).not.toMatch(/javascript|elsewhere/);
    // Whoever is in it as staff is of no staff here, and its people are nobody's accounts.
    const persons = await world.app.get(Database).read.findBy(Person, { email: IsNull() });
    expect(persons.length).toBeGreaterThan(0);
    expect(persons.every(({ createsCourses, passwordHash }) => !createsCourses && passwordHash === null)).toBe(true);
  });

  it('of an older version is filled in, with a sentence', async () => {
    const good = await archived();
    // The flagging rules had another name, and told grades were words.
    const named = rows(good, 'exchange', ({ draftForm: _, reviewingEach: __, flaggingRules: doubtBounds, ...row }) => ({
      ...row,
      doubtBounds,
    }));
    const told = ['17.5 of 20', '87%', '', 'Very good'];
    const older = change(
      rows(named, 'participant', (row) => ({ ...row, gradeTold: told.shift() ?? null })),
      'manifest.json',
      (text) => text.replace('"version": 3', '"version": 1'),
    );
    const remarks = ((await preview(older)).body as ArchiveView).remarks.join('\n');
    expect(remarks).toContain('“exchange.draftForm” was not known yet when this archive was made: it was filled in.');
    const { exchangeId } = await taken(older);
    const back = await archived(exchangeId);
    const grades = rowsOf(back, 'participant').map(({ gradeTold }) => JSON.stringify(gradeTold));
    for (const grade of [
      { scale: 'points', value: 17.5, of: 20 },
      { scale: 'percent', value: 87 },
    ])
      expect(grades).toContain(JSON.stringify(grade));
    const [row] = rowsOf(back, 'exchange');
    expect([row?.['draftForm'], row?.['reviewingEach'], row?.['flaggingRules']]).toEqual([null, false, null]);
  });
});
