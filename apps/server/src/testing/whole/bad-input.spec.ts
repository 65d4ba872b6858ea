import type { FeedbackView, HandInCheck, TodayView } from '@salt-circle/contracts';
import { fillIn, handIn, leaveNote, noteFor, NOTE_ID, publishedExchange, reviewedExchange, write } from '../acts.js';
import { ANN, BEN, INES, OUT } from '../people.js';
import { AT, DATES, FORM, ITEMS, PLAN } from '../plan.js';
import { World } from '../world.js';

/** What people do wrong, or have done to them: each gets its clear answer, and nothing is lost. */
let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

async function planned(): Promise<string> {
  const { id } = await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Field report' });
  await world.do(INES, 'put', `/exchanges/${id}/plan`, { ...PLAN, revision: 1 });
  return id;
}

describe('planning', () => {
  it('names the two dates that clash, in the time of the course, and changes nothing', async () => {
    const id = await planned();
    const dates = { ...DATES, reviewsDue: '2026-03-13T22:00:00Z' };
    const { status, body } = await world.as(INES, 'put', `/exchanges/${id}/plan`, {
      ...PLAN,
      title: 'Changed',
      dates,
      revision: 2,
    });
    expect(status).toBe(422);
    expect(body.fields).toEqual([
      {
        path: 'dates.reviewsDue',
        code: 'date-order',
        sentence:
          '“Reviews due” (Sat 14 Mar 2026, 00:00 EET) must be after “Reviews open” (Sat 14 Mar 2026, 02:00 EET). Move “Reviews due” later, or “Reviews open” earlier.',
      },
    ]);
    expect(await world.do(INES, 'get', `/exchanges/${id}/plan`)).toMatchObject({ title: 'Field report', revision: 2 });
  });

  it.each([
    ['an empty title', { title: '' }, 'title'],
    ['a blank title', { title: '   ' }, 'title'],
    ['no reviews', { reviewsPerStudent: 0 }, 'reviewsPerStudent'],
    ['eleven reviews', { reviewsPerStudent: 11 }, 'reviewsPerStudent'],
    ['half a review', { reviewsPerStudent: 1.5 }, 'reviewsPerStudent'],
    ['no date at all', { dates: { ...DATES, draftsDue: 'soon' } }, 'dates.draftsDue'],
    ['a field we do not know', { colour: 'red' }, 'colour'],
    ['a brief of a megabyte', { briefHtml: 'x'.repeat(1_000_000) }, 'briefHtml'],
    ['names in an unknown way', { names: 'sometimes' }, 'names'],
  ])('refuses %s beside its field', async (_, part, path) => {
    const id = await planned();
    const { status, body } = await world.as(INES, 'put', `/exchanges/${id}/plan`, { ...PLAN, ...part, revision: 2 });
    expect(status).toBe(422);
    expect(body.fields.map((field: { path: string }) => field.path)).toEqual([path]);
    expect(body.fields[0].sentence.length).toBeGreaterThan(10);
  });

  it('lists everything that is missing when publishing, and publishes nothing', async () => {
    const { id } = await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Field report' });
    const { status, body } = await world.as(INES, 'post', `/exchanges/${id}/publish`);
    expect([status, body.code]).toEqual([422, 'plan-incomplete']);
    expect(body.fields.map((field: { path: string }) => field.path)).toEqual([
      'briefHtml',
      'dates.draftsOpen',
      'dates.draftsDue',
      'dates.reviewsDue',
      'form.items',
    ]);
    expect((await world.as(ANN, 'get', `/exchanges/${id}`)).status).toBe(404);
  });

  it('refuses more reviews than there are drafts of others, a due time that has passed, and a form with mixed points', async () => {
    const id = await planned();
    await world.do(INES, 'put', `/exchanges/${id}/plan`, { ...PLAN, reviewsPerStudent: 3, revision: 2 });
    const mixed = [
      {
        ...ITEMS[0],
        levels: [
          { id: 'a', title: 'A', description: '', points: 1 },
          { id: 'b', title: 'B', description: '', points: null },
        ],
      },
    ];
    await world.do(INES, 'put', `/exchanges/${id}/form`, { ...FORM, revision: 1, items: mixed });
    world.clock.goTo(AT.afterDue);
    const { body } = await world.as(INES, 'post', `/exchanges/${id}/publish`);
    expect(body.fields.map((field: { code: string }) => field.code)).toEqual([
      'date-past',
      'too-many-reviews',
      'mixed-points',
    ]);
    expect(body.fields[1].sentence).toContain('only 2 drafts by others');
    expect(body.fields[2].sentence).toContain('“Evidence”');
  });

  it('freezes the form at the first hand-in, and names at publishing', async () => {
    const id = await publishedExchange(world);
    await world.do(INES, 'put', `/exchanges/${id}/form`, { ...FORM, revision: 2, items: ITEMS.slice(0, 1) });
    world.clock.goTo(AT.drafting);
    await handIn(world, ANN, id);
    expect((await world.as(INES, 'put', `/exchanges/${id}/form`, { ...FORM, revision: 3, items: [] })).body.code).toBe(
      'form-frozen',
    );
    expect(
      (await world.as(INES, 'put', `/exchanges/${id}/plan`, { ...PLAN, names: 'open', revision: 2 })).body.code,
    ).toBe('plan-fixed');
  });
});

