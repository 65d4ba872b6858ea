import { allocate, seededRandom, type AllocationProblem } from '@salt-circle/core';
import { Solver } from './solver.js';

const people = (count: number): AllocationProblem => {
  const random = seededRandom(count);
  const ids = Array.from({ length: count }, (_, index) => `p${index}`);
  return {
    reviewers: ids.map((id) => ({ id, capacity: 3, strength: random() })),
    drafts: ids.map((id) => ({ id: `d-${id}`, authorIds: [id] })),
    scope: 'anyone',
    fixed: [],
    forbidden: [],
    earlier: [],
    seed: 1,
  };
};

describe('the thread that works out allocations', () => {
  let solver: Solver;
  beforeEach(() => {
    solver = new Solver();
  });
  afterEach(() => solver.onApplicationShutdown());

  it('gives what the core gives, and tells how far it is', async () => {
    const told: string[] = [];
    const problem = people(24);
    const solved = await solver.solve({ kind: 'new', problem }, ({ step }) => told.push(step));
    expect(solved.allocation).toEqual(allocate(problem));
    expect(new Set(told)).toEqual(new Set(['deal', 'place', 'balance', 'repeats', 'mutual', 'mix']));
  });

  it('is ended in the middle, and the next one is worked out all the same', async () => {
    const end = new AbortController();
    // As soon as it says that it is at work, which is long before it is done.
    const work = solver.solve({ kind: 'new', problem: people(20_000) }, () => end.abort(), end.signal);
    await expect(work).rejects.toMatchObject({ name: 'AbortError' });
    const { allocation } = await solver.solve({ kind: 'new', problem: people(4) }, () => {});
    expect(allocation?.quality.placed.reached).toBe(12);
  });
});
