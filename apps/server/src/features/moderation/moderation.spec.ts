import type {
  CheckView,
  DeskView,
  DraftFeedbackView,
  FeedbackView,
  PeopleView,
  QueueView,
} from '@salt-circle/contracts';
import { DEFAULT_FLAGGING_RULES } from '@salt-circle/core';
import { begin, sample, send } from '../../testing/uploads.js';
import { fillIn, leaveNote, NOTE_ID, reviewedExchange, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, PEOPLE, TOM } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { Copies } from '../reading/copies.service.js';

let world: World;
let id: string;
let byAnn: string;
let byBen: string;

beforeEach(async () => {
  world = await World.open();
  ({ id, byAnn, byBen } = await reviewedExchange(world));
});
afterEach(() => world.close());

const THIRD = '33333333-3333-4333-8333-333333333333';
const SECOND = '22222222-2222-4222-8222-222222222222';

/** Ann has submitted a review of Ben’s draft, with two notes. */
async function submitted(second = 'Name the month of each reading, not the season alone.'): Promise<void> {
  await leaveNote(world, ANN, byAnn);
  await leaveNote(world, ANN, byAnn, { kind: 'change', body: second, start: 0, end: 3 }, SECOND);
  await submitFilled(world, ANN, byAnn);
}

const queue = (who: number = INES) => world.do<QueueView>(who, 'get', `/exchanges/${id}/queue`);
const withhold = (kind: string, targetId: string, part: object = {}, who: number = INES) =>
  world.as(who, 'put', `/reviews/${byAnn}/withheld`, {
    ...{ kind, targetId, reason: 'It is rude.', told: true, counts: false },
    ...part,
  });
const feedback = async () => (await world.do<FeedbackView>(BEN, 'get', `/exchanges/${id}/feedback`)).reviews;

describe('the queue', () => {
  it('puts those with flags first, with reasons and figures', async () => {
    await submitted();
    await fillIn(world, BEN, byBen);
    await leaveNote(world, BEN, byBen, { body: `${PEOPLE[ANN]?.name} wrote this in a rubbish way.` }, THIRD);
    await world.do(BEN, 'post', `/reviews/${byBen}/submit`);
    const { rows, bounds } = await queue();
    expect(bounds).toEqual(DEFAULT_FLAGGING_RULES);
    expect(rows.map(({ reviewId }) => reviewId)).toEqual([byBen, byAnn]);
    expect(rows[0]?.flags.map(({ flag }) => flag)).toEqual([
      { code: 'harsh', exact: 'rubbish' },
      { code: 'name', exact: PEOPLE[ANN]?.name },
      { code: 'nothing-to-do', notes: 1 },
      { code: 'hasty', seconds: 0 },
    ]);
    expect(rows[1]?.flags.map(({ key }) => key)).toEqual(['hasty']);
  });

  it('looks again once a name is corrected', async () => {
    await fillIn(world, BEN, byBen);
    await leaveNote(
      world,
      BEN,
      byBen,
      { body: 'I think that Oyelaran wrote this: name the month of each reading.' },
      THIRD,
    );
    await world.do(BEN, 'post', `/reviews/${byBen}/submit`);
    const named = async () => (await queue()).rows[0]?.flags.some(({ flag }) => flag.code === 'name');
    expect(await named()).toBe(false);
    const { people } = await world.do<PeopleView>(INES, 'get', '/courses/course/people');
    const ann = people.find(({ name }) => name === PEOPLE[ANN]?.name);
    await world.do(INES, 'put', `/courses/course/people/${ann?.id}`, {
      ...{ name: 'Ann Oyelaran', email: ann?.email, role: 'student', campusId: null, section: null },
    });
    expect(await named()).toBe(true);
  });

  it('knows who has looked, until the review is submitted again', async () => {
    await submitted();
    const path = `/reviews/${byAnn}/check`;
    await world.do(TOM, 'put', path, { looked: true, dismissed: ['hasty'] });
    // Two at once: whoever was first stays the one who has looked.
    await world.do(INES, 'put', path, { looked: true, dismissed: ['hasty'] });
    const [row] = (await queue()).rows;
    expect(row).toMatchObject({ looked: { by: PEOPLE[TOM]?.name }, flags: [{ key: 'hasty', dismissed: true }] });
    expect(await world.do<CheckView>(INES, 'get', path)).toEqual({ looked: row?.looked, flags: row?.flags });
    await world.do(ANN, 'post', `/reviews/${byAnn}/reopen`);
    world.clock.goTo(AT.reviewing + 3_600_000);
    await world.do(ANN, 'post', `/reviews/${byAnn}/submit`);
    const again = (await queue()).rows[0];
    // The hour that passed is in it now, so it is not hasty any more.
    expect([again?.looked, again?.flags]).toEqual([null, []]);
  });

  it('goes by bounds that an instructor sets', async () => {
    await submitted();
    const bounds = { ...DEFAULT_FLAGGING_RULES, hasty: null, harshWords: ['  Month ', 'month'] };
    const path = `/exchanges/${id}/queue/bounds`;
    await world.do(INES, 'put', path, { bounds });
    const { rows, bounds: kept } = await queue();
    expect(kept.harshWords).toEqual(['month']);
    expect(rows[0]?.flags.map(({ key }) => key)).toEqual(['harsh:month']);
    expect((await world.as(TOM, 'put', path, { bounds })).status).toBe(403);
    for (const wrong of [{ ...bounds, sameText: 1.5 }, { ...bounds, harshWords: 'x' }, { ...bounds, hasty: -1 }, null])
      expect((await world.as(INES, 'put', path, { bounds: wrong })).status).toBe(422);
  });

  it('is for staff, and of submitted reviews', async () => {
    await submitted();
    expect((await queue(TOM)).rows).toHaveLength(1);
    expect((await world.as(ANN, 'get', `/exchanges/${id}/queue`)).status).toBe(403);
    const check = { looked: true, dismissed: [] };
    expect((await world.as(INES, 'put', `/reviews/${byBen}/check`, check)).status).toBe(404);
    expect((await world.as(ANN, 'put', `/reviews/${byAnn}/check`, check)).status).toBe(403);
    expect((await world.as(BEN, 'get', `/reviews/${byAnn}/check`)).status).toBe(403);
  });
});

