import type { DeskView, FeedbackView, HandInCheck, MyDraftView } from '@salt-circle/contracts';
import { PDFDocument, PDFString } from '@cantoo/pdf-lib';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { Copies } from '../../features/reading/copies.service.js';
import { attached, begin, exchangeOfFiles, sample, send } from '../uploads.js';
import { practiceOn, tryPractice } from '../practice.js';
import { allocateAll, fillIn, handInSaved, leaveNote, reviewedExchange, write } from '../acts.js';
import { ANN, BEN, INES, PEOPLE, type TestPerson } from '../people.js';
import { AT, DATES, DAY, PLAN } from '../plan.js';
import { World } from '../world.js';

/** Ben, and somebody else in his place: every field of the person differs, what the person does is the same. */
const OTHER: TestPerson = {
  id: 'a-first-in-any-order',
  name: 'Zoë Ångström-O’Neill the Third',
  email: 'z@elsewhere.example',
  campusId: '0000',
  role: 'student',
};

function peopleWith(ben: TestPerson): TestPerson[] {
  return PEOPLE.map((person, index) => (index === BEN ? ben : person));
}

/** Everything that Ann gets to read through the whole exchange, as sent: status, headers, body. */
async function allThatAnnSees(ben: TestPerson, part: Partial<typeof PLAN>): Promise<string[]> {
  const world = await World.open({}, peopleWith(ben));
  const seen: string[] = [];
  try {
    const ids = await reviewedExchange(world, { ...LATER, ...part });
    const { practiceId } = await practiceOn(world, ids.id);
    const byBen = await tryPractice(world, BEN, practiceId);
    const exchange = `/exchanges/${ids.id}`;
    const board = await world.do<{ rows: Array<{ person: { name: string }; draft: { id: string } }> }>(
      INES,
      'get',
      `${exchange}/progress`,
    );
    const draft = board.rows.find(({ person }) => person.name === ben.name)?.draft.id ?? '';
    const look = async () => {
      const paths = [
        '/today',
        '/courses',
        '/courses/course',
        exchange,
        `${exchange}/form`,
        `${exchange}/draft`,
        `${exchange}/reviews`,
        `${exchange}/drafts/${draft}`,
        `${exchange}/feedback`,
        `${exchange}/progress`,
        `${exchange}/allocation`,
        `/reviews/${ids.byAnn}`,
        `/reviews/${ids.byBen}`,
        `${exchange}/practice`,
        `/practice/${practiceId}/result`,
        `/reviews/${byBen}`,
        `/reviews/${ids.byAnn}/look-requests`,
        `/reviews/${ids.byBen}/look-requests`,
        `/reviews/${ids.byAnn}/replies`,
        `/reviews/${ids.byBen}/replies`,
        `/reviews/${ids.byAnn}/others`,
        `${exchange}/decisions`,
        `${exchange}/drafts/${draft}/revision`,
        `${exchange}/grade`,
        `${exchange}/feedback/notes.jsonld`,
        `/reviews/${ids.byAnn}/notes.jsonld`,
        `/reviews/${ids.byAnn}/draft.docx`,
        `${exchange}/feedback/draft.docx`,
        `/reviews/${ids.byAnn}/earlier`,
        `/reviews/${ids.byBen}/earlier`,
        '/inbox',
      ];
      for (const path of paths) {
        const { status, headers, text, body } = await (path.endsWith('.docx')
          ? world.file(ANN, path)
          : world.as(ANN, 'get', path));
        const { date: _date, connection: _connection, ...told } = headers as Record<string, string>;
        // Of a file its bytes.
        const read = Buffer.isBuffer(body) ? body.toString('latin1') : text;
        seen.push(`${path} ${status} ${JSON.stringify(told)} ${read}`);
      }
    };
    await look();
    await tryPractice(world, ANN, practiceId);
    await fillIn(world, BEN, ids.byBen);
    await leaveNote(world, BEN, ids.byBen);
    await world.do(BEN, 'post', `/reviews/${ids.byBen}/submit`);
    // Asked about, looked at, withheld in part and answered: none of it is Ann's to know.
    const words = `It says who ${ben.name} is.`;
    await world.do(BEN, 'post', `/reviews/${ids.byBen}/look-requests`, { noteId: null, words });
    await world.do(INES, 'put', `/reviews/${ids.byBen}/check`, { looked: true, dismissed: [] });
    const [asked] = await world.do<Array<{ id: string }>>(INES, 'get', `/reviews/${ids.byBen}/look-requests`);
    await world.do(INES, 'put', `/reviews/${ids.byBen}/look-requests/${asked?.id}`, { answer: ben.name });
    await world.do(INES, 'put', `/reviews/${ids.byBen}/withheld`, {
      ...{ kind: 'answer', targetId: 'first', reason: ben.name, told: true, counts: true },
    });
    await fillIn(world, ANN, ids.byAnn);
    const { text } = await world.as(ANN, 'post', `/reviews/${ids.byAnn}/submit`);
    seen.push(text);
    for (const at of [AT.reviewing, AT.checking, AT.closed]) {
      world.clock.goTo(at);
      if (at === AT.closed) await goOn(world, ids, ben);
      if (at === AT.closed) await gradeBoth(world, ids.id, ben);
      await look();
    }
  } finally {
    await world.close();
  }
  return seen;
}

