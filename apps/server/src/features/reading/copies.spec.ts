import type { MyDraftView } from '@salt-circle/contracts';
import { attached, exchangeOfFiles, sample } from '../../testing/uploads.js';
import { ANN, BEN, INES } from '../../testing/people.js';
import { World } from '../../testing/world.js';
import { Copies } from './copies.service.js';
import { StoredFile } from '../../model/stored-file.js';
import { FileWorkers } from '../../platform/files/file-workers.js';
import { WorkStopped } from '../../platform/jobs/threads.js';

let world: World;
let id: string;
beforeEach(async () => {
  world = await World.open();
  id = await exchangeOfFiles(world);
});
afterEach(async () => {
  jest.restoreAllMocks();
  await world.close();
});

const sending = () => ({ exchangeId: id, deliverableId: 'files', name: 'report.odt', bytes: sample('report.odt') });
const copyOf = async () => (await world.do<MyDraftView>(ANN, 'get', `/exchanges/${id}/draft`)).parts[0]?.copy;

describe('reading copies', () => {
  it('that take too long are given up, say so, and can be tried again by the author', async () => {
    const convert = jest.spyOn(FileWorkers.prototype, 'convert').mockRejectedValueOnce(new WorkStopped('too long'));
    const { id: partId } = await attached(world, ANN, sending());
    expect(await copyOf()).toMatchObject({ state: 'failed', problem: expect.stringContaining('took too long') });
    // The hand-in is whole all the same, and says what reviewers will miss.
    const check = await world.do<{ remarks: string[] }>(ANN, 'get', `/exchanges/${id}/draft/check`);
    expect(check.remarks).toEqual([expect.stringContaining('Reviewers will not be able to read “report.odt”')]);
    const { id: draftId } = await world.do<MyDraftView>(ANN, 'get', `/exchanges/${id}/draft`);
    const again = `/exchanges/${id}/drafts/${draftId}/parts/${partId}/copy-again`;
    expect((await world.as(BEN, 'post', again)).status).toBe(403);
    convert.mockRestore();
    await world.do(ANN, 'post', again);
    await world.app.get(Copies).idle();
    expect(await copyOf()).toEqual({ state: 'ready', progress: 0, problem: null });
    expect((await world.as(INES, 'post', again)).status).toBe(204);
  });

  it('tell how far they are while they are made', async () => {
    let told = (_: number) => {};
    let finish = () => {};
    jest.spyOn(FileWorkers.prototype, 'convert').mockImplementationOnce((_, tell) => {
      told = tell;
      return new Promise((done) => {
        finish = () => done({ done: { facts: { words: 7 }, copyHtml: '<p>x</p>', metadata: [] } });
      });
    });
    const working = attached(world, ANN, sending());
    while ((await copyOf()) === undefined) await new Promise((done) => setTimeout(done, 10));
    told(0.4);
    expect(await copyOf()).toEqual({ state: 'waiting', progress: 0.4, problem: null });
    finish();
    await working;
    expect(await copyOf()).toMatchObject({ state: 'ready' });
  });

  it('that stopped the server twice are not tried a third time', async () => {
    const part = await attached(world, ANN, sending());
    await world.database.write((manager) =>
      manager.update(StoredFile, { digest: part.digest as string }, { copyState: 'waiting', copyTries: 2 }),
    );
    const convert = jest.spyOn(FileWorkers.prototype, 'convert');
    const copies = world.app.get(Copies);
    await copies.onApplicationBootstrap();
    await copies.idle();
    expect(convert).not.toHaveBeenCalled();
    expect(await copyOf()).toMatchObject({
      state: 'failed',
      problem: expect.stringContaining('stopped several times'),
    });
  });

  it('are made once for the same content, whoever hands it in', async () => {
    const convert = jest.spyOn(FileWorkers.prototype, 'convert');
    await attached(world, ANN, sending());
    await attached(world, BEN, { ...sending(), name: 'another name.odt' });
    expect(convert).toHaveBeenCalledTimes(1);
    expect(await world.database.read.count(StoredFile)).toBe(1);
  });
});
