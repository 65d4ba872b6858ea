import type { FormImportView, LibraryFormView, LibraryView } from '@salt-circle/contracts';
import { publishedExchange, reviewedExchange, leaveNote } from '../../testing/acts.js';
import { INES, ANN } from '../../testing/people.js';
import { FORM, PLAN } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

const LIBRARY = '/courses/course/library';
const add = async (kind: 'form' | 'shorthand', title: string, exchangeId: string | null = null) =>
  (await world.do(INES, 'post', LIBRARY, { kind, title, exchangeId })).id;
const entries = async (courseId = 'course') =>
  (await world.do<LibraryView>(INES, 'get', `/courses/${courseId}/library`)).entries.map(
    ({ kind, title }) => `${kind} ${title}`,
  );
const read = (name: string, text: string, part: object = {}) =>
  world.do<FormImportView>(INES, 'post', `${LIBRARY}/form-files`, {
    name,
    text,
    base64: null,
    index: 0,
    add: false,
    ...part,
  });

describe('forms of the library', () => {
  it('are kept from an exchange, changed apart from it, and used in the next one', async () => {
    const id = await publishedExchange(world);
    const kept = await add('form', 'Report form', id);
    const form = await world.do<LibraryFormView>(INES, 'get', `${LIBRARY}/forms/${kept}`);
    expect(form).toMatchObject({ title: 'Report form', items: FORM.items, revision: 1 });
    await world.do(INES, 'put', `${LIBRARY}/forms/${kept}`, {
      ...FORM,
      title: 'Short form',
      items: FORM.items.slice(1),
      revision: 1,
    });
    expect(await world.do(INES, 'get', `/exchanges/${id}/form`)).toMatchObject({ items: FORM.items });
    const { id: next } = await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Next' });
    await world.do(INES, 'post', `/exchanges/${next}/form/from-library`, { revision: 1, libraryId: kept });
    expect(await world.do(INES, 'get', `/exchanges/${next}/form`)).toMatchObject({
      items: FORM.items.slice(1),
      revision: 2,
    });
  });

  it('are not overwritten from a second tab', async () => {
    const id = await add('form', 'Report form');
    const save = (title: string) => world.as(INES, 'put', `${LIBRARY}/forms/${id}`, { ...FORM, title, revision: 1 });
    expect((await save('First')).status).toBe(200);
    expect((await save('Second')).body).toMatchObject({ code: 'conflict', current: { title: 'First' } });
    expect((await save('First')).status).toBe(200);
  });

  it('do not replace one that is frozen', async () => {
    const { id } = await reviewedExchange(world);
    const kept = await add('form', 'Empty');
    const used = await world.as(INES, 'post', `/exchanges/${id}/form/from-library`, { revision: 2, libraryId: kept });
    expect([used.status, used.body.code]).toEqual([409, 'form-frozen']);
    expect(used.body.sentence).toContain('2 drafts have been handed in');
  });

  it('go to another course of the same instructor, and to no other', async () => {
    const id = await add('form', 'Report form');
    const { id: other } = await world.do(INES, 'post', '/courses', { title: 'Tidal ecology', timeZone: 'UTC' });
    await world.do(INES, 'post', `${LIBRARY}/${id}/copies`, { courseId: other });
    expect(await entries(other)).toEqual(['form Report form']);
    expect((await world.as(INES, 'post', `${LIBRARY}/${id}/copies`, { courseId: 'elsewhere' })).status).toBe(404);
  });

  it('are written as open files and read back as what they were', async () => {
    const id = await add('form', 'Report form');
    await world.do(INES, 'put', `${LIBRARY}/forms/${id}`, { ...FORM, title: 'Réport: “form”', revision: 1 });
    const file = async (format: string) => world.as(INES, 'get', `${LIBRARY}/forms/${id}/files/${format}`);
    const json = await file('json');
    expect(json.headers['content-disposition']).toBe('attachment; filename="report-form.json"');
    const again = await read('report-form.json', json.text, { add: true });
    expect(again).toMatchObject({ kind: 'form-file', title: 'Réport: “form”', problems: [] });
    const copy = await world.do<LibraryFormView>(INES, 'get', `${LIBRARY}/forms/${again.addedId}`);
    const bare = (value: object) =>
      JSON.parse(JSON.stringify(value, (key, part: unknown) => (key === 'id' ? undefined : part))) as object;
    expect(bare(copy.items)).toEqual(bare(FORM.items));
    expect(await read('r.case.json', (await file('case')).text)).toMatchObject({
      kind: 'rubric',
      form: { items: [{ title: 'Evidence' }] },
    });
    const csv = await file('csv');
    expect(csv.text.slice(0, 1)).toBe('\uFEFF');
    expect(csv.text.slice(1).split('\r\n')[0]).toBe('criterion,level,description,points');
    expect(await read('r.csv', csv.text)).toMatchObject({
      kind: 'table',
      form: { items: [{ title: 'Evidence' }, { title: 'What first?' }] },
    });
    expect((await file('docx')).status).toBe(404);
  });

  it('never write a cell that a spreadsheet would run', async () => {
    const id = await add('form', 'Report form');
    const items = [{ ...FORM.items[1], title: '=HYPERLINK("http://x")' }];
    await world.do(INES, 'put', `${LIBRARY}/forms/${id}`, { ...FORM, items, title: 'F', revision: 1 });
    const { text } = await world.as(INES, 'get', `${LIBRARY}/forms/${id}/files/csv`);
    expect(text).toContain(`"'=HYPERLINK(""http://x"")"`);
  });

  it('are read only from what can be understood, and nothing is added by half', async () => {
    const wrong = await read('x.json', '{"format":"salt-circle/review-form","version":9}');
    expect(wrong.problems[0]?.sentence).toContain('is of version 9; version 1 can be read here');
    const { status } = await world.as(INES, 'post', `${LIBRARY}/form-files`, {
      name: 'x.csv',
      text: 'criterion,level,points\nA,B,many',
      base64: null,
      index: 0,
      add: true,
    });
    expect(status).toBe(422);
    const cut = await world.as(INES, 'post', `${LIBRARY}/form-files`, {
      name: 'x.json',
      text: '{"format":',
      base64: null,
      index: 0,
      add: false,
    });
    expect(cut.body.code).toBe('file-unreadable');
    expect(await entries()).toEqual([]);
  });
});

