import type {
  AdoptResult,
  AfterRow,
  DecisionsView,
  DecisionView,
  FeedbackView,
  HandInCheck,
  InboxView,
  MyDraftView,
  OutboxView,
  ReflectionRead,
  ReflectionView,
  ReviewCard,
  RevisionView,
  ThreadsView,
  VersionMeta,
} from '@salt-circle/contracts';
import { USUAL_AFTER, type AfterRule } from '@salt-circle/core';
import { Participant } from '../../model/exchange.js';
import { Draft } from '../../model/draft.js';
import {
  allocateAll,
  fillIn,
  handIn,
  leaveNote,
  NOTE_ID,
  publishedExchange,
  reviewedExchange,
  submitFilled,
} from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, PEOPLE, TOM } from '../../testing/people.js';
import { AT, DATES, DAY } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { DayLetters } from '../inbox/day-letters.service.js';

const iso = (day: number) => new Date(Date.UTC(2026, 2, day)).toISOString();
const AFTER: AfterRule = {
  ...USUAL_AFTER,
  ratings: 'at-end',
  reflection: { prompts: ['What surprised you?', 'What will you do next?'], minimumWords: 8 },
  revisionShown: true,
};
const REVISING = Date.UTC(2026, 2, 31);
const OVER = Date.UTC(2026, 3, 4);
const TEXT = 'The bed rose by four centimetres a decade.';

let world: World;
let id: string;
/** Of the draft of Ben, by Ann: submitted, with a note that proposes an edit. */
let byAnn: string;

async function open(after: AfterRule = AFTER): Promise<void> {
  const dates = { ...DATES, repliesDue: iso(30), revisionDue: iso(33) };
  let byBen: string;
  ({ id, byAnn, byBen } = await reviewedExchange(world, { dates, after }));
  await leaveNote(world, BEN, byBen, {
    edit: { type: 'replace', text: 'ground rose' },
    kind: 'fix',
    body: 'Which bed?',
  });
  await submitFilled(world, BEN, byBen);
  await submitFilled(world, ANN, byAnn);
  // From here on Ben reviews Ann.
  byAnn = byBen;
}

const path = () => `/exchanges/${id}`;
const note = `note.${NOTE_ID}`;
const threads = (who: number) => world.do<ThreadsView>(who, 'get', `/reviews/${byAnn}/replies`);
let replied = 0;
const reply = (who: number, words: string, noteId: string | null = null, replyId?: string) => {
  replied += 1;
  const own = replyId ?? `0b7c1d55-52a4-4f0e-9d6a-${String(replied).padStart(12, '0')}`;
  return world.as(who, 'post', `/reviews/${byAnn}/replies`, { id: own, noteId, itemId: null, words });
};
const decide = (who: number, key: string, part: object) =>
  world.as(who, 'put', `${path()}/decisions/${key}`, { decision: null, why: '', done: false, revision: 0, ...part });
const draftOf = (who: number) => world.do<MyDraftView>(who, 'get', `${path()}/draft`);

beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

