import type { AllocationView } from '@salt-circle/contracts';
import { boardChange } from '@salt-circle/contracts/plain';
import { store } from '../../app/store.js';
import { Wire } from '../../testing/wire.js';
import { allocationApi } from './allocationApi.js';
import { view } from './testing/board.js';

// There is no IndexedDB here, and nothing of it is needed.
jest.mock('../../app/saving/browserStore.js', () => ({ browserStore: () => ({}) }));

const board = (asOf: number): AllocationView => view({ asOf, revision: asOf });

describe('the board that is shown', () => {
  const wire = new Wire();
  const shown = () => allocationApi.endpoints.allocation.select('x')(store.getState()).data?.revision;
  const ask = () => store.dispatch(allocationApi.endpoints.allocation.initiate('x', { forceRefetch: true }));

  beforeEach(() => wire.install());

  it('is never replaced by an older one: not by an answer that an act has overtaken', async () => {
    const first = ask();
    await wire.answer(board(1));
    expect(shown()).toBe(1);
    // A question is on its way when somebody acts; the act is answered first.
    const second = ask();
    const acting = store.dispatch(allocationApi.endpoints.actByHand.initiate({ id: 'x', remove: [] }));
    await wire.answer(board(3), 1);
    await acting;
    expect(shown()).toBe(3);
    await wire.answer(board(2));
    await second;
    expect(shown()).toBe(3);
    first.unsubscribe();
    second.unsubscribe();
  });

  it('is told by what differs from the one on the screen, where the server remembers that one', async () => {
    const first = ask();
    await wire.answer(board(11));
    const acting = store.dispatch(allocationApi.endpoints.actByHand.initiate({ id: 'x', remove: [] }));
    expect(wire.asked.at(-1)?.url).toBe('/api/exchanges/x/allocation/acts?since=11');
    await wire.answer(boardChange(board(11), board(13)));
    await acting;
    expect(allocationApi.endpoints.allocation.select('x')(store.getState()).data).toEqual(board(13));
    first.unsubscribe();
  });
});
