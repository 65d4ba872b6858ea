import { strToU8, zipSync } from 'fflate';
import { Enrolment } from '../../model/course.js';
import type { PeopleView, RosterApplied, RosterPreview, SessionView } from '@salt-circle/contracts';
import { handIn, publishedExchange } from '../../testing/acts.js';
import { ANN, BEN, INES } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

const COURSE = '/courses/course/people';
const encoded = (bytes: Uint8Array | string) => Buffer.from(bytes).toString('base64');
const ask = (source: { text?: string; base64?: string }, part: object = {}) => ({
  text: null,
  base64: null,
  classIds: [],
  traitColumn: null,
  ...source,
  ...part,
});
const preview = (source: { text?: string; base64?: string }, part: object = {}) =>
  world.do<RosterPreview>(INES, 'post', `${COURSE}/roster/preview`, ask(source, part));
const apply = async (source: { text?: string; base64?: string }, part: object = {}) => {
  const { fingerprint } = await preview(source);
  const body = { ...ask(source), dropMissing: false, invite: false, fingerprint, ...part };
  return world.as(INES, 'post', `${COURSE}/roster`, body);
};
const people = async () => (await world.do<PeopleView>(INES, 'get', COURSE)).people;
const names = async () => (await people()).filter(({ active }) => active).map(({ name }) => name);

const ROSTER = [
  'Name,E-Mail,Student ID,Section',
  'Ann Mensah,ann@example.org,c-1,Tuesday',
  '"Kiss, Ben",ben@example.org,c-2,Thursday',
  'Dee Novak,dee@example.org,c-4,Tuesday',
].join('\r\n');