describe('answers', () => {
  it('go between author, reviewer and staff under their aliases, each told once until it is read', async () => {
    await open();
    // Staff speak on a submitted review at any time; its author hears of it with the feedback.
    expect((await reply(TOM, 'Well seen.', NOTE_ID)).status).toBe(200);
    expect((await threads(BEN)).replies).toMatchObject([{ as: 'staff', by: { name: PEOPLE[TOM]?.name } }]);
    expect((await reply(ANN, 'Too early.', NOTE_ID)).status).toBe(404);
    expect((await reply(BEN, 'Too early.')).status).toBe(403);
    world.clock.goTo(AT.closed);
    expect((await reply(ANN, 'The western one.', NOTE_ID)).status).toBe(200);
    expect((await reply(ANN, 'And which do you mean?', NOTE_ID)).status).toBe(200);
    expect((await reply(BEN, 'The same.', NOTE_ID)).status).toBe(200);
    const forBen = await threads(BEN);
    expect(forBen.replies.map(({ as, words }) => [as, words])).toEqual([
      ['staff', 'Well seen.'],
      ['author', 'The western one.'],
      ['author', 'And which do you mean?'],
      ['reviewer', 'The same.'],
    ]);
    // Neither learns the other's name, nor when the other was at work.
    const [, ofAnn, , own] = forBen.replies;
    expect([Object.keys(ofAnn?.by ?? {}), ofAnn?.at]).toEqual([['alias'], null]);
    expect([own?.by, own?.at !== null]).toEqual([{ you: true, alias: own?.by.alias }, true]);
    const { mails } = await world.do<OutboxView>(INES, 'get', '/courses/course/outbox');
    const told = mails.filter(({ subject }) => subject.includes('an answer in')).map(({ to }) => to);
    expect(told.sort()).toEqual([PEOPLE[ANN]?.email, PEOPLE[BEN]?.email]);
    const inbox = await world.do<InboxView>(BEN, 'get', '/inbox');
    const answered = inbox.news.filter(({ words }) => words.includes('an answer in'));
    expect(answered.map(({ path: to, read }) => [to, read])).toEqual([[`/reviews/${byAnn}`, false]]);
    // Once read, the next answer is news again.
    await world.do(BEN, 'post', '/inbox/read', { ids: inbox.news.map((one) => one.id) });
    await reply(ANN, 'Good.', NOTE_ID);
    expect((await world.do<InboxView>(BEN, 'get', '/inbox')).unread).toBe(1);
  });

  it('are there once however often they are sent, in bounds, only to what is there, and until they are due', async () => {
    await open();
    world.clock.goTo(AT.closed);
    const own = '0b7c1d55-52a4-4f0e-9d6a-3a3f6a1c9e10';
    await reply(ANN, 'Once.', NOTE_ID, own);
    expect((await reply(ANN, 'Once.', NOTE_ID, own)).status).toBe(200);
    expect((await threads(ANN)).replies).toHaveLength(1);
    // Somebody else's id is no way in, nor is a note of another review.
    expect((await reply(BEN, 'Not mine.', NOTE_ID, own)).status).toBe(404);
    expect((await reply(ANN, 'To what?', 'none')).status).toBe(404);
    expect((await reply(ANN, ' ', NOTE_ID)).status).toBe(422);
    expect((await reply(CHO, 'May I?', NOTE_ID)).status).toBe(404);
    const html = '<script>alert(1)</script> & more';
    await reply(ANN, html, NOTE_ID);
    expect((await threads(BEN)).replies.map(({ words }) => words)).toContain(html);
    world.clock.goTo(REVISING);
    const late = await reply(ANN, 'Too late.', NOTE_ID);
    expect([late.status, late.body.code]).toEqual([403, 'over']);
    expect(await threads(ANN)).toMatchObject({ may: false, over: true });
    expect((await reply(INES, 'Staff go on.')).status).toBe(200);
  });

  it('to what is withheld are gone for its author with it', async () => {
    await open();
    await reply(TOM, 'This is out of place.', NOTE_ID);
    await world.do(INES, 'put', `/reviews/${byAnn}/withheld`, {
      ...{ kind: 'note', targetId: NOTE_ID, reason: 'No.', told: true, counts: true },
    });
    world.clock.goTo(AT.closed);
    expect((await threads(ANN)).replies).toEqual([]);
    expect((await reply(ANN, 'What was it?', NOTE_ID)).status).toBe(404);
    expect((await threads(BEN)).replies).toHaveLength(1);
    expect((await decide(ANN, note, { decision: 'there' })).status).toBe(404);
    await world.do(INES, 'post', `/reviews/${byAnn}/given-back`, { kind: 'note', targetId: NOTE_ID });
    expect((await threads(ANN)).replies).toHaveLength(1);
  });

  it('and ratings are read as the plan says', async () => {
    await open();
    world.clock.goTo(AT.closed);
    const rate = (who: number, helped: string) =>
      world.as(who, 'put', `/reviews/${byAnn}/rating`, { helped, words: 'Thank you.' });
    expect((await rate(ANN, 'carried-on')).status).toBe(200);
    expect((await rate(ANN, 'splendid')).status).toBe(422);
    expect((await rate(BEN, 'carried-on')).status).toBe(404);
    expect((await threads(INES)).rating).toEqual({ helped: 'carried-on', words: 'Thank you.' });
    expect((await threads(BEN)).rating).toBeNull();
    world.clock.goTo(OVER);
    expect((await threads(BEN)).rating?.helped).toBe('carried-on');
  });
});

