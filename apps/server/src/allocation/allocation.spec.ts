import type { AllocationImportView, AllocationView, JobView, TodayView } from '@salt-circle/contracts';
import { Mail } from '../mail/entities.js';
import {
  allocateAll,
  ANN,
  AT,
  BEN,
  CHO,
  DAY,
  DATES,
  fillIn,
  handIn,
  INES,
  NOTE,
  NOTE_ID,
  PEOPLE,
  PLAN,
  previewOf,
  publishedExchange,
  TOM,
  World,
  type TestPerson,
} from '../testing/world.js';
import { PlannedRuns } from './planned-runs.js';
import { PreviewsService } from './previews.service.js';
import { Solver } from './solver.js';

const STUDENTS: readonly TestPerson[] = ['Dee', 'Eli', 'Fay', 'Gus', 'Hal'].map((name, index) => ({
  id: `p-${name.toLowerCase()}`,
  name: `${name} Lindqvist`,
  email: `${name.toLowerCase()}@example.org`,
  campusId: `c-${index + 4}`,
  role: 'student',
}));
const CLASS: readonly TestPerson[] = [...PEOPLE, ...STUDENTS];
/** Eight students: three of the usual world and five more. */
const EIGHT: readonly number[] = [ANN, BEN, CHO, 6, 7, 8, 9, 10];

let world: World;
let id: string;
const path = () => `/exchanges/${id}/allocation`;
const look = (person: number = INES) => world.do<AllocationView>(person, 'get', path());
const nameOf = (person: number) => (world.people[person] as TestPerson).name;

async function begin(part: Partial<typeof PLAN> = {}): Promise<void> {
  id = await publishedExchange(world, { reviewsPerStudent: 2, ...part });
  world.clock.goTo(AT.drafting);
}

/** Hand-ins of so many of the eight. */
async function handedInBy(people: readonly number[]): Promise<void> {
  for (const person of people) await handIn(world, person, id, `The bed rose by ${person} centimetres.`);
}

function idsIn(view: AllocationView) {
  const reviewer = (person: number) => view.reviewers.find(({ label }) => label.name === nameOf(person))?.id ?? '';
  const draft = (person: number) => view.drafts.find(({ author }) => author.name === nameOf(person))?.id ?? '';
  return { reviewer, draft, pair: (a: number, b: number) => ({ reviewerId: reviewer(a), draftId: draft(b) }) };
}

const keys = (pairs: ReadonlyArray<{ reviewerId: string; draftId: string }>) =>
  pairs.map(({ reviewerId, draftId }) => `${reviewerId} ${draftId}`).sort();
const lettersTo = async (person: number, about = 'for you to review') =>
  (await world.database.read.findBy(Mail, { address: (world.people[person] as TestPerson).email })).filter(
    ({ subject }) => subject.includes(about),
  );
const todayOf = async (person: number) =>
  (await world.do<TodayView>(person, 'get', '/today')).items.map(({ kind }) => kind);

beforeEach(async () => {
  world = await World.open({}, CLASS);
});
afterEach(() => world.close());