/** Ben's grade is overridden with his name as the reason, and both are released; an own review of Ann's draft names him to staff alone. */
async function gradeBoth(world: World, id: string, ben: TestPerson): Promise<void> {
  const { rows } = await world.do<{ rows: Array<{ id: string; person: { name: string } }> }>(
    INES,
    'get',
    `/exchanges/${id}/grades`,
  );
  const row = rows.find(({ person }) => person.name === ben.name);
  await world.do(INES, 'put', `/exchanges/${id}/grades/${row?.id}/override`, { part: '', value: 70, reason: ben.name });
  await world.do(INES, 'post', `/exchanges/${id}/grades/release`, { how: 'all', at: null, participantIds: [] });
}

/** What comes after the release, with everything that the plan lets the other side see. */
const LATER: Partial<typeof PLAN> = {
  dates: {
    ...DATES,
    repliesDue: new Date(AT.closed + 3 * DAY).toISOString(),
    revisionDue: new Date(AT.closed + 5 * DAY).toISOString(),
  },
  gradeParts: [
    { part: 'reviews-done', weight: 1 },
    { part: 'peer-score', weight: 2 },
    { part: 'review-quality', weight: 1 },
  ],
  after: { ratings: 'at-once', reflection: null, othersReviews: true, revisionShown: true },
};

/** Both answer each other; Ben says how Ann’s review helped, decides, and hands in a revision. His name is where only staff read it. */
async function goOn(
  world: World,
  { id, byAnn, byBen }: { readonly id: string; readonly byAnn: string; readonly byBen: string },
  ben: TestPerson,
): Promise<void> {
  const say = (who: number, review: string, words: string, last: number) =>
    world.do(who, 'post', `/reviews/${review}/replies`, {
      ...{ id: `0b7c1d55-52a4-4f0e-9d6a-00000000000${last}`, noteId: null, itemId: null },
      words,
    });
  await say(ANN, byBen, 'By whom was it read?', 1);
  await say(BEN, byBen, 'By the warden.', 2);
  await say(BEN, byAnn, 'Thank you.', 3);
  await say(INES, byAnn, 'Well seen.', 4);
  await world.do(BEN, 'put', `/reviews/${byAnn}/rating`, { helped: 'carried-on', words: 'It named the gauge.' });
  const why = `${ben.name} does not want to.`;
  const decision = { decision: 'will-not', why, done: false, revision: 0 };
  await world.as(BEN, 'put', `/exchanges/${id}/decisions/next.${byAnn}.first`, decision);
  const { revision = 0 } = (await world.do<MyDraftView>(BEN, 'get', `/exchanges/${id}/draft`)).texts['text'] ?? {};
  const html = '<p>Geese have grazed the islands bare since 2009, as the warden counted.</p>';
  await world.do(BEN, 'put', `/exchanges/${id}/draft/texts/text`, { revision, html });
  const { fingerprint } = await world.do<HandInCheck>(BEN, 'get', `/exchanges/${id}/draft/check`);
  await world.do(BEN, 'post', `/exchanges/${id}/draft/hand-in`, { fingerprint, namesSeen: true, changes: ben.name });
}