describe('decisions and adopted edits', () => {
  beforeEach(async () => {
    await open();
    world.clock.goTo(AT.closed);
  });

  it('are kept, and never written over unseen', async () => {
    expect((await decide(ANN, note, { decision: 'will-not', why: 'It says so in the title.' })).status).toBe(200);
    const again = await decide(ANN, note, { decision: 'will-not', why: 'It says so in the title.' });
    expect([again.status, (again.body as DecisionView).revision]).toEqual([200, 1]);
    expect((await decide(ANN, note, { decision: 'there' })).status).toBe(409);
    expect((await decide(ANN, note, { decision: 'there', revision: 1 })).status).toBe(200);
    const next = `next.${byAnn}.first`;
    expect((await decide(ANN, next, { decision: 'will-change', done: true })).status).toBe(200);
    const { decisions } = await world.do<DecisionsView>(ANN, 'get', `${path()}/decisions`);
    expect(decisions.map(({ key, decision, done }) => [key, decision, done])).toEqual([
      [next, 'will-change', true],
      [note, 'there', false],
    ]);
    for (const key of ['note.none', 'next.none.first', `next.${byAnn}.none`, 'x'])
      expect((await decide(ANN, key, { decision: 'there' })).status).toBe(404);
    expect((await decide(BEN, note, { decision: 'there' })).status).toBe(404);
    expect((await decide(ANN, note, { decision: 'perhaps', revision: 2 })).status).toBe(422);
  });

  it('put the edit into the text, once, and take it out again as long as nothing was written since', async () => {
    const adopt = () => world.do<AdoptResult>(ANN, 'post', `${path()}/adoptions`, { noteIds: [NOTE_ID] });
    const first = await adopt();
    expect([first.skipped, first.adoptions.map(({ undoable }) => undoable)]).toEqual([[], [true]]);
    expect((await draftOf(ANN)).texts['text']?.html).toBe(`<p>${TEXT.replace('bed rose', 'ground rose')}</p>`);
    expect((await adopt()).skipped).toEqual([{ noteId: NOTE_ID, why: 'already' }]);
    const { decisions, adoptions } = await world.do<DecisionsView>(ANN, 'get', `${path()}/decisions`);
    expect(decisions).toMatchObject([{ key: note, decision: 'will-change', done: true }]);
    const undo = (who: number) => world.as(who, 'delete', `${path()}/adoptions/${adoptions[0]?.id}`);
    expect((await undo(BEN)).status).toBe(404);
    expect((await undo(ANN)).status).toBe(200);
    expect((await draftOf(ANN)).texts['text']?.html).toBe(`<p>${TEXT}</p>`);
    // Once more, and then its author goes on writing.
    const again = await adopt();
    const { revision = 0 } = (await draftOf(ANN)).texts['text'] ?? {};
    await world.do(ANN, 'put', `${path()}/draft/texts/text`, { revision, html: '<p>The ground rose, we think.</p>' });
    const late = await world.as(ANN, 'delete', `${path()}/adoptions/${again.adoptions[0]?.id}`);
    expect([late.status, late.body.code]).toEqual([409, 'draft-changed']);
  });

  it('are not guessed at where the passage is gone', async () => {
    const { revision = 0 } = (await draftOf(ANN)).texts['text'] ?? {};
    await world.do(ANN, 'put', `${path()}/draft/texts/text`, { revision, html: '<p>All of it is new.</p>' });
    const result = await world.do<AdoptResult>(ANN, 'post', `${path()}/adoptions`, { noteIds: [NOTE_ID] });
    expect(result.skipped).toEqual([{ noteId: NOTE_ID, why: 'gone' }]);
    expect((await draftOf(ANN)).texts['text']?.html).toBe('<p>All of it is new.</p>');
    world.clock.goTo(OVER);
    expect((await world.as(ANN, 'post', `${path()}/adoptions`, { noteIds: [NOTE_ID] })).status).toBe(403);
  });
});