describe('a preview', () => {
  it('takes those who handed in, says who is left out and why, and is applied as it was shown', async () => {
    await begin();
    const tooFew = await world.as(INES, 'post', `${path()}/previews`, { kind: 'new', seed: 1, wishes: null });
    expect([tooFew.status, tooFew.body.code]).toEqual([409, 'too-few-drafts']);
    await handedInBy(EIGHT.slice(0, 7));
    const preview = await previewOf(world, id);
    expect(preview.quality).toMatchObject({
      placed: { asked: 14, reached: 14, best: 14, beyond: 0 },
      balance: { fewest: 2, most: 2 },
      mutual: { reached: 0 },
    });
    const before = await look();
    expect(before).toMatchObject({ applied: false, pairs: [], handedIn: 7, students: 8 });
    expect(before.reviewers.filter(({ leftOut }) => leftOut !== null)).toMatchObject([
      { label: { name: nameOf(10) }, leftOut: 'not-handed-in', capacity: 0 },
    ]);
    const after = await world.do<AllocationView>(INES, 'post', path(), { previewId: preview.id });
    expect(keys(after.pairs)).toEqual(keys(preview.pairs));
    // Once applied it is gone.
    expect((await world.as(INES, 'post', path(), { previewId: preview.id })).body.code).toBe('allocation-changed');
    expect((await previewOf(world, id, { seed: 9 })).pairs).not.toEqual(preview.pairs);
    expect((await previewOf(world, id)).pairs).toEqual(preview.pairs);
  });

  it('is refused when hand-ins have changed since, and nothing is half applied', async () => {
    await begin();
    await handedInBy([ANN, BEN]);
    const { id: previewId } = await previewOf(world, id);
    await handedInBy([CHO]);
    const stale = await world.as(INES, 'post', path(), { previewId });
    expect([stale.status, stale.body.code]).toEqual([409, 'allocation-changed']);
    expect(await look()).toMatchObject({ applied: false, pairs: [] });
  });

  it('is refused when other people are kept apart since, as many as before', async () => {
    await begin();
    await handedInBy(EIGHT);
    const { pair } = idsIn(await look());
    const act = (request: object) => world.do(INES, 'post', `${path()}/acts`, request);
    await act({ forbid: [pair(ANN, BEN)] });
    const { id: previewId, pairs } = await previewOf(world, id);
    expect(keys(pairs)).not.toContain(keys([pair(ANN, BEN)])[0]);
    await act({ allow: [pair(ANN, BEN)], forbid: [pairs[0] as object] });
    expect((await world.as(INES, 'post', path(), { previewId })).body.code).toBe('allocation-changed');
  });

  it('changes with the wishes, and takes them over when applied', async () => {
    await begin();
    await handedInBy(EIGHT);
    const wishes = { whom: 'anyone' as const, reviewsEach: 3, avoid: null, mix: false, maxPerDraft: 2 };
    const { quality, shortfalls, id: previewId } = await previewOf(world, id, { wishes });
    expect(quality.placed).toMatchObject({ asked: 24, reached: 16 });
    expect(shortfalls).toMatchObject([{ asked: 24, possible: 16 }]);
    // What students have been told is not for assistants to change.
    const byTom = await previewOf(world, id, { wishes }, TOM);
    const refused = await world.as(TOM, 'post', path(), { previewId: byTom.id });
    expect([refused.status, refused.body.code]).toEqual([403, 'not-yours']);
    const view = await world.do<AllocationView>(INES, 'post', path(), { previewId });
    expect(view.wishes).toMatchObject({ reviewsEach: 3, maxPerDraft: 2 });
    await world.do(INES, 'post', `${path()}/undo`);
    expect((await look()).wishes.reviewsEach).toBe(2);
    const groups = await world.as(INES, 'post', `${path()}/previews`, {
      kind: 'new',
      seed: 1,
      wishes: { ...wishes, whom: 'other-groups' },
    });
    expect([groups.status, groups.body.sentence]).toEqual([422, expect.stringContaining('No groups')]);
  });

  it('can be cancelled, and tells nobody else of itself', async () => {
    await begin();
    await handedInBy([ANN, BEN, CHO]);
    // A solver that has just begun to untangle, and never comes to an end by itself.
    jest.spyOn(world.app.get(Solver), 'solve').mockImplementationOnce((_, watch, signal) => {
      watch({ step: 'mutual', share: 0.5 });
      return new Promise((_done, failed) => {
        signal?.addEventListener('abort', () => failed(Object.assign(new Error('ended'), { name: 'AbortError' })));
      });
    });
    const begun = { kind: 'new', seed: 1, wishes: null };
    const job = await world.do<JobView>(INES, 'post', `${path()}/previews`, begun);
    expect(job).toMatchObject({ state: 'running', progress: { step: 'mutual', share: 0.5 }, preview: null });
    expect((await world.as(TOM, 'get', `${path()}/jobs/${job.id}`)).status).toBe(404);
    expect((await world.as(TOM, 'delete', `${path()}/jobs/${job.id}`)).status).toBe(404);
    expect(await world.do(INES, 'get', `${path()}/jobs/${job.id}`)).toMatchObject({ state: 'running' });
    expect((await world.as(INES, 'delete', `${path()}/jobs/${job.id}`)).status).toBe(204);
    expect(await world.do(INES, 'get', `${path()}/jobs/${job.id}`)).toMatchObject({
      state: 'cancelled',
      preview: null,
    });
    expect((await previewOf(world, id)).quality.placed.reached).toBe(6);
  });

  it('avoids pairs of earlier exchanges of the course', async () => {
    await begin();
    await handedInBy(EIGHT);
    const first = await allocateAll(world, id);
    const met = new Set(
      first.pairs.map((pair) => {
        const reviewer = first.reviewers.find((one) => one.id === pair.reviewerId)?.label.name;
        const author = first.drafts.find((one) => one.id === pair.draftId)?.author.name;
        return `${reviewer} ${author}`;
      }),
    );
    await begin();
    await handedInBy(EIGHT);
    const preview = await previewOf(world, id);
    expect(preview.quality.repeats).toEqual({ reached: 0, best: 0 });
    const view = await world.do<AllocationView>(INES, 'post', path(), { previewId: preview.id });
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
  it('is undone as long as none of its reviews has begun', async () => {
    await begin();
    await handedInBy(EIGHT);
    const first = await allocateAll(world, id);
    const second = await allocateAll(world, id, { seed: 2 });
    expect(keys(second.pairs)).not.toEqual(keys(first.pairs));
    const back = await world.do<AllocationView>(INES, 'post', `${path()}/undo`);
    expect(keys(back.pairs)).toEqual(keys(first.pairs));
    world.clock.goTo(AT.reviewing);
    const [card] = await world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${id}/reviews`);
    await world.do(ANN, 'put', `/reviews/${card?.id}/answers/evidence`, { revision: 0, levelId: 'low' });
    expect(await look()).toMatchObject({ begun: true, undo: null });
    expect((await world.as(INES, 'post', `${path()}/undo`)).body.code).toBe('allocation-begun');
    const anew = await world.as(INES, 'post', `${path()}/previews`, { kind: 'new', seed: 3, wishes: null });
    expect([anew.status, anew.body.code]).toEqual([409, 'allocation-begun']);
    expect(anew.body.sentence).toContain('One review has been begun');
  });

  it('tells reviewers when reviewing opens, not before, once, and not before their own hand-in', async () => {
    await begin();
    await handedInBy([ANN, BEN]);
    const view = await allocateAll(world, id);
    const { reviewer, draft } = idsIn(view);
    // By hand, somebody who has not handed in gets a draft.
    await world.do(INES, 'post', `${path()}/acts`, {
      add: [{ reviewerId: reviewer(CHO), draftId: draft(ANN) }],
    });
    const runs = world.app.get(PlannedRuns);
    await runs.look();
    expect(await lettersTo(ANN)).toEqual([]);
    expect(await todayOf(ANN)).not.toContain('write-review');
    world.clock.goTo(AT.reviewing);
    await runs.look();
    await runs.look();
    expect(await lettersTo(ANN)).toHaveLength(1);
    expect((await lettersTo(ANN))[0]?.text).toContain(`/exchanges/${id}/review`);
    expect(await todayOf(ANN)).toContain('write-review');
    expect(await lettersTo(CHO)).toEqual([]);
    expect(await todayOf(CHO)).not.toContain('write-review');
  });

  it('suggests a repair after a late hand-in and a drop-out, and moves nothing that has begun', async () => {
    await begin({ dates: { ...DATES, lateUntil: new Date(AT.reviewing - DAY).toISOString() } });
    await handedInBy(EIGHT.slice(0, 7));
    const before = await allocateAll(world, id);
    expect(before.suggestion).toBeNull();
    world.clock.goTo(AT.afterDue);
    await handedInBy([10]);
    expect((await look()).suggestion).toMatchObject({ late: [{ name: nameOf(10) }], left: [], forbidden: 0 });
    expect(await todayOf(INES)).toContain('mend-allocation');
    world.clock.goTo(AT.reviewing);
    const [card] = await world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${id}/reviews`);
    await world.do(ANN, 'put', `/reviews/${card?.id}/answers/evidence`, { revision: 0, levelId: 'low' });
    const repair = await previewOf(world, id, { kind: 'repair' });
    expect(repair.quality.balance).toMatchObject({ fewest: 2, most: 2 });
    expect(repair.removed).toHaveLength(2);
    expect(repair.removed.map(({ reason }) => reason)).toEqual(['makes-room', 'makes-room']);
    expect(repair.added).toHaveLength(4);
    const after = await world.do<AllocationView>(INES, 'post', path(), { previewId: repair.id });
    expect(after.suggestion).toBeNull();
    expect(after.pairs.find(({ reviewId }) => reviewId === card?.id)?.state).toBe('in-progress');
    // Whoever got something new is told at once: reviewing is open.
    expect(await lettersTo(10)).toHaveLength(1);
    // Somebody leaves: what that person wrote stays, and the rest goes to others.
    const gone = world.people[7] as TestPerson;
    await world.do(INES, 'delete', `/courses/course/people/e-${world.people.indexOf(gone)}`);
    const { suggestion } = await look();
    expect(suggestion?.left).toContainEqual(expect.objectContaining({ name: gone.name }));
    const mend = await previewOf(world, id, { kind: 'repair' });
    expect(new Set(mend.removed.map(({ reason }) => reason))).toEqual(new Set(['reviewer-left', 'draft-withdrawn']));
    expect(mend.quality.balance).toMatchObject({ fewest: 2, most: 2 });
    expect(await world.do(INES, 'post', path(), { previewId: mend.id })).toMatchObject({ suggestion: null });
  });
});

describe('by hand', () => {
  let view: AllocationView;
  let at: ReturnType<typeof idsIn>;
  const acts = (request: object, person: number = INES) => world.as(person, 'post', `${path()}/acts`, request);
  const isThere = (now: AllocationView, pair: { reviewerId: string; draftId: string }) =>
    keys(now.pairs).includes(keys([pair])[0] as string);

  beforeEach(async () => {
    await begin();
    await handedInBy(EIGHT);
    view = await allocateAll(world, id);
    at = idsIn(view);
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
    expect(added.undo).toBe('by-hand');
    const again = await acts({ add: [pair] });
    expect([again.status, again.body.sentence]).toEqual([422, expect.stringContaining('allocated already')]);
    const own = await acts({ add: [at.pair(ANN, ANN)] });
    expect([own.status, own.body.sentence]).toEqual([422, expect.stringContaining('wrote that draft')]);
    const preview = await previewOf(world, id, { seed: 77 });
    expect(keys(preview.pairs)).toEqual(expect.arrayContaining(keys([pair])));
    // A move is taking away and adding at once.
    const to = { reviewerId: at.reviewer(ANN), draftId: first?.draftId ?? '' };
    const undone = await world.do<AllocationView>(INES, 'post', `${path()}/undo`);
    expect(isThere(undone, pair)).toBe(false);
    const moved = (await acts({ remove: [to], add: [pair] })).body as AllocationView;
    expect([isThere(moved, to), isThere(moved, pair)]).toEqual([false, true]);
    expect(keys((await world.do<AllocationView>(INES, 'post', `${path()}/undo`)).pairs)).toEqual(keys(view.pairs));
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
    const repair = await previewOf(world, id, { kind: 'repair' });
    expect(repair.removed).toContainEqual({ ...plain, reason: 'forbidden' });
    await acts({ remove: [plain] });
    const refused = await acts({ add: [plain] });
    expect([refused.status, refused.body.sentence]).toEqual([422, expect.stringContaining('kept')]);
    expect(((await acts({ allow: [plain], add: [plain] })).body as AllocationView).forbidden).toEqual([]);
  });

  it('takes away what has begun only after a second yes, keeps the work, and brings it back', async () => {
    world.clock.goTo(AT.reviewing);
    const [card] = await world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${id}/reviews`);
    const reviewId = card?.id ?? '';
    await fillIn(world, ANN, reviewId);
    await world.do(ANN, 'put', `/reviews/${reviewId}/notes/${NOTE_ID}`, NOTE);
    await world.do(ANN, 'post', `/reviews/${reviewId}/submit`);
    const now = await look();
    const { reviewerId = '', draftId = '' } = now.pairs.find((one) => one.reviewId === reviewId) ?? {};
    const asked = await acts({ remove: [{ reviewerId, draftId }] });
    expect([asked.status, asked.body.code]).toEqual([409, 'needs-confirming']);
    expect(asked.body.sentence).toContain('has been submitted (2 of 2 answered, 1 note)');
    const gone = (await acts({ remove: [{ reviewerId, draftId }], confirmed: true })).body as AllocationView;
    expect(isThere(gone, { reviewerId, draftId })).toBe(false);
    // It is gone for everybody: reviewer, author, board and figures.
    expect((await world.as(ANN, 'get', `/reviews/${reviewId}`)).status).toBe(404);
    const progress = await world.do<{ rows: Array<{ reviews: unknown[] }> }>(INES, 'get', `/exchanges/${id}/progress`);
    expect(progress.rows.reduce((sum, { reviews }) => sum + reviews.length, 0)).toBe(15);
    await acts({ add: [{ reviewerId, draftId }] });
    const desk = await world.do<{ answers: object; notes: unknown[] }>(ANN, 'get', `/reviews/${reviewId}`);
    expect([Object.keys(desk.answers), desk.notes.length]).toEqual([['evidence', 'first'], 1]);
  });

  it('refuses a whole act when part of it is wrong', async () => {
    const [pair] = view.pairs;
    const wrong = await acts({
      remove: [{ reviewerId: pair?.reviewerId, draftId: pair?.draftId }],
      add: [at.pair(ANN, ANN)],
    });
    expect(wrong.status).toBe(422);
    expect(keys((await look()).pairs)).toEqual(keys(view.pairs));
    expect((await acts({ add: [{ reviewerId: 'nobody', draftId: 'nothing' }] })).status).toBe(404);
    expect((await acts({ add: [at.pair(ANN, BEN)] }, BEN)).status).toBe(403);
  });

  it('lets an assistant review as well, under an alias, from the opening of reviews on', async () => {
    const tom = view.staff.find(({ name }) => name === nameOf(TOM))?.personId;
    const extra = await world.do<AllocationView>(INES, 'put', `${path()}/extra`, { personId: tom, reviews: 3 });
    expect(extra.reviewers.find((one) => one.extra)).toMatchObject({ label: { name: nameOf(TOM) }, capacity: 3 });
    const { quality, id: previewId } = await previewOf(world, id, { seed: 4 });
    expect(quality.placed).toMatchObject({ asked: 19, reached: 19 });
    await world.do(INES, 'post', path(), { previewId });
    expect(await todayOf(TOM)).not.toContain('write-review');
    world.clock.goTo(AT.reviewing);
    expect(await todayOf(TOM)).toContain('write-review');
    const cards = await world.do<Array<{ id: string; author: { name?: string } }>>(
      TOM,
      'get',
      `/exchanges/${id}/reviews`,
    );
    expect(cards).toHaveLength(3);
    const reviewId = cards[0]?.id ?? '';
    await fillIn(world, TOM, reviewId);
    await world.do(TOM, 'post', `/reviews/${reviewId}/submit`);
    // Students are those who take part; the assistant is not among them.
    expect(await look()).toMatchObject({ students: 8 });
    const staff = await world.as(INES, 'put', `${path()}/extra`, { personId: tom, reviews: null });
    expect([staff.status, staff.body.sentence]).toEqual([409, expect.stringContaining('has begun one review')]);
    world.clock.goTo(AT.closed);
    for (const person of EIGHT) {
      const text = JSON.stringify((await world.as(person, 'get', `/exchanges/${id}/feedback`)).body);
      expect(text).not.toContain(nameOf(TOM));
    }
  });
});

describe('planned runs', () => {
  const plan = async (part: object) => {
    const { revision, wishes } = await look();
    const { avoid: _avoid, ...rest } = wishes;
    return world.as(INES, 'put', `${path()}/plan`, {
      revision,
      wishes: { ...rest, avoid: null },
      schedule: 'command',
      at: null,
      party: 3,
      patience: 2,
      ...part,
    });
  };
  const runs = () => world.app.get(PlannedRuns).look();

  it('allocates when drafts are due: once, and late if the server was down', async () => {
    await begin();
    expect((await plan({ schedule: 'at-due' })).status).toBe(200);
    expect((await look()).schedule).toMatchObject({ kind: 'at-due', next: DATES.draftsDue });
    await handedInBy(EIGHT);
    await runs();
    expect((await look()).applied).toBe(false);
    // Nobody looked for a day and a half.
    world.clock.goTo(Date.parse(DATES.draftsDue ?? '') + 1.5 * DAY);
    await runs();
    const after = await look();
    expect(after).toMatchObject({ applied: true, kept: null, schedule: { next: null, last: { outcome: 'applied' } } });
    const record = await world.do<Array<{ action: string; actor: string }>>(INES, 'get', `/exchanges/${id}/record`);
    expect(record.find(({ action }) => action === 'allocation-applied')?.actor).toBe('Salt Circle');
    await world.do(INES, 'post', `${path()}/undo`);
    await runs();
    expect((await look()).applied).toBe(false);
  });

  it('works around pairs that were made by hand beforehand', async () => {
    await begin();
    await plan({ schedule: 'at-due' });
    await handedInBy(EIGHT);
    const pair = idsIn(await look()).pair(ANN, BEN);
    await world.do(INES, 'post', `${path()}/acts`, { add: [pair] });
    world.clock.goTo(AT.afterDue);
    await runs();
    const after = await look();
    expect(after.schedule.last?.outcome).toBe('applied');
    expect(after.pairs).toHaveLength(16);
    expect(after.pairs.find((one) => keys([one])[0] === keys([pair])[0])?.locked).toBe(true);
  });

  it('does not make up for what was planned before it was planned', async () => {
    await begin();
    await handedInBy(EIGHT);
    world.clock.goTo(AT.afterDue);
    await plan({ schedule: 'at-due' });
    await runs();
    expect((await look()).applied).toBe(false);
  });

  it('applies nothing when not everybody can be placed: it keeps the preview and tells', async () => {
    await begin();
    const { wishes } = await look();
    const at = new Date(AT.afterDue).toISOString();
    await plan({ schedule: 'at', at, wishes: { ...wishes, avoid: null, maxPerDraft: 1 } });
    await handedInBy(EIGHT);
    world.clock.goTo(AT.afterDue + 1000);
    await runs();
    const after = await look();
    expect(after).toMatchObject({
      applied: false,
      schedule: { last: { outcome: 'kept' } },
      kept: { scheduled: true, quality: { placed: { asked: 16, reached: 8 } } },
    });
    expect(await todayOf(INES)).toContain('look-at-allocation');
    expect(await lettersTo(INES, 'have not been allocated')).toHaveLength(1);
    await runs();
    expect(await lettersTo(INES, 'have not been allocated')).toHaveLength(1);
    // It can still be applied as it is.
    const applied = await world.do<AllocationView>(INES, 'post', path(), { previewId: after.kept?.id });
    expect([applied.pairs.length, applied.kept]).toEqual([8, null]);
  });

  it('tells when there is too little to allocate, and leaves what somebody did by hand', async () => {
    await begin();
    await plan({ schedule: 'at-due' });
    await handedInBy([ANN]);
    world.clock.goTo(AT.afterDue);
    await runs();
    expect((await look()).schedule.last?.outcome).toBe('too-few-drafts');
    world.clock.goTo(AT.drafting);
    await begin();
    await plan({ schedule: 'at-due' });
    await handedInBy(EIGHT);
    const mine = await allocateAll(world, id);
    world.clock.goTo(AT.afterDue);
    await runs();
    const after = await look();
    expect(after.schedule.last?.outcome).toBe('nothing-to-do');
    expect(keys(after.pairs)).toEqual(keys(mine.pairs));
  });

  it('goes on night by night: who waits is paired, reviewing opens at once, and nobody is paired twice', async () => {
    await begin();
    await plan({ schedule: 'nightly' });
    await handedInBy([ANN, BEN]);
    world.clock.goTo(AT.drafting + DAY);
    await runs();
    expect((await look()).pairs).toEqual([]);
    await handedInBy([CHO]);
    world.clock.goTo(AT.drafting + 2 * DAY);
    await runs();
    const first = await look();
    expect(first.pairs).toHaveLength(6);
    // Drafts are still open, and reviewing is as well.
    expect(await todayOf(ANN)).toContain('write-review');
    expect(await lettersTo(ANN)).toHaveLength(1);
    const [card] = await world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${id}/reviews`);
    await fillIn(world, ANN, card?.id ?? '');
    await world.do(ANN, 'post', `/reviews/${card?.id}/submit`);
    await handedInBy([6]);
    world.clock.goTo(AT.drafting + 3 * DAY);
    await runs();
    expect((await look()).pairs).toHaveLength(6);
    world.clock.goTo(AT.drafting + 5 * DAY);
    await runs();
    // After two nights nobody waits for company any longer: earlier drafts are taken up again.
    const later = await look();
    expect(later.pairs).toHaveLength(8);
    expect(later.suggestion).toBeNull();
    const early = await plan({ schedule: 'command' });
    expect([early.status, early.body.code]).toEqual([409, 'plan-fixed']);
  });

  it('go on in one exchange when they cannot in another', async () => {
    await begin();
    await plan({ schedule: 'at-due' });
    await handedInBy(EIGHT);
    const broken = id;
    world.clock.goTo(AT.drafting);
    await begin();
    await plan({ schedule: 'at-due' });
    await handedInBy(EIGHT);
    const compute = jest.spyOn(world.app.get(PreviewsService), 'compute');
    const original = PreviewsService.prototype.compute.bind(world.app.get(PreviewsService));
    compute.mockImplementation((question, ...rest) =>
      question.exchange.id === broken ? Promise.reject(new Error('no thread')) : original(question, ...rest),
    );
    world.clock.goTo(AT.afterDue);
    await runs();
    expect((await look()).schedule.last?.outcome).toBe('applied');
    compute.mockRestore();
    await runs();
    id = broken;
    expect((await look()).schedule.last?.outcome).toBe('applied');
  });

  it('in a round that cannot serve everybody, give what there is, and say so once', async () => {
    await begin();
    await plan({ schedule: 'nightly', party: 2 });
    await handedInBy([ANN, BEN]);
    const night = async (number: number) => {
      world.clock.goTo(AT.drafting + number * DAY);
      await runs();
      return (await look()).schedule.last?.outcome;
    };
    // Two reviews are asked of each, and there is one draft of somebody else.
    expect(await night(1)).toBe('partly');
    expect((await look()).pairs).toHaveLength(2);
    const [letter] = await lettersTo(INES, 'have been allocated in part');
    expect(letter?.text).toContain('2 of 4 reviews could be placed. That was applied');
    await night(2);
    await night(3);
    expect(await lettersTo(INES, 'have been allocated in part')).toHaveLength(1);
    await handedInBy([CHO]);
    expect(await night(4)).toBe('applied');
    expect((await look()).pairs).toHaveLength(6);
  });

  it('refuses a plan on an old revision', async () => {
    await begin();
    await plan({ schedule: 'at-due' });
    const stale = await plan({ schedule: 'at-due', revision: 0 });
    expect([stale.status, stale.body.code]).toEqual([409, 'conflict']);
    const without = await plan({ schedule: 'at', at: null });
    expect([without.status, without.body.fields[0].sentence]).toEqual([422, 'Give a date and a time.']);
  });
});

