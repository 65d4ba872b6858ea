import type { ProgressView, StoryView } from '@salt-circle/contracts';
import { reviewedExchange, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, INES, PEOPLE, TOM } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

describe('the story of somebody in an exchange', () => {
  it('tells in order of time what was done and what happened, each line with the way to its evidence', async () => {
    const { id, byAnn } = await reviewedExchange(world);
    await submitFilled(world, ANN, byAnn);
    world.clock.goTo(AT.checking);
    await world.do(INES, 'post', `/reviews/${byAnn}/reopen`, { reason: 'Which table?' });
    world.clock.goTo(AT.closed);
    await world.do(ANN, 'post', `/exchanges/${id}/feedback/read`);
    const { rows } = await world.do<ProgressView>(INES, 'get', `/exchanges/${id}/progress`);
    const idOf = (who: number) => rows.find(({ person }) => person.name === PEOPLE[who]?.name)?.id ?? '';
    const story = (of: number, by: number) =>
      world.do<StoryView>(by, 'get', `/exchanges/${id}/participants/${idOf(of)}/story`);
    const { person, events } = await story(ANN, TOM);
    expect(person.name).toBe(PEOPLE[ANN]?.name);
    const done = events.filter(({ kind }) => kind !== 'mailed');
    expect(done.map(({ kind, about, to }) => [kind, about?.name, to?.split('/')[1]])).toEqual([
      ['handed-in', undefined, 'exchanges'],
      ['begun', PEOPLE[BEN]?.name, 'reviews'],
      ['submitted', PEOPLE[BEN]?.name, 'reviews'],
      ['reopened', PEOPLE[BEN]?.name, 'reviews'],
      ['read', undefined, undefined],
    ]);
    const times = events.map(({ at }) => Date.parse(at));
    expect(times).toEqual([...times].sort((a, b) => a - b));
    expect(events.find(({ words }) => words?.includes('has been reopened') === true)?.to).toContain('/outbox');
    // Of the other side it tells what came in.
    expect((await story(BEN, INES)).events.map(({ kind }) => kind)).toContain('received');
  });

  it('is of this exchange alone, and for staff', async () => {
    const { id } = await reviewedExchange(world);
    expect((await world.as(INES, 'get', `/exchanges/${id}/participants/none/story`)).status).toBe(404);
    expect((await world.as(ANN, 'get', `/exchanges/${id}/participants/none/story`)).status).toBe(403);
  });
});