describe('a revision', () => {
  const check = (who: number) => world.do<HandInCheck>(who, 'get', `${path()}/draft/check`);
  const handInIt = async (changes = '') => {
    const { fingerprint } = await check(ANN);
    return world.as(ANN, 'post', `${path()}/draft/hand-in`, { fingerprint, namesSeen: true, changes });
  };
  const rewrite = async (html: string) => {
    const { revision = 0 } = (await draftOf(ANN)).texts['text'] ?? {};
    await world.do(ANN, 'put', `${path()}/draft/texts/text`, { revision, html });
  };
  const draftId = async () => {
    const rows = await world.database.read.findBy(Participant, { personId: PEOPLE[ANN]?.id ?? '', exchangeId: id });
    return (await world.database.read.findOneByOrFail(Draft, { participantId: rows[0]?.id ?? '' })).id;
  };

  it('is another thing than the draft that was reviewed, which feedback stays with', async () => {
    await open();
    world.clock.goTo(AT.closed);
    expect((await check(ANN)).problems.map(({ code }) => code)).toEqual(['unchanged']);
    await rewrite('<p>The ground rose by four centimetres a decade.</p>');
    expect(await check(ANN)).toMatchObject({ purpose: 'revision', problems: [], late: null });
    const handed = await handInIt('I said which bed.');
    expect(handed.body as VersionMeta).toMatchObject({ purpose: 'revision', number: 2, changes: 'I said which bed.' });
    // Pressed twice, it is there once.
    expect(((await handInIt('I said which bed.')).body as VersionMeta).number).toBe(2);
    const { drafts } = await world.do<FeedbackView>(ANN, 'get', `${path()}/feedback`);
    expect(drafts.map(({ version }) => version)).toEqual([1]);
    const compared = await world.do<RevisionView>(INES, 'get', `${path()}/drafts/${await draftId()}/revision`);
    expect([compared.reviewed.version, compared.revision?.version, compared.changes]).toEqual([
      1,
      2,
      'I said which bed.',
    ]);
    const forBen = await world.do<RevisionView>(BEN, 'get', `${path()}/drafts/${await draftId()}/revision`);
    expect([forBen.revision?.version, forBen.changes, forBen.handedInAt]).toEqual([2, null, null]);
    expect(JSON.stringify(forBen)).not.toContain('Mensah');
    const [row] = await world.do<AfterRow[]>(TOM, 'get', `${path()}/after`);
    expect(row).toMatchObject({ reviews: 1, remarks: 1, decided: 0, revisionAt: expect.any(String) });
    await world.do(ANN, 'post', `${path()}/draft/withdraw`);
    const versions = (await draftOf(ANN)).versions.map(({ purpose, withdrawn }) => [purpose, withdrawn]);
    expect(versions).toEqual([
      ['draft', false],
      ['revision', true],
    ]);
    world.clock.goTo(OVER);
    expect((await world.as(ANN, 'get', `${path()}/draft/check`)).status).toBe(403);
  });

  it('is not its reviewers’ to read where the plan does not say so', async () => {
    await open({ ...AFTER, revisionShown: false });
    world.clock.goTo(AT.closed);
    await rewrite('<p>Another text altogether.</p>');
    await handInIt();
    expect((await world.as(BEN, 'get', `${path()}/drafts/${await draftId()}/revision`)).status).toBe(404);
    // Its author compares what is saved, before it is handed in.
    await world.do(ANN, 'post', `${path()}/draft/withdraw`);
    const mine = await world.do<RevisionView>(ANN, 'get', `${path()}/drafts/${await draftId()}/revision`);
    expect([mine.savedOnly, mine.revision?.parts[0]?.html]).toEqual([true, '<p>Another text altogether.</p>']);
  });
});

