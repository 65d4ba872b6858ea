import { changedBoard, type AllocationView, type BoardChange, type JobView } from '@salt-circle/contracts';
import { Eight, EIGHT, keys } from '../../testing/eight.js';
import { allocateAll, fillIn, leaveNote, previewOf, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, TOM, type TestPerson } from '../../testing/people.js';
import { AT, DATES, DAY } from '../../testing/plan.js';
import { Solver } from './solver.js';

let on: Eight;
beforeEach(async () => {
  on = await Eight.open();
});
afterEach(() => on.world.close());

describe('who has a board already', () => {
  it('is told what differs from it, and somebody else, or with another one, the whole', async () => {
    await on.begin();
    await on.handedInBy(EIGHT);
    const before = await on.look();
    const { pair } = on.idsIn(before);
    const acts = `${on.path}/acts?since=${before.asOf}`;
    const told = await on.world.do<BoardChange>(INES, 'post', acts, { add: [pair(ANN, BEN)] });
    expect([told.since, Object.keys(told.rows)]).toEqual([before.asOf, ['pairs']]);
    expect({ ...changedBoard(before, told), asOf: 0 }).toEqual({ ...(await on.look()), asOf: 0 });
    for (const [person, since] of [
      [TOM, before.asOf],
      [INES, before.asOf - 1],
      [INES, 'now'],
    ] as const) {
      const whole = await on.world.do<AllocationView>(person, 'get', `${on.path}?since=${since}`);
      expect(whole.reviewers.length).toBe(before.reviewers.length);
    }
    expect((await on.world.as(ANN, 'get', `${on.path}?since=${before.asOf}`)).status).toBe(403);
  });
});

