import { join } from 'node:path';
import { compiled, Threads, WorkStopped } from './threads.js';

/** Looks at what is `good`, throws at `crash`, and never comes back from anything else; `convertFile` hoards memory. */
const MISBEHAVING = join(import.meta.dirname, '../../testing/stuck-worker.mjs');
const SECOND = 1_000;

describe('work in threads', () => {
  let threads: Threads;
  beforeEach(() => {
    threads = new Threads(MISBEHAVING, { memory: 64 });
  });
  afterEach(() => threads.end());

  const look = (path: string, part: Parameters<Threads['run']>[2] = { time: 20 * SECOND }) =>
    threads.run('inspectFile', { path }, part);

  it('is ended after its time, and what comes after it is done', async () => {
    await expect(look('forever', { time: SECOND })).rejects.toBeInstanceOf(WorkStopped);
    expect(await look('good')).toEqual({ done: 'looked at' });
  });

  it('is ended when it hoards memory, and the server goes on', async () => {
    const hoarding = threads.run('convertFile', {}, { time: 60 * SECOND });
    await expect(hoarding).rejects.toBeInstanceOf(WorkStopped);
    expect(await look('good')).toEqual({ done: 'looked at' });
  });

  it('tells a fault of ours from work that was stopped', async () => {
    await expect(look('crash')).rejects.toMatchObject({ name: 'TypeError', message: 'a fault in a reader' });
    expect(await look('good')).toEqual({ done: 'looked at' });
  });

  it('is called off at once, whether it is being done or waits for a thread', async () => {
    const [first, second] = [new AbortController(), new AbortController()];
    const done = look('forever', { time: 60 * SECOND, signal: first.signal });
    const waiting = look('forever', { time: 60 * SECOND, signal: second.signal });
    second.abort();
    await expect(waiting).rejects.toMatchObject({ name: 'AbortError' });
    first.abort();
    await expect(done).rejects.toMatchObject({ name: 'AbortError' });
    expect(await look('good')).toEqual({ done: 'looked at' });
  });

  it('has a time that counts from the asking: who waits too long is told so, and is not done later', async () => {
    const end = new AbortController();
    const first = look('forever', { time: 60 * SECOND, signal: end.signal });
    await expect(look('good', { time: SECOND })).rejects.toBeInstanceOf(WorkStopped);
    end.abort();
    await expect(first).rejects.toMatchObject({ name: 'AbortError' });
  });

  it('is done beside each other as far as that is allowed', async () => {
    const two = new Threads(MISBEHAVING, { memory: 64, atOnce: 2 });
    const end = new AbortController();
    const first = two.run('inspectFile', { path: 'forever' }, { time: 60 * SECOND, signal: end.signal });
    expect(await two.run('inspectFile', { path: 'good' }, { time: 20 * SECOND })).toEqual({ done: 'looked at' });
    end.abort();
    await expect(first).rejects.toMatchObject({ name: 'AbortError' });
    await two.end();
  });

  it('finds the files of workers where they are compiled to', () => {
    expect(compiled('features/allocation/worker/solve.js')).toMatch(/apps\/server\/dist\/features\/allocation/);
  });
});