describe('a reflection', () => {
  it('is saved as it is, and handed in once it says enough; only staff read it', async () => {
    await open();
    expect((await world.as(ANN, 'get', `${path()}/reflection`)).status).toBe(403);
    world.clock.goTo(AT.closed);
    const save = (texts: string[], revision: number, handIn = false) =>
      world.as(ANN, 'put', `${path()}/reflection`, { texts, revision, handIn });
    expect((await save(['Much.', ''], 0)).status).toBe(200);
    expect((await save(['Much.', ''], 0, true)).body.fields.map(({ path: where }: { path: string }) => where)).toEqual([
      'texts.1',
    ]);
    expect((await save(['Much.', 'More.'], 1, true)).body.fields[0].sentence).toContain('2 of the 8 words');
    const enough = ['That nobody saw which bed I meant.', 'Say it.'];
    expect((await save(enough, 0)).status).toBe(409);
    expect(((await save(enough, 1, true)).body as ReflectionView).handedInAt).not.toBeNull();
    expect(await world.do<ReflectionRead[]>(TOM, 'get', `${path()}/reflections`)).toMatchObject([
      { author: { name: PEOPLE[ANN]?.name }, texts: enough },
    ]);
    world.clock.goTo(OVER);
    expect((await save(['Later.', 'x'], 2)).status).toBe(403);
  });
});

describe('the other reviews of a draft', () => {
  const others = (who: number, reviewId: string) => world.as(who, 'get', `/reviews/${reviewId}/others`);

  it('are read by its reviewers after the release, where the plan says so, under aliases and less what is withheld', async () => {
    const dates = { ...DATES, repliesDue: iso(30) };
    id = await publishedExchange(world, { dates, after: { ...AFTER, othersReviews: true }, reviewsPerStudent: 2 });
    world.clock.goTo(AT.drafting);
    for (const who of [ANN, BEN, CHO]) await handIn(world, who, id);
    await allocateAll(world, id);
    world.clock.goTo(AT.reviewing);
    const mine = async (who: number) =>
      (await world.do<ReviewCard[]>(who, 'get', `${path()}/reviews`)).map((card) => ({ ...card, who }));
    const cards = (await Promise.all([ANN, BEN, CHO].map(mine))).flat();
    for (const card of cards) {
      await fillIn(world, card.who, card.id);
      await world.do(card.who, 'post', `/reviews/${card.id}/submit`);
    }
    const own = cards.find(({ who }) => who === ANN);
    const other = cards.find(({ who, draftId }) => who !== ANN && draftId === own?.draftId);
    expect((await others(ANN, own?.id ?? '')).status).toBe(404);
    world.clock.goTo(AT.closed);
    const seen = await others(ANN, own?.id ?? '');
    expect((seen.body as FeedbackView).reviews.map((one) => [one.id, Object.keys(one.reviewer)])).toEqual([
      [other?.id, ['alias']],
    ]);
    expect(JSON.stringify(seen.body)).not.toMatch(/Kiss|Sato|Mensah/);
    expect((await others(BEN, own?.id ?? '')).status).toBe(404);
    await world.do(INES, 'put', `/reviews/${other?.id}/withheld`, {
      ...{ kind: 'answer', targetId: 'first', reason: 'No.', told: false, counts: true },
    });
    const [less] = ((await others(ANN, own?.id ?? '')).body as FeedbackView).reviews;
    expect(Object.keys(less?.answers ?? {})).toEqual(['evidence']);
  });
});

describe('the letter of the day', () => {
  it('tells once a day what was not read, to whoever wants it so', async () => {
    await open();
    await world.do(BEN, 'put', '/inbox/mail', { mailWish: 'daily' });
    world.clock.goTo(AT.closed);
    await reply(ANN, 'Thank you.', NOTE_ID);
    const toBen = async () => {
      const rows = await world.database.read.query<Array<{ subject: string }>>(
        'SELECT subject FROM mail WHERE address = ?',
        [PEOPLE[BEN]?.email],
      );
      return rows.map(({ subject }) => subject).filter((one) => one.includes('answer in') || one.includes('happened'));
    };
    await world.app.get(DayLetters).look();
    expect(await toBen()).toEqual([]);
    world.clock.goTo(AT.closed + DAY);
    await world.app.get(DayLetters).look();
    await world.app.get(DayLetters).look();
    expect(await toBen()).toEqual(['Salt Circle: one thing that happened']);
  });
});