describe('drafts', () => {
  it('keep what was typed when the due time passes, but do not count it', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    await handIn(world, ANN, id, 'In time.');
    // A due time lasts to the end of the minute that it names.
    world.clock.goTo(Date.parse(DATES.draftsDue) + 59_999);
    expect(await world.do(ANN, 'get', `/exchanges/${id}`)).toMatchObject({ mayHandIn: true, handInIsLate: false });
    world.clock.goTo(Date.parse(DATES.draftsDue) + 60_000);
    await write(world, ANN, id, 'Too late.', 'Late');
    const request = { fingerprint: 'x'.repeat(43), namesSeen: true };
    const { status, body } = await world.as(ANN, 'post', `/exchanges/${id}/draft/hand-in`, request);
    expect([status, body.code]).toEqual([403, 'over']);
    expect(body.sentence).toContain('What you typed is kept');
    expect(await world.do(ANN, 'get', `/exchanges/${id}/draft`)).toMatchObject({
      title: 'Late',
      texts: { text: { html: '<p>Too late.</p>' } },
      versions: [{ number: 1, title: 'On the basin' }],
    });
  });

  it('are handed in once when handed in twice, and again when changed', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    await write(world, ANN, id, 'One text.');
    const { fingerprint } = await world.do<{ fingerprint: string }>(ANN, 'get', `/exchanges/${id}/draft/check`);
    const request = { fingerprint, namesSeen: true };
    const twice = await Promise.all([1, 2].map(() => world.as(ANN, 'post', `/exchanges/${id}/draft/hand-in`, request)));
    expect(twice.map(({ status, body }) => [status, body.number])).toEqual([
      [200, 1],
      [200, 1],
    ]);
    await handIn(world, ANN, id, 'Another text.');
    expect(await world.do(ANN, 'get', `/exchanges/${id}/draft`)).toMatchObject({
      versions: [{ number: 1 }, { number: 2 }],
      changedSinceHandIn: false,
    });
  });

  it('are refused without a title or a text, with what to do', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    expect((await world.as(ANN, 'get', `/exchanges/${id}/draft/check`)).body.code).toBe('draft-empty');
    const problems = async (text: string, title: string) => {
      await write(world, ANN, id, text, title);
      const { fingerprint, problems: told } = await world.do<HandInCheck>(ANN, 'get', `/exchanges/${id}/draft/check`);
      const { status, body } = await world.as(ANN, 'post', `/exchanges/${id}/draft/hand-in`, {
        fingerprint,
        namesSeen: true,
      });
      expect([status, body.code, body.fields]).toEqual([422, 'hand-in-incomplete', told]);
      return told.map(({ path, sentence }) => [path, sentence]);
    };
    expect(await problems('Text', ' ')).toEqual([['title', 'Give your draft a title.']]);
    expect(await problems('…', 'T')).toEqual([['parts.text', '“Report” is missing: write or paste it.']]);
  });

  it('are cleaned on the server, whatever the browser sent', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    const html =
      '<p onmouseover="x()">a<script>x()</script><a href="javascript:x()">b</a><span style="display:none">c</span></p>';
    await world.do(ANN, 'put', `/exchanges/${id}/draft/texts/text`, { revision: 0, html });
    expect(await world.do(ANN, 'get', `/exchanges/${id}/draft`)).toMatchObject({
      texts: { text: { html: '<p>a<a>b</a></p>' } },
    });
  });

  it('of two megabytes, and of five, are refused with their own sentence, and the saved one stays', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    await handIn(world, ANN, id);
    const large = await world.as(ANN, 'put', `/exchanges/${id}/draft/texts/text`, {
      revision: 1,
      html: 'x'.repeat(2_000_000),
    });
    expect([large.status, large.body.fields[0].path]).toEqual([422, 'html']);
    expect(large.body.sentence).toContain('It stays in this browser');
    const huge = await world.as(ANN, 'put', `/exchanges/${id}/draft/texts/text`, {
      revision: 1,
      html: 'x'.repeat(5_000_000),
    });
    expect([huge.status, huge.body.code]).toEqual([413, 'too-large']);
    expect(await world.do(ANN, 'get', `/exchanges/${id}/draft`)).toMatchObject({
      title: 'On the basin',
      texts: { text: { revision: 1 } },
    });
  });

  it('saved from two tabs never overwrite each other unseen', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    const save = (revision: number, html: string) =>
      world.as(ANN, 'put', `/exchanges/${id}/draft/texts/text`, { revision, html });
    expect((await save(0, '<p>first tab</p>')).body.revision).toBe(1);
    const second = await save(0, '<p>second tab</p>');
    expect([second.status, second.body.code, second.body.current]).toEqual([
      409,
      'conflict',
      expect.objectContaining({ html: '<p>first tab</p>', revision: 1 }),
    ]);
    // A save whose answer was lost comes again with its old revision: no conflict, because nothing differs.
    expect((await save(0, '<p>first tab</p>')).body.revision).toBe(1);
    expect((await save(1, '<p>second tab</p>')).body.revision).toBe(2);
  });
});