describe('a preview', () => {
  it('takes those who handed in, says who is left out and why, and is applied as it was shown', async () => {
    await on.begin();
    const tooFew = await on.world.as(INES, 'post', `${on.path}/previews`, { kind: 'new', seed: 1, wishes: null });
    expect([tooFew.status, tooFew.body.code]).toEqual([409, 'too-few-drafts']);
    await on.handedInBy(EIGHT.slice(0, 7));
    const preview = await previewOf(on.world, on.id);
    expect(preview.quality).toMatchObject({
      placed: { asked: 14, reached: 14, best: 14, beyond: 0 },
      balance: { fewest: 2, most: 2 },
      mutual: { reached: 0 },
    });
    const before = await on.look();
    expect(before).toMatchObject({ applied: false, pairs: [], handedIn: 7, students: 8 });
    expect(before.reviewers.filter(({ leftOut }) => leftOut !== null)).toMatchObject([
      { label: { name: on.nameOf(10) }, leftOut: 'not-handed-in', capacity: 0 },
    ]);
    const after = await on.world.do<AllocationView>(INES, 'post', on.path, { previewId: preview.id });
    expect(keys(after.pairs)).toEqual(keys(preview.pairs));
    // Once applied it is gone.
    expect((await on.world.as(INES, 'post', on.path, { previewId: preview.id })).body.code).toBe('allocation-changed');
    expect((await previewOf(on.world, on.id, { seed: 9 })).pairs).not.toEqual(preview.pairs);
    expect((await previewOf(on.world, on.id)).pairs).toEqual(preview.pairs);
  });

  it('is refused when hand-ins have changed since, and nothing is half applied', async () => {
    await on.begin();
    await on.handedInBy([ANN, BEN]);
    const { id: previewId } = await previewOf(on.world, on.id);
    await on.handedInBy([CHO]);
    const stale = await on.world.as(INES, 'post', on.path, { previewId });
    expect([stale.status, stale.body.code]).toEqual([409, 'allocation-changed']);
    expect(await on.look()).toMatchObject({ applied: false, pairs: [] });
  });

  it('is refused when other people are kept apart since, as many as before', async () => {
    await on.begin();
    await on.handedInBy(EIGHT);
    const { pair } = on.idsIn(await on.look());
    const act = (request: object) => on.world.do(INES, 'post', `${on.path}/acts`, request);
    await act({ forbid: [pair(ANN, BEN)] });
    const { id: previewId, pairs } = await previewOf(on.world, on.id);
    expect(keys(pairs)).not.toContain(keys([pair(ANN, BEN)])[0]);
    await act({ allow: [pair(ANN, BEN)], forbid: [pairs[0] as object] });
    expect((await on.world.as(INES, 'post', on.path, { previewId })).body.code).toBe('allocation-changed');
  });

  it('changes with the wishes, and takes them over when applied', async () => {
    await on.begin();
    await on.handedInBy(EIGHT);
    const wishes = { whom: 'anyone' as const, reviewsEach: 3, avoid: null, mix: false, maxPerDraft: 2 };
    const { quality, shortfalls, id: previewId } = await previewOf(on.world, on.id, { wishes });
    expect(quality.placed).toMatchObject({ asked: 24, reached: 16 });
    expect(shortfalls).toMatchObject([{ asked: 24, possible: 16 }]);
    // What students have been told is not for assistants to change.
    const byTom = await previewOf(on.world, on.id, { wishes }, TOM);
    const refused = await on.world.as(TOM, 'post', on.path, { previewId: byTom.id });
    expect([refused.status, refused.body.code]).toEqual([403, 'not-yours']);
    const view = await on.world.do<AllocationView>(INES, 'post', on.path, { previewId });
    expect(view.wishes).toMatchObject({ reviewsEach: 3, maxPerDraft: 2 });
    await on.undo();
    expect((await on.look()).wishes.reviewsEach).toBe(2);
    const groups = await on.world.as(INES, 'post', `${on.path}/previews`, {
      kind: 'new',
      seed: 1,
      wishes: { ...wishes, whom: 'other-groups' },
    });
    expect([groups.status, groups.body.sentence]).toEqual([422, expect.stringContaining('No groups')]);
  });

  it('can be cancelled, and tells nobody else of itself', async () => {
    await on.begin();
    await on.handedInBy([ANN, BEN, CHO]);
    // A solver that has just begun to untangle, and never comes to an end by itself.
    jest.spyOn(on.world.app.get(Solver), 'solve').mockImplementationOnce((_, watch, signal) => {
      watch({ step: 'mutual', share: 0.5 });
      return new Promise((_done, failed) => {
        signal?.addEventListener('abort', () => failed(Object.assign(new Error('ended'), { name: 'AbortError' })));
      });
    });
    const begun = { kind: 'new', seed: 1, wishes: null };
    const job = await on.world.do<JobView>(INES, 'post', `${on.path}/previews`, begun);
    expect(job).toMatchObject({ state: 'running', progress: { step: 'mutual', share: 0.5 }, preview: null });
    expect((await on.world.as(TOM, 'get', `${on.path}/jobs/${job.id}`)).status).toBe(404);
    expect((await on.world.as(TOM, 'delete', `${on.path}/jobs/${job.id}`)).status).toBe(404);
    expect(await on.world.do(INES, 'get', `${on.path}/jobs/${job.id}`)).toMatchObject({ state: 'running' });
    expect((await on.world.as(INES, 'delete', `${on.path}/jobs/${job.id}`)).status).toBe(204);
    expect(await on.world.do(INES, 'get', `${on.path}/jobs/${job.id}`)).toMatchObject({
      state: 'cancelled',
      preview: null,
    });
    expect((await previewOf(on.world, on.id)).quality.placed.reached).toBe(6);
  });

  it('avoids pairs of earlier exchanges of the course', async () => {
    await on.begin();
    await on.handedInBy(EIGHT);
    const first = await allocateAll(on.world, on.id);
    const met = new Set(
      first.pairs.map((pair) => {
        const reviewer = first.reviewers.find((one) => one.id === pair.reviewerId)?.label.name;
        const author = first.drafts.find((one) => one.id === pair.draftId)?.author.name;
        return `${reviewer} ${author}`;
      }),
    );
    await on.begin();
    await on.handedInBy(EIGHT);
    const preview = await previewOf(on.world, on.id);
    expect(preview.quality.repeats).toEqual({ reached: 0, best: 0, pairs: 0 });
    const view = await on.world.do<AllocationView>(INES, 'post', on.path, { previewId: preview.id });
    expect(view.earlier).toHaveLength(16);
    expect(view.earlierExchanges).toHaveLength(1);
    for (const pair of view.pairs) {
      const reviewer = view.reviewers.find((one) => one.id === pair.reviewerId)?.label.name;
      const author = view.drafts.find((one) => one.id === pair.draftId)?.author.name;
      expect(met.has(`${reviewer} ${author}`)).toBe(false);
    }
  });
});