describe('all reviews of one draft', () => {
  it('stand beside each other for staff, withheld ones too', async () => {
    await submitted();
    await withhold('review', '');
    const { draft } = await world.do<DeskView>(INES, 'get', `/reviews/${byAnn}`);
    const path = `/exchanges/${id}/drafts/${draft.draftId}/feedback`;
    const view = await world.do<DraftFeedbackView>(TOM, 'get', path);
    expect(view).toMatchObject({ author: { name: PEOPLE[BEN]?.name }, missing: 0 });
    expect(view.drafts).toMatchObject([{ title: draft.title }]);
    expect(view.withheld).toMatchObject([{ reviewId: byAnn, kind: 'review' }]);
    expect(view.reviews).toMatchObject([{ id: byAnn, answers: { evidence: { levelId: 'high' } } }]);
    expect(view.reviews[0]?.notes).toHaveLength(2);
    expect((await world.as(BEN, 'get', path)).status).toBe(403);
    expect((await world.as(INES, 'get', `/exchanges/${id}/drafts/none/feedback`)).status).toBe(404);
  });
});

describe('what is withheld', () => {
  it('leaves no trace with its author: the same bytes as if it had never been written', async () => {
    const asReceived = async (second: string | null): Promise<string[]> => {
      const other = await World.open();
      try {
        const there = await reviewedExchange(other);
        await leaveNote(other, ANN, there.byAnn);
        if (second !== null)
          await leaveNote(other, ANN, there.byAnn, { kind: 'change', body: second, start: 0, end: 3 }, SECOND);
        await submitFilled(other, ANN, there.byAnn);
        if (second !== null) {
          const request = { kind: 'note', targetId: SECOND, reason: 'No.', told: true, counts: true };
          await other.do(TOM, 'put', `/reviews/${there.byAnn}/withheld`, request);
        }
        other.clock.goTo(AT.closed);
        const paths = [
          `/exchanges/${there.id}`,
          `/exchanges/${there.id}/feedback`,
          `/reviews/${there.byAnn}`,
          '/today',
        ];
        const answers = [];
        for (const path of paths) answers.push((await other.as(BEN, 'get', path)).text);
        return answers;
      } finally {
        await other.close();
      }
    };
    const [withheld, never] = [await asReceived('You should be ashamed of this.'), await asReceived(null)];
    expect(withheld.join()).toContain('How was this measured?');
    expect(withheld).toEqual(never);
  });

  it('can be a note, an answer, or all of it; it comes back as easily', async () => {
    await submitted();
    world.clock.goTo(AT.closed);
    expect((await withhold('note', NOTE_ID)).status).toBe(204);
    expect((await withhold('answer', 'first')).status).toBe(204);
    const [part] = await feedback();
    expect(part?.notes.map(({ id: one }) => one)).toEqual([SECOND]);
    expect(Object.keys(part?.answers ?? {})).toEqual(['evidence']);
    await withhold('review', '');
    expect(await feedback()).toEqual([]);
    expect((await world.as(BEN, 'get', `/reviews/${byAnn}`)).status).toBe(404);
    const { marks } = await world.do<{ marks: { reviewsReceived: number } }>(BEN, 'get', `/exchanges/${id}`);
    expect(marks.reviewsReceived).toBe(0);
    for (const [kind, targetId] of [
      ['review', ''],
      ['note', NOTE_ID],
      ['answer', 'first'],
    ])
      await world.do(INES, 'post', `/reviews/${byAnn}/given-back`, { kind, targetId });
    const [all] = await feedback();
    expect([all?.notes.length, Object.keys(all?.answers ?? {}).length]).toEqual([2, 2]);
  });

  it('can be a file', async () => {
    await leaveNote(world, ANN, byAnn);
    const bytes = sample('report.docx');
    const sending = { exchangeId: id, deliverableId: byAnn, use: 'remark' as const, name: 'a.docx', bytes };
    const upload = await begin(world, ANN, sending);
    await send(world, ANN, upload.id, bytes);
    await world.as(ANN, 'post', `/reviews/${byAnn}/files`, { uploadId: upload.id, noteId: NOTE_ID });
    await world.app.get(Copies).idle();
    await submitFilled(world, ANN, byAnn);
    const { files } = await world.do<DeskView>(INES, 'get', `/reviews/${byAnn}`);
    await withhold('file', files[0]?.id ?? '');
    world.clock.goTo(AT.closed);
    expect((await feedback())[0]).toMatchObject({ files: [], notes: [{ id: NOTE_ID }] });
    expect((await world.as(BEN, 'get', `/reviews/${byAnn}/files/${files[0]?.id}`)).status).toBe(404);
  });

  it('is told to the reviewer with its reason where staff want it, and to staff with all', async () => {
    await submitted();
    await withhold('note', NOTE_ID);
    await withhold('answer', 'first', { told: false, reason: 'For us alone.' }, TOM);
    const told = (await world.do<DeskView>(ANN, 'get', `/reviews/${byAnn}`)).withheld;
    expect(told).toEqual([{ kind: 'note', targetId: NOTE_ID, reason: 'It is rude.', staff: null }]);
    expect(JSON.stringify(await world.do<DeskView>(ANN, 'get', `/reviews/${byAnn}`))).not.toContain('For us alone');
    const all = (await world.do<DeskView>(INES, 'get', `/reviews/${byAnn}`)).withheld;
    expect(all.map(({ kind, staff }) => [kind, staff?.by, staff?.counts])).toEqual([
      ['answer', PEOPLE[TOM]?.name, false],
      ['note', PEOPLE[INES]?.name, false],
    ]);
    expect((await queue()).rows[0]?.withheld).toBe(2);
    // Again, with other words: one reason, the last.
    await withhold('note', NOTE_ID, { reason: 'It hurts.', told: false });
    expect((await world.do<DeskView>(ANN, 'get', `/reviews/${byAnn}`)).withheld).toEqual([]);
  });

  it('stays withheld while its reviewer changes the review, also in what was submitted before', async () => {
    await submitted();
    await world.do(ANN, 'post', `/reviews/${byAnn}/reopen`);
    await world.do(ANN, 'delete', `/reviews/${byAnn}/notes/${NOTE_ID}`);
    expect((await withhold('note', NOTE_ID)).status).toBe(204);
    await withhold('answer', 'first');
    const answers = (await world.do<DeskView>(ANN, 'get', `/reviews/${byAnn}`)).answers;
    const changed = { revision: answers['first']?.revision, text: 'Say how large the whole site is.' };
    await world.do(ANN, 'put', `/reviews/${byAnn}/answers/first`, changed);
    world.clock.goTo(AT.closed);
    const [review] = await feedback();
    expect(review?.notes.map(({ id: one }) => one)).toEqual([SECOND]);
    expect(Object.keys(review?.answers ?? {})).toEqual(['evidence']);
  });

  it('is something that is there, withheld by staff, with a reason', async () => {
    await submitted();
    for (const [kind, targetId] of [
      ['note', 'x'],
      ['answer', 'none'],
      ['file', 'x'],
      ['review', 'x'],
    ] as const)
      expect([kind, (await withhold(kind, targetId)).status]).toEqual([kind, 404]);
    expect((await withhold('note', NOTE_ID, { reason: ' ' })).status).toBe(422);
    expect((await withhold('all', NOTE_ID)).status).toBe(422);
    for (const who of [ANN, BEN, CHO]) expect((await withhold('note', NOTE_ID, {}, who)).status).toBe(403);
    const giveBack = { kind: 'note', targetId: NOTE_ID };
    expect((await world.as(ANN, 'post', `/reviews/${byAnn}/given-back`, giveBack)).status).toBe(403);
    expect(
      (
        await world.as(INES, 'put', `/reviews/${byBen}/withheld`, {
          ...giveBack,
          reason: 'x',
          told: true,
          counts: true,
        })
      ).status,
    ).toBe(404);
  });
});