describe('anonymity as non-interference', () => {
  it('gives the same bytes whoever the hidden author and reviewer is', async () => {
    const withBen = await allThatAnnSees(PEOPLE[BEN] as TestPerson, { names: 'both-ways' });
    const withOther = await allThatAnnSees(OTHER, { names: 'both-ways' });
    // Ann has read a draft and feedback: there was something to give away.
    expect(withBen.join()).toContain('Geese have grazed');
    expect(withBen.join()).toContain('How was this measured?');
    expect(withBen.join()).toContain('as the warden counted');
    expect(withBen.join()).toContain('It named the gauge.');
    expect(withOther).toEqual(withBen);
  });

  it('notices when a name does show: with open names the answers differ', async () => {
    const withBen = await allThatAnnSees(PEOPLE[BEN] as TestPerson, { names: 'open' });
    const withOther = await allThatAnnSees(OTHER, { names: 'open' });
    expect(withBen.join()).toContain('Ben Kiss');
    expect(withOther).not.toEqual(withBen);
  });

  // Ann reviews Ben, and Ben reviews Ann: as an author he shows, as a reviewer he does not, or the other way round.
  const oneWay: Array<[Partial<typeof PLAN>, RegExp, RegExp]> = [
    [{ names: 'reviewers-only' }, /feedback \d/, /exchanges\/[\w-]+\/reviews \d/],
    [{ names: 'authors-only' }, /(exchanges\/[\w-]+\/reviews|drafts\/[\w-]+) \d/, /feedback \d/],
  ];
  it.each(oneWay)('hides one side alone: %j', async (part, hidden, shown) => {
    const withBen = await allThatAnnSees(PEOPLE[BEN] as TestPerson, part);
    const withOther = await allThatAnnSees(OTHER, part);
    const those = (seen: string[], which: RegExp) => seen.filter((line) => which.test(line));
    expect(those(withBen, hidden).length).toBeGreaterThan(0);
    expect(those(withOther, hidden)).toEqual(those(withBen, hidden));
    expect(those(withOther, shown)).not.toEqual(those(withBen, shown));
  });

  it('hides until release, where names are shown then', async () => {
    const part = { names: 'both-ways', showNamesAtRelease: true } as const;
    const withBen = await allThatAnnSees(PEOPLE[BEN] as TestPerson, part);
    const withOther = await allThatAnnSees(OTHER, part);
    // Four looks of equal length, and one line between the first and the others: the last look is after release.
    const look = (withBen.length - 1) / 4;
    expect(withOther.slice(0, -look)).toEqual(withBen.slice(0, -look));
    expect(withBen.slice(-look).join()).toContain('Ben Kiss');
  });

  it('gives the same bytes of files too, whatever they were called and whoever they say made them', async () => {
    const withBen = await filesThatAnnSees(PEOPLE[BEN] as TestPerson, 'kiss_report.pdf');
    const withOther = await filesThatAnnSees(OTHER, 'fremd_2.pdf');
    expect(withBen.length).toBeGreaterThan(4);
    // Not by matchers, which would print whole files.
    const all = withBen.join();
    const there = [
      /The eastern basin/,
      /copy 200 .*Files 1\.pdf/,
      /captions 200 [^]*The basin silts up\./,
      /example\.org\/gauge/,
      /feedback .*Say how deep it was, 5\./,
    ];
    expect(there.filter((one) => !one.test(all))).toEqual([]);
    // Feedback shows Ann her own files, which say what she wrote in them.
    const others = withBen.filter((line) => !line.includes('/feedback ')).join();
    expect([/mailto/, /by_/, /Drawn by/].filter((one) => one.test(others))).toEqual([]);
    expect(withBen.findIndex((line, at) => line !== withOther[at])).toBe(-1);
  });
});