describe('a roster', () => {
  it('is shown before it changes anything, then applied, and changes nothing a second time', async () => {
    const shown = await preview({ text: ROSTER });
    expect(shown).toMatchObject({
      add: [{ row: 4, name: 'Dee Novak' }],
      update: [{ row: 2, changes: ['section: none → Tuesday'] }, { row: 3 }],
      missing: [{ name: 'Cho Sato' }],
      problems: [],
      read: expect.stringMatching(
        /^3 people found\. “Name” was taken as name, “E-Mail” as address, “Student ID” as campus id/,
      ),
    });
    expect(await names()).not.toContain('Dee Novak');
    expect((await apply({ text: ROSTER })).body).toMatchObject({ added: 1, updated: 2, dropped: 0 });
    expect(await names()).toContain('Dee Novak');
    expect(await preview({ text: ROSTER })).toMatchObject({ add: [], update: [], unchanged: 3 });
  });

  // RFC 4180: quoted commas, line breaks and doubled quotes; the same rows as spreadsheets and people save them.
  const quoted = 'Name,Email,Note\r\n"Zoë ""Zo"" Ström",zoe@example.org,"two\r\nlines, one cell"\r\n';
  const encodings: Array<[string, string]> = [
    ['UTF-8', encoded(quoted)],
    ['UTF-8 with a mark', encoded(`\uFEFF${quoted}`)],
    ['UTF-16', encoded(Buffer.from(`\uFEFF${quoted}`, 'utf16le'))],
    ['Windows-1252', encoded(Buffer.from(quoted, 'latin1'))],
    [
      'semicolons',
      encoded(
        quoted.replace('Name,Email,Note', 'Name;Email;Note').replace('",zoe@example.org,"', '";zoe@example.org;"'),
      ),
    ],
    ['tabs, as pasted', encoded(`Name\tEmail\nZoë "Zo" Ström\tzoe@example.org`.replace(/"/g, ''))],
  ];
  it.each(encodings)('is read from %s', async (kind, base64) => {
    const { add, problems } = await preview({ base64 });
    const name = kind.startsWith('tabs') ? 'Zoë Zo Ström' : 'Zoë "Zo" Ström';
    expect([add, problems]).toEqual([
      [{ row: 2, name, email: 'zoe@example.org', role: 'student', campusId: null, section: null }],
      [],
    ]);
  });

  it('with one wrong row is not applied at all, and the row is named', async () => {
    const wrong = `${ROSTER}\r\nEli,not an address,c-5,Tuesday`;
    const { status, body } = await apply({ text: wrong });
    expect([status, body.code, body.fields[0].path]).toEqual([422, 'import-wrong', 'rows.5']);
    expect(body.fields[0].sentence).toBe('Row 5: “not an address” is not an email address. Correct it.');
    expect(await names()).not.toContain('Dee Novak');
  });

  it('says what is wrong with a file that is none', async () => {
    const sentence = async (source: { text?: string; base64?: string }) =>
      (await world.as(INES, 'post', `${COURSE}/roster/preview`, ask(source))).body.sentence as string;
    const workbook = zipSync({ 'xl/workbook.xml': strToU8('<workbook/>') });
    const older = new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, 0, 0]);
    for (const bytes of [workbook, older]) {
      const { body } = await world.as(INES, 'post', `${COURSE}/roster/preview`, ask({ base64: encoded(bytes) }));
      expect(body.sentence).toContain('workbook of a spreadsheet program');
      expect(body.whatToDo).toContain('CSV');
    }
    expect(await sentence({ base64: encoded('PK\u0003\u0004 broken') })).toContain('damaged');
    expect(await sentence({ text: 'name,email\n"Ann,ann@example.org' })).toContain('quotation mark opens in line 2');
    expect(await sentence({ text: '  ' })).toContain('nothing to read');
  });

  it('takes a formula for the letters it is written with', async () => {
    await apply({ text: 'name,email\n"=HYPERLINK(""http://x"")",eve@example.org' });
    expect(await names()).toContain('=HYPERLINK("http://x")');
  });

  it('is refused when people have changed since it was looked at', async () => {
    const { fingerprint } = await preview({ text: ROSTER });
    await apply({ text: 'name,email\nEve,eve@example.org' });
    const { status } = await apply({ text: ROSTER }, { fingerprint });
    expect(status).toBe(409);
  });

  it('drops those it does not name only when asked to, and takes them back with all their work', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    await handIn(world, BEN, id);
    const without = ROSTER.replace(/"Kiss.*\r\n/, '');
    expect((await apply({ text: without }, { dropMissing: true })).body).toMatchObject({ dropped: 2 });
    expect((await world.as(BEN, 'get', `/exchanges/${id}`)).status).toBe(404);
    const board = await world.do<{ rows: Array<{ dropped: boolean }> }>(INES, 'get', `/exchanges/${id}/progress`);
    expect(board.rows.filter(({ dropped }) => dropped)).toHaveLength(2);
    expect(await preview({ text: ROSTER })).toMatchObject({
      update: [{ name: 'Ben Kiss', changes: ['comes back, with all earlier work', 'section: none → Thursday'] }],
    });
    await apply({ text: ROSTER });
    const { versions } = await world.do<{ versions: unknown[] }>(BEN, 'get', `/exchanges/${id}/draft`);
    expect(versions).toHaveLength(1);
  });

  it('takes those who join into what is running', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    await apply({ text: ROSTER });
    const { figures } = await world.do<{ figures: { students: number } }>(INES, 'get', `/exchanges/${id}`);
    expect(figures.students).toBe(4);
  });

  it('is read from a OneRoster bundle, class by class', async () => {
    const csv = (...rows: string[]) => strToU8(`${rows.join('\r\n')}\r\n`);
    const bundle = zipSync({
      'export/manifest.csv': csv('propertyName,value', 'manifest.version,1.0', 'oneroster.version,1.2'),
      'export/users.csv': csv(
        'sourcedId,status,givenName,familyName,identifier,email',
        'u1,,Ann,Mensah,c-1,ann@example.org',
        'u2,,Fay,Orr,c-8,fay@example.org',
      ),
      'export/classes.csv': csv('sourcedId,title,courseSourcedId', 'k1,Tuesday,x', 'k2,Thursday,x'),
      'export/enrollments.csv': csv(
        'sourcedId,classSourcedId,userSourcedId,role',
        'e1,k1,u1,student',
        'e2,k2,u2,student',
      ),
    });
    const shown = await preview({ base64: encoded(bundle) });
    expect(shown.classes.map(({ title, students }) => [title, students])).toEqual([
      ['Tuesday', 1],
      ['Thursday', 1],
    ]);
    expect(shown.add).toMatchObject([{ name: 'Fay Orr' }]);
    expect((await preview({ base64: encoded(bundle) }, { classIds: ['k1'] })).add).toEqual([]);
  });

  it('of 5,000 rows is previewed and applied', async () => {
    const rows = Array.from({ length: 5000 }, (_, index) => `Student ${index},s${index}@example.org,n-${index}`);
    const text = ['name,email,id', ...rows].join('\n');
    const { body } = await apply({ text });
    expect((body as RosterApplied).added).toBe(5000);
    expect((await preview({ text })).unchanged).toBe(5000);
  });
});