describe('reviews', () => {
  it('from two tabs: the second is told of the first, answer by answer', async () => {
    const { byAnn } = await reviewedExchange(world);
    const put = (revision: number, text: string) =>
      world.as(ANN, 'put', `/reviews/${byAnn}/answers/first`, { revision, text });
    await put(0, 'from the first tab');
    const second = await put(0, 'from the second');
    expect([second.status, second.body.current]).toEqual([
      409,
      { levelId: null, text: 'from the first tab', next: '', value: null, checks: {}, choices: [], revision: 1 },
    ]);
    // Another answer of the same review is not in conflict.
    expect(
      (await world.as(ANN, 'put', `/reviews/${byAnn}/answers/evidence`, { revision: 0, levelId: 'low' })).status,
    ).toBe(200);
    const given = await noteFor(world, ANN, byAnn);
    const note = (revision: number, body: string) =>
      world.as(ANN, 'put', `/reviews/${byAnn}/notes/${NOTE_ID}`, { ...given, revision, body });
    expect((await note(0, 'a')).body.revision).toBe(1);
    expect((await note(0, 'b')).body).toMatchObject({ code: 'conflict', current: { body: 'a', revision: 1 } });
  });

  it('say what is missing before they can be submitted, and keep what is there', async () => {
    const { byAnn } = await reviewedExchange(world);
    await world.do(ANN, 'put', `/reviews/${byAnn}/answers/first`, { revision: 0, text: 'It is great' });
    const { status, body } = await world.as(ANN, 'post', `/reviews/${byAnn}/submit`);
    expect([status, body.code]).toEqual([422, 'review-incomplete']);
    expect(body.fields.map(({ path, sentence }: { path: string; sentence: string }) => [path, sentence])).toEqual([
      ['items.evidence', '“Evidence”: choose a level.'],
      ['items.first', '“What first?” has 3 of at least 5 words.'],
    ]);
    expect(await world.do(ANN, 'get', `/reviews/${byAnn}`)).toMatchObject({
      answers: { first: { text: 'It is great' } },
      submittedAt: null,
    });
  });

  it('are submitted once when submitted twice, and can be reopened until due', async () => {
    const { byAnn } = await reviewedExchange(world);
    await fillIn(world, ANN, byAnn);
    const twice = await Promise.all([1, 2].map(() => world.as(ANN, 'post', `/reviews/${byAnn}/submit`)));
    expect(twice.map(({ status }) => status)).toEqual([200, 200]);
    expect(twice[0]?.text).toBe(twice[1]?.text);
    expect((await world.as(ANN, 'put', `/reviews/${byAnn}/answers/first`, { revision: 1, text: 'x' })).body.code).toBe(
      'already-submitted',
    );
    await world.do(ANN, 'post', `/reviews/${byAnn}/reopen`);
    expect(
      (
        await world.as(ANN, 'put', `/reviews/${byAnn}/answers/first`, {
          revision: 1,
          text: 'Another thought, said at length.',
        })
      ).status,
    ).toBe(200);
  });

  it('are what their author gets as they were submitted, until they are submitted again', async () => {
    const { id, byAnn } = await reviewedExchange(world);
    await fillIn(world, ANN, byAnn);
    await leaveNote(world, ANN, byAnn);
    await world.do(ANN, 'post', `/reviews/${byAnn}/submit`);
    const feedback = async () => (await world.do<FeedbackView>(BEN, 'get', `/exchanges/${id}/feedback`)).reviews;
    const first = (text: string) => ({ revision: 1, text });
    await world.do(ANN, 'post', `/reviews/${byAnn}/reopen`);
    await world.do(ANN, 'put', `/reviews/${byAnn}/answers/first`, first('Another thought, said at length.'));
    await world.do(ANN, 'put', `/reviews/${byAnn}/answers/evidence`, { revision: 1, levelId: null });
    expect(await world.do(ANN, 'get', `/exchanges/${id}/reviews`)).toMatchObject([
      { state: 'submitted', changing: true },
    ]);
    expect((await world.do<TodayView>(ANN, 'get', '/today')).items).toMatchObject([{ kind: 'submit-again' }]);
    world.clock.goTo(AT.closed);
    const [left] = await feedback();
    expect(left).toMatchObject({
      answers: { evidence: { levelId: 'high' } },
      notes: [{ body: 'How was this measured?' }],
    });
    expect(JSON.stringify(left)).not.toContain('Another thought');
    // Submitted again in time, it is the new one.
    world.clock.goTo(AT.reviewing);
    expect((await world.as(ANN, 'post', `/reviews/${byAnn}/submit`)).body.code).toBe('review-incomplete');
    await world.do(ANN, 'put', `/reviews/${byAnn}/answers/evidence`, { revision: 2, levelId: 'high' });
    await world.do(ANN, 'post', `/reviews/${byAnn}/submit`);
    world.clock.goTo(AT.closed);
    expect(JSON.stringify(await feedback())).toContain('Another thought');
  });

  it('keep what is typed after due, but can no longer be submitted', async () => {
    const { byAnn } = await reviewedExchange(world);
    world.clock.goTo(AT.checking);
    await fillIn(world, ANN, byAnn);
    expect((await world.as(ANN, 'post', `/reviews/${byAnn}/submit`)).body.code).toBe('over');
    expect(await world.do(ANN, 'get', `/reviews/${byAnn}`)).toMatchObject({
      answers: { evidence: { levelId: 'high' } },
      submittable: false,
    });
  });

  it.each([
    ['an answer to no item', 'answers/nowhere', { revision: 0, text: 'x' }, 404],
    ['a level of another criterion', 'answers/evidence', { revision: 0, levelId: 'elsewhere' }, 422],
    ['a level for a prompt', 'answers/first', { revision: 0, levelId: 'low' }, 422],
    ['an answer of a megabyte', 'answers/first', { revision: 0, text: 'x'.repeat(1_000_000) }, 422],
  ])('refuse %s', async (_, path, body, status) => {
    const { byAnn } = await reviewedExchange(world);
    expect((await world.as(ANN, 'put', `/reviews/${byAnn}/${path}`, body)).status).toBe(status);
    expect(await world.do(ANN, 'get', `/reviews/${byAnn}`)).toMatchObject({ answers: {}, notes: [] });
  });

  it.each<[string, Parameters<typeof noteFor>[3], { id?: string; partId?: string; version?: number }, string]>([
    ['on no passage', { end: 4 }, {}, 'This place ends where it begins. Select some text, or a longer span.'],
    ['past the end', { start: 40, end: 1_000_000_000 }, {}, 'This place is not in the draft. Choose it again.'],
    ['on a part of nothing', {}, { partId: 'none' }, 'This part is not in the version of the draft that you review.'],
    [
      'on a version that is not there',
      {},
      { version: 7 },
      'This review is of version 1 of the draft, and you have version 7',
    ],
    ['of a fifth kind', { kind: 'praise' as 'ask' }, {}, 'A note is one of Keep, Change, Ask and Fix.'],
    ['whose id is none', {}, { id: '1' }, 'The id of a note is a random UUID in lower case.'],
  ])('refuse a note %s', async (_, part, { id = NOTE_ID, ...where }, sentence) => {
    const { byAnn } = await reviewedExchange(world);
    const note = await noteFor(world, ANN, byAnn, part);
    const { status, body } = await world.as(ANN, 'put', `/reviews/${byAnn}/notes/${id}`, {
      ...note,
      place: { ...note.place, ...where },
    });
    expect([status >= 400 && status < 500, body.sentence]).toEqual([true, expect.stringContaining(sentence)]);
    expect(await world.do(ANN, 'get', `/reviews/${byAnn}`)).toMatchObject({ answers: {}, notes: [] });
  });

  it('do not take over the note of another review by its id', async () => {
    const { byAnn, byBen } = await reviewedExchange(world);
    await leaveNote(world, ANN, byAnn);
    const mine = await noteFor(world, BEN, byBen, { revision: 1, body: 'mine' });
    expect((await world.as(BEN, 'put', `/reviews/${byBen}/notes/${NOTE_ID}`, mine)).status).toBe(404);
    await world.do(BEN, 'delete', `/reviews/${byBen}/notes/${NOTE_ID}`);
    expect(await world.do(ANN, 'get', `/reviews/${byAnn}`)).toMatchObject({
      notes: [{ body: 'How was this measured?' }],
    });
  });
});

