import { join } from 'node:path';
import { asking } from './asking.js';
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

  it('has a time that counts from its beginning: waiting for others is not charged to it', async () => {
    const first = look('forever', { time: 3 * SECOND }).catch((error: Error) => error);
    expect(await look('good', { time: 2 * SECOND })).toEqual({ done: 'looked at' });
    expect(await first).toBeInstanceOf(WorkStopped);
  });

  it('is taken in turn by person: one at a time of each and two waiting, and ends with who asked', async () => {
    const own = new Threads(MISBEHAVING, { memory: 64, atOnce: 2, inTurn: true });
    const of = (by: string, path: string, gone = new AbortController()) => ({
      gone,
      done: asking.run({ by, gone: gone.signal }, () => own.run('inspectFile', { path }, { time: 60 * SECOND })),
    });
    const hostile = Array.from({ length: 3 }, () => of('h', 'forever'));
    await expect(of('h', 'forever').done).rejects.toMatchObject({ status: 503, problem: { code: 'too-busy' } });
    // The second thread is free for others, however many of theirs wait.
    expect(await of('c', 'good').done).toEqual({ done: 'looked at' });
    for (const { gone, done } of hostile) {
      gone.abort();
      await expect(done).rejects.toMatchObject({ name: 'AbortError' });
    }
    expect(await of('h', 'good').done).toEqual({ done: 'looked at' });
    await own.end();
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
