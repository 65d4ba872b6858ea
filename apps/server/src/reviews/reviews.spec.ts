import {
  allocateAll,
  ANN,
  AT,
  BEN,
  CHO,
  fillIn,
  handIn,
  INES,
  NOTE,
  NOTE_ID,
  publishedExchange,
  World,
} from '../testing/world.js';

interface Desk {
  readonly id: string;
  readonly position: number;
  readonly total: number;
  readonly nextId: string | null;
  readonly notes: Array<{ readonly id: string }>;
}

let world: World;
let id: string;
let mine: string[];

/** All three have handed in and review the two others. */
beforeEach(async () => {
  world = await World.open();
  id = await publishedExchange(world, { reviewsPerStudent: 2 });
  world.clock.goTo(AT.drafting);
  for (const person of [ANN, BEN, CHO]) await handIn(world, person, id, `The bed rose by ${person} centimetres.`);
  await allocateAll(world, id, { seed: 5 });
  world.clock.goTo(AT.reviewing);
  mine = (await world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${id}/reviews`)).map((review) => review.id);
});
afterEach(() => world.close());

const desk = (person: number, reviewId: string) => world.do<Desk>(person, 'get', `/reviews/${reviewId}`);

describe('the reviews of a student', () => {
  it('are counted, and lead from one to the next that is not submitted', async () => {
    const [first, second] = mine as [string, string];
    expect(await desk(ANN, first)).toMatchObject({ position: 1, total: 2, nextId: second });
    expect(await desk(ANN, second)).toMatchObject({ position: 2, total: 2, nextId: first });
    await fillIn(world, ANN, first);
    await world.do(ANN, 'post', `/reviews/${first}/submit`);
    expect((await desk(ANN, second)).nextId).toBeNull();
    expect((await desk(ANN, first)).nextId).toBe(second);
  });

  it('are of both others, each once, never the own', async () => {
    const texts = await Promise.all(
      mine.map(
        async (review) => (await world.do<{ draft: { html: string } }>(ANN, 'get', `/reviews/${review}`)).draft.html,
      ),
    );
    expect(texts.toSorted()).toEqual([
      `<p>The bed rose by ${BEN} centimetres.</p>`,
      `<p>The bed rose by ${CHO} centimetres.</p>`,
    ]);
  });

  it('lead staff on to the next by the same reviewer, submitted or not', async () => {
    const [first, second] = mine as [string, string];
    expect(await desk(INES, second)).toMatchObject({ position: 2, nextId: first });
  });

  it('list notes in the order of the text, not of their making', async () => {
    const [first] = mine as [string];
    const at = (start: number) => ({ ...NOTE.anchor, position: { ...NOTE.anchor.position, start, end: start + 3 } });
    const ids = [NOTE_ID, NOTE_ID.replace(/^./, '8'), NOTE_ID.replace(/^./, '9')];
    for (const [index, start] of [9, 1, 5].entries()) {
      await world.do(ANN, 'put', `/reviews/${first}/notes/${ids[index]}`, { ...NOTE, anchor: at(start) });
    }
    expect((await desk(ANN, first)).notes.map((note) => note.id)).toEqual([ids[1], ids[2], ids[0]]);
  });

  it('read the version that counts, also when it is handed in later than the first look', async () => {
    world.clock.goTo(AT.drafting);
    await handIn(world, BEN, id, 'A second thought.');
    world.clock.goTo(AT.reviewing);
    const seen = await Promise.all(
      mine.map((review) => world.do<{ draft: { version: number; html: string } }>(ANN, 'get', `/reviews/${review}`)),
    );
    const ofBen = seen.find(({ draft }) => draft.html.includes('second thought'));
    expect(ofBen?.draft.version).toBe(2);
    // The author can still read the first one; reviewers cannot.
    expect(await world.do(BEN, 'get', `/exchanges/${id}/draft/versions/1`)).toMatchObject({
      html: `<p>The bed rose by ${BEN} centimetres.</p>`,
    });
  });
});