describe('once applied', () => {
  it('takes back the step that is named, and no other one: not what somebody else did since, and nothing twice', async () => {
    await on.begin();
    await on.handedInBy(EIGHT);
    const [pair] = (await allocateAll(on.world, on.id)).pairs.map(({ reviewerId, draftId }) => ({
      reviewerId,
      draftId,
    }));
    const acts = (body: object) => on.world.do<AllocationView>(INES, 'post', `${on.path}/acts`, body);
    const held = await acts({ lock: [pair] });
    expect(held.undo?.act).toBe('by-hand');
    const apart = await acts({ forbid: [pair] });
    const undo = (step: number | undefined) => on.world.as(INES, 'post', `${on.path}/undo`, { step });
    expect((await undo(held.undo?.step)).body.code).toBe('allocation-changed');
    const [once, twice] = await Promise.all([undo(apart.undo?.step), undo(apart.undo?.step)]);
    expect([once.status, twice.status].sort()).toEqual([200, 409]);
    const back = await on.look();
    expect([back.undo, back.forbidden.length]).toEqual([held.undo, 0]);
    // Holding is a step as well.
    await on.undo();
    expect((await on.look()).pairs.filter(({ locked }) => locked)).toEqual([]);
  });

  it('is undone as long as none of its reviews has begun', async () => {
    await on.begin();
    await on.handedInBy(EIGHT);
    const first = await allocateAll(on.world, on.id);
    const second = await allocateAll(on.world, on.id, { seed: 2 });
    expect(keys(second.pairs)).not.toEqual(keys(first.pairs));
    const back = await on.undo();
    expect(keys(back.pairs)).toEqual(keys(first.pairs));
    on.world.clock.goTo(AT.reviewing);
    const [card] = await on.world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${on.id}/reviews`);
    await on.world.do(ANN, 'put', `/reviews/${card?.id}/answers/evidence`, { revision: 0, levelId: 'low' });
    expect(await on.look()).toMatchObject({ begun: true, undo: null });
    expect((await on.world.as(INES, 'post', `${on.path}/undo`, { step: 1 })).body.code).toBe('allocation-begun');
    const anew = await on.world.as(INES, 'post', `${on.path}/previews`, { kind: 'new', seed: 3, wishes: null });
    expect([anew.status, anew.body.code]).toEqual([409, 'allocation-begun']);
    expect(anew.body.sentence).toContain('One review has been begun');
  });

  it('tells reviewers when reviewing opens, not before, once, and not before their own hand-in', async () => {
    await on.begin();
    await on.handedInBy([ANN, BEN]);
    const view = await allocateAll(on.world, on.id);
    const { reviewer, draft } = on.idsIn(view);
    // By hand, somebody who has not handed in gets a draft.
    await on.world.do(INES, 'post', `${on.path}/acts`, {
      add: [{ reviewerId: reviewer(CHO), draftId: draft(ANN) }],
    });
    await on.runs();
    expect(await on.lettersTo(ANN)).toEqual([]);
    expect(await on.todayOf(ANN)).not.toContain('write-review');
    on.world.clock.goTo(AT.reviewing);
    await on.runs();
    await on.runs();
    expect(await on.lettersTo(ANN)).toHaveLength(1);
    expect((await on.lettersTo(ANN))[0]?.text).toContain(`/exchanges/${on.id}/review`);
    expect(await on.todayOf(ANN)).toContain('write-review');
    expect(await on.lettersTo(CHO)).toEqual([]);
    expect(await on.todayOf(CHO)).not.toContain('write-review');
  });

  it('suggests a repair after a late hand-in and a drop-out, and moves nothing that has begun', async () => {
    await on.begin({ dates: { ...DATES, lateUntil: new Date(AT.reviewing - DAY).toISOString() } });
    await on.handedInBy(EIGHT.slice(0, 7));
    const before = await allocateAll(on.world, on.id);
    expect(before.suggestion).toBeNull();
    on.world.clock.goTo(AT.afterDue);
    await on.handedInBy([10]);
    expect((await on.look()).suggestion).toMatchObject({ late: [{ name: on.nameOf(10) }], left: [], forbidden: 0 });
    expect(await on.todayOf(INES)).toContain('mend-allocation');
    on.world.clock.goTo(AT.reviewing);
    const [card] = await on.world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${on.id}/reviews`);
    await on.world.do(ANN, 'put', `/reviews/${card?.id}/answers/evidence`, { revision: 0, levelId: 'low' });
    const repair = await previewOf(on.world, on.id, { kind: 'repair' });
    expect(repair.quality.balance).toMatchObject({ fewest: 2, most: 2 });
    expect(repair.removed).toHaveLength(2);
    expect(repair.removed.map(({ reason }) => reason)).toEqual(['makes-room', 'makes-room']);
    expect(repair.added).toHaveLength(4);
    const after = await on.world.do<AllocationView>(INES, 'post', on.path, { previewId: repair.id });
    expect(after.suggestion).toBeNull();
    expect(after.pairs.find(({ reviewId }) => reviewId === card?.id)?.state).toBe('in-progress');
    // Whoever got something new is told at once: reviewing is open.
    expect(await on.lettersTo(10)).toHaveLength(1);
    // Somebody leaves: what that person wrote stays, and the rest goes to others.
    const gone = on.world.people[7] as TestPerson;
    // What that person has begun by then stays where it is, in the preview as on the board.
    const [theirs] = await on.world.do<Array<{ id: string }>>(7, 'get', `/exchanges/${on.id}/reviews`);
    await on.world.do(7, 'put', `/reviews/${theirs?.id}/answers/evidence`, { revision: 0, levelId: 'low' });
    await on.world.do(INES, 'delete', `/courses/course/people/e-${on.world.people.indexOf(gone)}`);
    const { suggestion } = await on.look();
    expect(suggestion?.left).toContainEqual(expect.objectContaining({ name: gone.name }));
    const mend = await previewOf(on.world, on.id, { kind: 'repair' });
    expect(new Set(mend.removed.map(({ reason }) => reason))).toEqual(new Set(['reviewer-left', 'draft-withdrawn']));
    expect(mend.quality.balance).toMatchObject({ fewest: 2, most: 2 });
    // Looked at in another tab as well: either can be applied, and only one.
    const other = await previewOf(on.world, on.id, { kind: 'repair' });
    const mended = await on.world.do<AllocationView>(INES, 'post', on.path, { previewId: mend.id });
    expect(mended.suggestion).toBeNull();
    expect(keys(mended.pairs)).toEqual(keys(mend.pairs));
    expect(mended.pairs.map(({ reviewId }) => reviewId)).toContain(theirs?.id);
    const twice = await on.world.as(INES, 'post', on.path, { previewId: mend.id });
    expect([twice.status, twice.body.sentence]).toEqual([409, expect.stringContaining('dropped or applied')]);
    expect((await on.world.as(INES, 'post', on.path, { previewId: other.id })).status).toBe(200);
  });
});