/** The same PDF as this person's own program would have made it: properties, a field, a remark, a link to the mailbox. */
async function pdfBy({ name, email }: Pick<TestPerson, 'name' | 'email'>): Promise<Buffer> {
  const pdf = await PDFDocument.load(sample('report.pdf'), { updateMetadata: false });
  pdf.setAuthor(name);
  pdf.setTitle(`Report of ${name}`);
  pdf.setSubject(name);
  const field = pdf.getForm().createTextField(`field of ${name}`);
  field.setText('Seen in the field.');
  field.addToPage(pdf.getPage(0), { x: 50, y: 50, width: 150, height: 20 });
  const remark = {
    Type: 'Annot',
    Subtype: 'Text',
    Rect: [9, 9, 20, 20],
    T: PDFString.of(name),
    Contents: PDFString.of(name),
  };
  const mailbox = { S: 'URI', URI: PDFString.of(`mailto:${email}`) };
  const link = { Type: 'Annot', Subtype: 'Link', Rect: [9, 9, 20, 20], A: mailbox };
  for (const one of [remark, link]) pdf.getPage(0).node.addAnnot(pdf.context.register(pdf.context.obj(one)));
  return Buffer.from(await pdf.save());
}

/** The same document with this person's bookmark, and a picture that is described by the name. */
function docxBy({ name, email }: Pick<TestPerson, 'name' | 'email'>): Buffer {
  const members = unzipSync(sample('report.docx'));
  const body = strFromU8(members['word/document.xml'] as Uint8Array);
  const plain = name.replace(/[^A-Za-z]/g, '');
  const link = `<w:hyperlink w:anchor="by_${plain}"><w:r><w:t>up</w:t></w:r></w:hyperlink>`;
  const field = `<w:r><w:fldChar w:fldCharType="begin"/></w:r><w:r><w:instrText> HYPERLINK "mailto:${email}" </w:instrText></w:r><w:r><w:fldChar w:fldCharType="separate"/></w:r><w:r><w:t>write</w:t></w:r><w:r><w:fldChar w:fldCharType="end"/></w:r>`;
  members['word/document.xml'] = strToU8(
    body
      .replace('<w:body>', `<w:body><w:p><w:bookmarkStart w:id="77" w:name="by_${plain}"/>${link}${field}</w:p>`)
      .replace(/<wp:docPr [^>]*>/g, `<wp:docPr id="1" name="p" descr="Drawn by ${name}"/>`),
  );
  return Buffer.from(zipSync(members, { mtime: '2026-01-01' }));
}

const captionsBy = ({ name }: Pick<TestPerson, 'name'>) =>
  Buffer.from(`WEBVTT\n\nNOTE by ${name}\n\n${name}\n00:00.000 --> 00:01.000\n<v ${name}>The basin silts up.`);

/** Typed by this person, with a link to the own mailbox and a picture that the name describes. */
const typedBy = ({ name, email }: Pick<TestPerson, 'name' | 'email'>) =>
  `The bed rose. <a href="mailto:${email}">Write</a> <a href="https://uni.example/people?q=${encodeURIComponent(name)}">Page</a> <a href="https://example.org/gauge">Gauge</a>`;