describe('as a file', () => {
  it('goes out as CSV and comes in again, row by row', async () => {
    await begin();
    await handedInBy(EIGHT);
    const view = await allocateAll(world, id);
    const { pair } = idsIn(view);
    const [held] = view.pairs;
    await world.do(INES, 'post', `${path()}/acts`, {
      lock: [{ reviewerId: held?.reviewerId, draftId: held?.draftId }],
    });
    const file = await world.as(INES, 'get', `${path()}/file`);
    expect(file.headers['content-disposition']).toContain('Field report allocation.csv');
    const lines = file.text.replace('\uFEFF', '').trim().split('\r\n');
    expect(lines[0]).toBe('reviewer,draft,fixed');
    expect(lines).toHaveLength(17);
    expect(lines.filter((line) => line.endsWith(',yes'))).toHaveLength(1);
    const same = await world.do<AllocationImportView>(INES, 'post', `${path()}/file`, {
      text: file.text,
      apply: false,
    });
    expect(same).toMatchObject({ added: [], removed: [], same: 16, problems: [], applied: false });
    const other = `reviewer,draft,fixed\nann@example.org,c-2,yes\nBEN@example.org,ann@example.org,\n`;
    const looked = await world.do<AllocationImportView>(INES, 'post', `${path()}/file`, { text: other, apply: false });
    expect(looked.added.length + looked.same).toBe(2);
    expect((await look()).pairs).toHaveLength(16);
    await world.do(INES, 'post', `${path()}/file`, { text: other, apply: true });
    const after = await look();
    expect(keys(after.pairs)).toEqual(keys([pair(ANN, BEN), pair(BEN, ANN)]));
    expect(after.pairs.find((one) => one.reviewerId === pair(ANN, BEN).reviewerId)?.locked).toBe(true);
    expect(keys((await world.do<AllocationView>(INES, 'post', `${path()}/undo`)).pairs)).toEqual(keys(view.pairs));
  });

  it('says what is wrong in which row, and then applies nothing', async () => {
    await begin();
    await handedInBy([ANN, BEN]);
    const rows = [
      'Reviewer;Draft;Held',
      'ann@example.org;ben@example.org;',
      'nobody@example.org;ann@example.org;no',
      'ben@example.org;cho@example.org;',
      'ann@example.org;ann@example.org;',
      'ann@example.org;c-2;',
      'ben@example.org;;maybe',
    ];
    const { problems, applied } = await world.do<AllocationImportView>(INES, 'post', `${path()}/file`, {
      text: rows.join('\n'),
      apply: true,
    });
    expect(problems.map(({ sentence }) => sentence)).toEqual([
      expect.stringMatching(/^Row 3: “nobody@example.org” is nobody/),
      expect.stringMatching(/^Row 4: “cho@example.org” has handed in no draft/),
      expect.stringMatching(/^Row 5: .* would review their own draft/),
      expect.stringMatching(/^Row 6: This pair stands in row 2/),
      expect.stringMatching(/^Row 7: No draft is named/),
      expect.stringMatching(/^Row 7: “maybe” is neither yes nor no/),
    ]);
    expect(applied).toBe(false);
    expect((await look()).pairs).toEqual([]);
  });
});
