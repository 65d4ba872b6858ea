import { fillIn, leaveNote, NOTE_ID, reviewedExchange } from '../../testing/acts.js';
import { ANN, BEN, INES } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

interface Row {
  readonly person: { readonly name: string; readonly alias?: string };
  readonly draft: {
    readonly state: string;
    readonly version: number;
    readonly words: number;
    readonly handedInAt: string | null;
  };
  readonly reviews: ReadonlyArray<{
    readonly state: string;
    readonly answered: number;
    readonly required: number;
    readonly words: number;
  }>;
  readonly received: number;
  readonly receives: number;
  readonly notes: number;
}

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

async function board(id: string): Promise<Map<string, Row>> {
  const { rows } = await world.do<{ rows: Row[] }>(INES, 'get', `/exchanges/${id}/progress`);
  expect(rows.map(({ person }) => person.name)).toEqual(['Ann Mensah', 'Ben Kiss', 'Cho Sato']);
  return new Map(rows.map((row) => [row.person.name.split(' ')[0] as string, row]));
}

describe('the progress table', () => {
  it('has a row for every student, also for one who has done nothing', async () => {
    const { id } = await reviewedExchange(world);
    const rows = await board(id);
    expect(rows.get('Ann')).toMatchObject({
      draft: { state: 'handed-in', version: 1, words: 8, handedInAt: new Date(AT.drafting).toISOString() },
      reviews: [{ state: 'not-begun', answered: 0, required: 2, words: 0 }],
      received: 0,
      receives: 1,
    });
    expect(rows.get('Cho')).toMatchObject({
      draft: { state: 'none', version: 0, handedInAt: null },
      reviews: [],
      receives: 0,
    });
  });

  it('keeps its counts in step with what is written, changed and removed', async () => {
    const { id, byAnn } = await reviewedExchange(world);
    await world.do(ANN, 'put', `/reviews/${byAnn}/answers/first`, { revision: 0, text: 'Say how large it is.' });
    await leaveNote(world, ANN, byAnn);
    expect((await board(id)).get('Ann')).toMatchObject({
      reviews: [{ state: 'in-progress', answered: 1, required: 2, words: 9 }],
      notes: 1,
    });
    await world.do(ANN, 'delete', `/reviews/${byAnn}/notes/${NOTE_ID}`);
    await world.do(ANN, 'put', `/reviews/${byAnn}/answers/first`, { revision: 1, text: '' });
    expect((await board(id)).get('Ann')).toMatchObject({
      reviews: [{ state: 'in-progress', answered: 0, words: 0 }],
      notes: 0,
    });
    await fillIn2(byAnn);
    await world.do(ANN, 'post', `/reviews/${byAnn}/submit`);
    const rows = await board(id);
    expect(rows.get('Ann')).toMatchObject({ reviews: [{ state: 'submitted', answered: 2 }] });
    expect(rows.get('Ben')).toMatchObject({ received: 1, receives: 1 });
  });

  const fillIn2 = async (reviewId: string) => {
    await world.do(ANN, 'put', `/reviews/${reviewId}/answers/first`, {
      revision: 2,
      text: 'Say how large the site is.',
    });
    await world.do(ANN, 'put', `/reviews/${reviewId}/answers/evidence`, { revision: 0, levelId: 'low' });
  };

  it('shows names and aliases side by side where names are hidden, and names alone where they are open', async () => {
    const hidden = await board((await reviewedExchange(world)).id);
    expect(new Set([...hidden.values()].map(({ person }) => person.alias)).size).toBe(3);
    world.clock.goTo(AT.drafting);
    const open = await board((await reviewedExchange(world, { names: 'open' })).id);
    expect([...open.values()].map(({ person }) => person)).toEqual([
      { name: 'Ann Mensah' },
      { name: 'Ben Kiss' },
      { name: 'Cho Sato' },
    ]);
  });

  it('lets staff read a review that is under way, but not write in it', async () => {
    const { byBen } = await reviewedExchange(world);
    await fillIn(world, BEN, byBen);
    expect(await world.do(INES, 'get', `/reviews/${byBen}`)).toMatchObject({
      reviewer: { name: 'Ben Kiss' },
      author: { name: 'Ann Mensah' },
      answers: { evidence: { levelId: 'high' } },
      editable: false,
      submittable: false,
    });
  });
});

describe('names', () => {
  it('are what the plan says, in both directions', async () => {
    const label = async (names: 'both-ways' | 'open') => {
      world.clock.goTo(AT.drafting);
      const { byAnn } = await reviewedExchange(world, { names });
      return world.do<{ author: object; reviewer: object }>(ANN, 'get', `/reviews/${byAnn}`);
    };
    const hidden = await label('both-ways');
    expect(hidden.author).toEqual({ alias: expect.any(String) });
    expect(hidden.reviewer).toMatchObject({ you: true });
    expect((await label('open')).author).toEqual({ name: 'Ben Kiss' });
  });
});