/** Everything of Ben's files that reaches Ann as a reviewer: the desk, the draft, and each copy with its headers. */
async function filesThatAnnSees(ben: TestPerson, fileName: string): Promise<string[]> {
  const world = await World.open({}, peopleWith(ben));
  const seen: string[] = [];
  try {
    const id = await exchangeOfFiles(world);
    for (const who of [ANN, BEN]) {
      const author = who === BEN ? ben : (PEOPLE[ANN] as TestPerson);
      await write(world, who, id, typedBy(author));
      const file = { exchangeId: id, deliverableId: 'files' };
      await attached(world, who, { ...file, name: who === BEN ? fileName : 'a.pdf', bytes: await pdfBy(author) });
      await attached(world, who, { ...file, name: `${author.name}.docx`, bytes: docxBy(author) });
      const talk = { ...file, deliverableId: 'talk', name: `${author.name}.mp4`, bytes: sample('talk.mp4') };
      const { id: captionsFor } = await attached(world, who, talk);
      const captions = { ...talk, name: 'c.vtt', bytes: captionsBy(author), use: 'captions' as const };
      const upload = await begin(world, who, captions);
      await send(world, who, upload.id, captions.bytes);
      await world.do(who, 'post', `/exchanges/${id}/draft/files`, { uploadId: upload.id, captionsFor });
      await world.app.get(Copies).idle();
      await handInSaved(world, who, id);
    }
    await allocateAll(world, id);
    world.clock.goTo(AT.reviewing);
    await noteEverywhere(world, id, ben);
    const [review] = await world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${id}/reviews`);
    const desk = await world.do<DeskView>(ANN, 'get', `/reviews/${review?.id}`);
    const { draftId, parts } = desk.draft;
    const paths = [
      `/reviews/${review?.id}`,
      `/exchanges/${id}/drafts/${draftId}`,
      ...parts.flatMap((part) =>
        ['copy', 'original', 'captions'].map((what) => `/exchanges/${id}/drafts/${draftId}/parts/${part.id}/${what}`),
      ),
    ];
    for (const path of paths) {
      const { status, headers, body, text } = await world.as(ANN, 'get', path);
      const { date: _date, connection: _connection, ...told } = headers as Record<string, string>;
      const content = Buffer.isBuffer(body) ? body.toString('latin1') : text;
      seen.push(`${path} ${status} ${JSON.stringify(told)} ${content}`);
    }
    await fillIn(world, ANN, review?.id ?? '');
    // What Ann writes may name somebody: that it does is told alike, whoever wrote the draft.
    seen.push((await world.as(ANN, 'get', `/reviews/${review?.id}/names`)).text);
    await world.do(ANN, 'post', `/reviews/${review?.id}/submit`);
    world.clock.goTo(AT.closed);
    const { reviews } = await world.do<FeedbackView>(ANN, 'get', `/exchanges/${id}/feedback`);
    const [got] = reviews;
    const remarks = (got?.files ?? []).map((file) => `/reviews/${got?.id}/files/${file.id}`);
    expect(remarks).toHaveLength(1);
    for (const path of [`/exchanges/${id}/feedback`, '/own-remarks', `/reviews/${review?.id}`, ...remarks]) {
      seen.push(`${path} ${(await world.as(ANN, 'get', path)).text}`);
    }
  } finally {
    await world.close();
  }
  return seen;
}

/** Ben's review of Ann: a note in every kind of place, and an edit; submitted. */
async function noteEverywhere(world: World, exchangeId: string, ben: TestPerson): Promise<void> {
  const [review] = await world.do<Array<{ id: string }>>(BEN, 'get', `/exchanges/${exchangeId}/reviews`);
  const { draft } = await world.do<DeskView>(BEN, 'get', `/reviews/${review?.id}`);
  const part = (show: string) => draft.parts.find((one) => one.show === show)?.id ?? '';
  const passage = {
    quote: { type: 'TextQuoteSelector', exact: 'The', prefix: '', suffix: '' },
    position: { type: 'TextPositionSelector', start: 0, end: 3 },
  };
  const places = [
    [null, { type: 'whole' }],
    [part('html'), { type: 'text', ...passage }],
    [part('pdf'), { type: 'page', page: 1 }],
    [part('pdf'), { type: 'passage', page: 1, ...passage }],
    [part('pdf'), { type: 'region', page: 1, x: 0.1, y: 0.1, width: 0.2, height: 0.2 }],
    [part('video'), { type: 'moment', start: 0.2, end: 0.6 }],
  ] as const;
  for (const [index, [partId, selector]] of places.entries()) {
    await world.do(BEN, 'put', `/reviews/${review?.id}/notes/7f1c2a34-5b6d-4e8f-9a0b-1c2d3e4f5a${10 + index}`, {
      revision: 0,
      kind: 'fix',
      body: `Say how deep it was, ${index}.`,
      place: { version: draft.version, partId, selector },
      edit: selector.type === 'text' ? { type: 'replace', text: 'One' } : null,
      itemId: 'evidence',
    });
  }
  await fillIn(world, BEN, review?.id ?? '');
  const docx = docxBy(ben);
  const remark = {
    exchangeId,
    deliverableId: review?.id ?? '',
    name: `${ben.name}.docx`,
    bytes: docx,
    use: 'remark' as const,
  };
  const upload = await begin(world, BEN, remark);
  await send(world, BEN, upload.id, docx);
  await world.do(BEN, 'post', `/reviews/${review?.id}/files`, { uploadId: upload.id, itemId: 'evidence' });
  await world.app.get(Copies).idle();
  await world.do(BEN, 'post', `/reviews/${review?.id}/submit`);
}