describe('release', () => {
  it('comes only after reviews are due, and then shows authors what was submitted', async () => {
    const { id, byAnn } = await reviewedExchange(world);
    await fillIn(world, ANN, byAnn);
    await leaveNote(world, ANN, byAnn);
    await world.do(ANN, 'post', `/reviews/${byAnn}/submit`);
    const early = await world.as(INES, 'post', `/exchanges/${id}/release`, { at: null });
    expect([early.status, early.body.fields[0].path]).toEqual([422, 'dates.release']);
    world.clock.goTo(AT.checking);
    expect((await world.as(BEN, 'get', `/exchanges/${id}/feedback`)).body.code).toBe('not-released');
    await world.do(INES, 'post', `/exchanges/${id}/release`, { at: null });
    const feedback = await world.do<{ reviews: object[] }>(BEN, 'get', `/exchanges/${id}/feedback`);
    expect(feedback).toMatchObject({
      drafts: [{ title: 'On the basin' }],
      reviews: [{ answers: { evidence: { levelId: 'high' } }, notes: [{ kind: 'ask' }] }],
      missing: 0,
    });
    expect(JSON.stringify(feedback)).not.toContain('Ann Mensah');
    // Ann's reviewer never submitted.
    expect(await world.do(ANN, 'get', `/exchanges/${id}/feedback`)).toMatchObject({ reviews: [], missing: 1 });
    const record = await world.do<Array<{ action: string }>>(INES, 'get', `/exchanges/${id}/activity`);
    expect(record[0]?.action).toBe('feedback-released');
  });
});

describe('ids of another course', () => {
  it('lead nowhere, for reading and for writing', async () => {
    const { id, byAnn } = await reviewedExchange(world);
    const calls = [
      world.as(OUT, 'get', '/courses/course'),
      world.as(OUT, 'get', `/exchanges/${id}/plan`),
      world.as(OUT, 'put', `/exchanges/${id}/plan`, { ...PLAN, revision: 2 }),
      world.as(OUT, 'post', `/exchanges/${id}/release`, { at: null }),
      world.as(OUT, 'put', `/reviews/${byAnn}/answers/first`, { revision: 0, text: 'x' }),
      world.as(OUT, 'post', '/courses/course/exchanges', { title: 'x' }),
    ];
    expect((await Promise.all(calls)).map(({ status }) => status)).toEqual(Array(calls.length).fill(404));
  });
});