describe('shorthand', () => {
  const ENTRIES = [
    { key: 'S', label: 'Source?', meaning: 'Needs one.' },
    { key: 'u', label: 'Unit', meaning: '' },
  ];

  it('has a key of its own for each label', async () => {
    const id = await add('shorthand', 'Short');
    const save = (entries: object[]) =>
      world.as(INES, 'put', `${LIBRARY}/shorthand/${id}`, { title: 'Short', entries, revision: 1 });
    expect((await save([...ENTRIES, { key: 's', label: 'Spelling', meaning: '' }])).body.fields[0].path).toBe(
      'entries.2.key',
    );
    expect((await save(ENTRIES)).status).toBe(200);
  });

  it('is offered to the reviewers of an exchange that chose it', async () => {
    const id = await add('shorthand', 'Short');
    await world.do(INES, 'put', `${LIBRARY}/shorthand/${id}`, { title: 'Short', entries: ENTRIES, revision: 1 });
    const { byAnn } = await reviewedExchange(world, { shorthandId: id });
    const desk = await world.do<{ shorthand: Array<{ key: string }> }>(ANN, 'get', `/reviews/${byAnn}`);
    expect(desk.shorthand.map(({ key }) => key)).toEqual(['s', 'u']);
    await leaveNote(world, ANN, byAnn, { kind: 'fix', body: 'Source?' });
    await world.do(INES, 'delete', `${LIBRARY}/${id}`);
    expect((await world.do<{ shorthand: unknown[] }>(ANN, 'get', `/reviews/${byAnn}`)).shorthand).toEqual([]);
    expect(PLAN.shorthandId).toBeNull();
  });
});