describe('people by hand', () => {
  const NEW = {
    name: 'Dee Novak',
    email: 'Dee@Example.org',
    role: 'student',
    campusId: 'c-4',
    section: null,
    invite: false,
  };

  it('are added once, and keep ids apart', async () => {
    await world.do(INES, 'post', COURSE, NEW);
    const again = await world.as(INES, 'post', COURSE, NEW);
    expect([again.status, again.body.fields[0].sentence]).toEqual([422, 'Dee Novak is in the course already.']);
    const taken = await world.as(INES, 'post', COURSE, { ...NEW, email: 'other@example.org', campusId: 'c-1' });
    expect(taken.body.fields[0].path).toBe('campusId');
    expect(await names()).not.toContain('other@example.org');
  });

  it('never lose the last instructor', async () => {
    const ines = (await people()).find(({ you }) => you);
    const { status, body } = await world.as(INES, 'delete', `${COURSE}/${ines?.id}`);
    expect([status, body.fields[0].code]).toEqual([422, 'last-instructor']);
  });

  it('are listed as the course says, whatever account has taken the place', async () => {
    const ann = (await people()).find(({ name }) => name.startsWith('Ann'));
    const body = { name: 'A. Mensah', email: 'a.m@platform.example', role: 'student', campusId: 'c-1', section: 'B' };
    await world.do(INES, 'put', `${COURSE}/${ann?.id}`, body);
    expect((await people()).find(({ id }) => id === ann?.id)).toMatchObject({ ...body, place: 'taken' });
    const { person } = await world.do<SessionView>(ANN, 'get', '/session');
    expect(person).toMatchObject({ name: 'Ann Mensah', email: 'ann@example.org' });
    const taken = await world.as(INES, 'put', `${COURSE}/${ann?.id}`, { ...body, email: 'ben@example.org' });
    expect(taken.body.fields[0].code).toBe('email-taken');
  });
});

describe('whoever has lost the right', () => {
  it.each<[string, (fingerprint: string) => readonly ['post', string, object]]>([
    [
      'adds nobody',
      () => [
        'post',
        COURSE,
        { name: 'Eve', email: 'eve@example.org', role: 'student', campusId: null, section: null, invite: false },
      ],
    ],
    [
      'applies no roster',
      (fingerprint) => [
        'post',
        `${COURSE}/roster`,
        { ...ask({ text: ROSTER }), dropMissing: false, invite: false, fingerprint },
      ],
    ],
  ])('%s, also with a request that was waiting', async (_, request) => {
    const { fingerprint } = await preview({ text: ROSTER });
    const before = await world.database.read.countBy(Enrolment, { courseId: 'course' });
    await world.as(INES, 'get', COURSE);
    let go: () => void = () => undefined;
    const begun = new Promise<void>((resolve) => (go = resolve));
    const held = world.database.write(async (manager) => {
      await begun;
      await manager.update(Enrolment, { courseId: 'course', personId: 'p-ines' }, { role: 'assistant' });
    });
    const answer = world.as(INES, ...request(fingerprint)).then(({ status }) => status);
    // Time enough to come to stand in the queue behind that.
    await new Promise((resolve) => setTimeout(resolve, 300));
    go();
    await held;
    expect(await answer).toBe(403);
    expect(await world.database.read.countBy(Enrolment, { courseId: 'course' })).toBe(before);
  });
});