describe('where everybody reviews the own draft as well', () => {
  it('gives a late one that review too, and counts it for nothing else', async () => {
    await on.begin({
      selfReview: 'with',
      dates: { ...DATES, lateUntil: new Date(AT.afterDue + DAY / 2).toISOString() },
    });
    await on.handedInBy(EIGHT.slice(0, 7));
    const view = await allocateAll(on.world, on.id);
    expect(view.pairs.filter(({ self }) => self)).toHaveLength(7);
    expect(view.pairs).toHaveLength(21);
    on.world.clock.goTo(AT.afterDue);
    await on.handedInBy([10]);
    const repair = await previewOf(on.world, on.id, { kind: 'repair' });
    expect(repair.quality.placed).toMatchObject({ asked: 16, reached: 16 });
    const after = await on.world.do<AllocationView>(INES, 'post', on.path, { previewId: repair.id });
    const { pair } = on.idsIn(after);
    expect(after.pairs.find((one) => keys([one])[0] === keys([pair(10, 10)])[0])?.self).toBe(true);
    expect(after.pairs).toHaveLength(24);
  });
});

describe('by hand', () => {
  let view: AllocationView;
  let at: ReturnType<Eight['idsIn']>;
  const acts = (request: object, person: number = INES) => on.world.as(person, 'post', `${on.path}/acts`, request);
  const isThere = (now: AllocationView, pair: { reviewerId: string; draftId: string }) =>
    keys(now.pairs).includes(keys([pair])[0] as string);

  beforeEach(async () => {
    await on.begin();
    await on.handedInBy(EIGHT);
    view = await allocateAll(on.world, on.id);
    at = on.idsIn(view);
  });

  it('adds, moves, swaps and removes, each undone by one press; what was made by hand stays in a new allocation', async () => {
    const [first, second] = view.pairs.filter(({ reviewerId }) => reviewerId === at.reviewer(ANN));
    const free = view.drafts.find(
      ({ id: draftId, authorIds }) =>
        !authorIds.includes(at.reviewer(ANN)) && ![first?.draftId, second?.draftId].includes(draftId),
    );
    const pair = { reviewerId: at.reviewer(ANN), draftId: free?.id ?? '' };
    const added = (await acts({ add: [pair] })).body as AllocationView;
    expect(added.pairs.find((one) => keys([one])[0] === keys([pair])[0])).toMatchObject({ locked: true });
    expect(added.undo?.act).toBe('by-hand');
    const again = await acts({ add: [pair] });
    expect([again.status, again.body.sentence]).toEqual([422, expect.stringContaining('allocated already')]);
    const own = await acts({ add: [at.pair(ANN, ANN)] });
    expect([own.status, own.body.sentence]).toEqual([422, expect.stringContaining('wrote that draft')]);
    const preview = await previewOf(on.world, on.id, { seed: 77 });
    expect(keys(preview.pairs)).toEqual(expect.arrayContaining(keys([pair])));
    // A move is taking away and adding at once.
    const to = { reviewerId: at.reviewer(ANN), draftId: first?.draftId ?? '' };
    const undone = await on.undo();
    expect(isThere(undone, pair)).toBe(false);
    const moved = (await acts({ remove: [to], add: [pair] })).body as AllocationView;
    expect([isThere(moved, to), isThere(moved, pair)]).toEqual([false, true]);
    expect(keys((await on.undo()).pairs)).toEqual(keys(view.pairs));
  });

  it('holds and lets go, keeps apart and allows', async () => {
    const [pair] = view.pairs;
    const plain = { reviewerId: pair?.reviewerId ?? '', draftId: pair?.draftId ?? '' };
    const held = (await acts({ lock: [plain] })).body as AllocationView;
    expect(held.pairs.filter(({ locked }) => locked)).toMatchObject([plain]);
    await acts({ unlock: [plain] });
    const apart = (await acts({ forbid: [plain] })).body as AllocationView;
    expect(apart.forbidden).toEqual([plain]);
    expect(apart.suggestion).toMatchObject({ forbidden: 1 });
    const repair = await previewOf(on.world, on.id, { kind: 'repair' });
    expect(repair.removed).toContainEqual({ ...plain, reason: 'forbidden' });
    await acts({ remove: [plain] });
    const refused = await acts({ add: [plain] });
    expect([refused.status, refused.body.sentence]).toEqual([422, expect.stringContaining('kept')]);
    expect(((await acts({ allow: [plain], add: [plain] })).body as AllocationView).forbidden).toEqual([]);
  });

  it('takes away what has begun only after a second yes, keeps the work, and brings it back', async () => {
    on.world.clock.goTo(AT.reviewing);
    const [card] = await on.world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${on.id}/reviews`);
    const reviewId = card?.id ?? '';
    await fillIn(on.world, ANN, reviewId);
    await leaveNote(on.world, ANN, reviewId);
    await on.world.do(ANN, 'post', `/reviews/${reviewId}/submit`);
    const now = await on.look();
    const { reviewerId = '', draftId = '' } = now.pairs.find((one) => one.reviewId === reviewId) ?? {};
    const asked = await acts({ remove: [{ reviewerId, draftId }] });
    expect([asked.status, asked.body.code]).toEqual([409, 'needs-confirming']);
    expect(asked.body.sentence).toContain('has been submitted (2 of 2 answered, 1 note)');
    const gone = (await acts({ remove: [{ reviewerId, draftId }], confirmed: true })).body as AllocationView;
    expect(isThere(gone, { reviewerId, draftId })).toBe(false);
    // It is gone for everybody: reviewer, author, board and figures.
    expect((await on.world.as(ANN, 'get', `/reviews/${reviewId}`)).status).toBe(404);
    const progress = await on.world.do<{ rows: Array<{ reviews: unknown[] }> }>(
      INES,
      'get',
      `/exchanges/${on.id}/progress`,
    );
    expect(progress.rows.reduce((sum, { reviews }) => sum + reviews.length, 0)).toBe(15);
    await acts({ add: [{ reviewerId, draftId }] });
    const desk = await on.world.do<{ answers: object; notes: unknown[] }>(ANN, 'get', `/reviews/${reviewId}`);
    expect([Object.keys(desk.answers), desk.notes.length]).toEqual([['evidence', 'first'], 1]);
  });

  it('refuses a whole act when part of it is wrong', async () => {
    const [pair] = view.pairs;
    const wrong = await acts({
      remove: [{ reviewerId: pair?.reviewerId, draftId: pair?.draftId }],
      add: [at.pair(ANN, ANN)],
    });
    expect(wrong.status).toBe(422);
    expect(keys((await on.look()).pairs)).toEqual(keys(view.pairs));
    expect((await acts({ add: [{ reviewerId: 'nobody', draftId: 'nothing' }] })).status).toBe(404);
    expect((await acts({ add: [at.pair(ANN, BEN)] }, BEN)).status).toBe(403);
  });

  it('lets an assistant review as well, under an alias, from the opening of reviews on', async () => {
    const tom = view.staff.find(({ name }) => name === on.nameOf(TOM))?.personId;
    const extra = await on.world.do<AllocationView>(INES, 'put', `${on.path}/extra`, { personId: tom, reviews: 3 });
    expect(extra.reviewers.find((one) => one.extra)).toMatchObject({ label: { name: on.nameOf(TOM) }, capacity: 3 });
    const { quality, id: previewId } = await previewOf(on.world, on.id, { seed: 4 });
    expect(quality.placed).toMatchObject({ asked: 19, reached: 19 });
    await on.world.do(INES, 'post', on.path, { previewId });
    expect(await on.todayOf(TOM)).not.toContain('write-review');
    on.world.clock.goTo(AT.reviewing);
    expect(await on.todayOf(TOM)).toContain('write-review');
    const cards = await on.world.do<Array<{ id: string; author: { name?: string } }>>(
      TOM,
      'get',
      `/exchanges/${on.id}/reviews`,
    );
    expect(cards).toHaveLength(3);
    const reviewId = cards[0]?.id ?? '';
    await submitFilled(on.world, TOM, reviewId);
    // Students are those who take part; the assistant is not among them.
    expect(await on.look()).toMatchObject({ students: 8 });
    const staff = await on.world.as(INES, 'put', `${on.path}/extra`, { personId: tom, reviews: null });
    expect([staff.status, staff.body.sentence]).toEqual([409, expect.stringContaining('has begun one review')]);
    on.world.clock.goTo(AT.closed);
    for (const person of EIGHT) {
      const text = JSON.stringify((await on.world.as(person, 'get', `/exchanges/${on.id}/feedback`)).body);
      expect(text).not.toContain(on.nameOf(TOM));
    }
  });
});
