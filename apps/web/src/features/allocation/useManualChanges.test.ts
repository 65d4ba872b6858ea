import type { Problem } from '@salt-circle/contracts';
import { act, renderHook } from '@testing-library/react';
import { createElement, type ReactNode } from 'react';
import { Provider } from 'react-redux';
import { store } from '../../app/store.js';
import { Wire } from '../../testing/wire.js';

// There is no IndexedDB here, and nothing of it is needed.
jest.mock('../../app/saving/browserStore.js', () => ({ browserStore: () => ({}) }));

import { Model } from './model.js';
import { ids, view } from './testing/board.js';
import { useManualChanges } from './useManualChanges.js';

const pair = (reviewerId: string, author: string) => ({ reviewerId, draftId: `d-${author}` });
/** Everybody reviews the next one. */
const RING = ids.map((id, at) => pair(id, ids[(at + 1) % ids.length] as string));
const applied = RING.map((one, at) => ({
  ...one,
  reviewId: `r${at}`,
  state: 'not-begun' as const,
  locked: at === 0,
  self: false,
  answered: 0,
  required: 2,
  notes: 0,
}));
const keptApart = jest.fn();
const open = () => {
  const model = new Model(view({ pairs: applied, forbidden: [pair('ben', 'dee')] }), null);
  const wrapper = ({ children }: { readonly children: ReactNode }) => createElement(Provider, { store, children });
  return renderHook(() => useManualChanges('x', model, keptApart), { wrapper }).result;
};
const wire = new Wire();
const sent = () => wire.asked.map(({ body }) => body);
/** Does it, and has the server answer. */
const done = (work: () => void, refused?: Problem) =>
  act(async () => {
    const before = wire.asked.length;
    work();
    await Promise.resolve();
    if (wire.asked.length === before) return;
    await (refused === undefined ? wire.answer(view()) : wire.refuse(refused));
  });
const refusal = (code: Problem['code']): Problem => ({ code, sentence: 'No.', whatToDo: '', fields: [] });

beforeEach(() => {
  wire.install();
  keptApart.mockReset();
});

describe('acts by hand', () => {
  it('say what they do, and what becomes of the balance', async () => {
    const manual = open();
    await done(() => manual.current.add(pair('ann', 'cho')));
    expect(sent()).toEqual([{ add: [pair('ann', 'cho')] }]);
    expect(manual.current.said).toBe(
      'Added: Ann and the draft by Cho. Now reviews per draft 1 to 2 (before: 1 for each).',
    );
    await done(() => manual.current.move(pair('ann', 'ben'), pair('cho', 'ben')));
    expect(sent()[1]).toEqual({ remove: [pair('ann', 'ben')], add: [pair('cho', 'ben')] });
    expect(manual.current.said).toMatch(
      /^Moved: Cho and the draft by Ben, instead of Ann .* Now reviews per draft 1 for each/,
    );
  });

  it('do not send what cannot be, and say why', async () => {
    const manual = open();
    const refused = async (work: () => void, words: string) => {
      await done(() => work());
      expect(manual.current.said).toContain(words);
    };
    await refused(() => manual.current.add(pair('ann', 'ann')), 'own draft');
    await refused(() => manual.current.add(pair('ann', 'ben')), 'has it already');
    await refused(() => manual.current.move(pair('ann', 'ben'), pair('ben', 'dee')), 'never paired');
    // Ann would get Cho's draft, and Ben the own one.
    await refused(() => manual.current.swap(pair('ann', 'ben'), pair('ben', 'cho')), 'own draft');
    expect(sent()).toEqual([]);
  });

  it('swap two pairs in one act', async () => {
    const manual = open();
    await done(() => manual.current.swap(pair('ann', 'ben'), pair('cho', 'dee')));
    expect(sent()).toEqual([
      {
        remove: [pair('ann', 'ben'), pair('cho', 'dee')],
        add: [pair('ann', 'dee'), pair('cho', 'ben')],
      },
    ]);
  });

  it('hold what is not held and let go what is; keep apart and allow again, which shows in a preview', async () => {
    const manual = open();
    await done(() => manual.current.hold(pair('ann', 'ben')));
    await done(() => manual.current.hold(pair('ben', 'cho')));
    await done(() => manual.current.keepApart(pair('ben', 'dee')));
    await done(() => manual.current.keepApart(pair('ben', 'ann')));
    expect(sent()).toEqual([
      { unlock: [pair('ann', 'ben')] },
      { lock: [pair('ben', 'cho')] },
      { allow: [pair('ben', 'dee')] },
      { forbid: [pair('ben', 'ann')] },
    ]);
    expect(keptApart).toHaveBeenCalledTimes(2);
  });

  it('wait for a second yes before work is taken away', async () => {
    const manual = open();
    await done(() => manual.current.remove(pair('ann', 'ben')), refusal('needs-confirming'));
    expect([manual.current.said, manual.current.asked?.problem.sentence]).toEqual(['', 'No.']);
    await done(() => manual.current.confirm());
    expect(sent()[1]).toEqual({ remove: [pair('ann', 'ben')], confirmed: true });
    expect([manual.current.asked, manual.current.said.startsWith('Taken away; the work is kept.')]).toEqual([
      null,
      true,
    ]);
    await done(() => manual.current.remove(pair('ann', 'ben')), refusal('needs-confirming'));
    act(() => manual.current.forget());
    expect(manual.current.asked).toBeNull();
  });

  it('show why the server refused, until something else is done', async () => {
    const manual = open();
    await done(() => manual.current.remove(pair('ann', 'ben')), refusal('allocation-changed'));
    expect([manual.current.problem?.code, manual.current.said]).toEqual(['allocation-changed', '']);
    act(() => manual.current.quiet());
    expect(manual.current.problem).toBeNull();
  });

  it('that are pressed while the last one is on its way are done after it, on the board as it is then', async () => {
    const manual = open();
    await act(async () => {
      manual.current.remove(pair('ann', 'ben'));
      await Promise.resolve();
    });
    const [, said] = [manual.current.busy, manual.current.said];
    await act(async () => {
      manual.current.remove(pair('ben', 'cho'));
      await Promise.resolve();
    });
    expect([manual.current.busy, sent(), manual.current.said]).toEqual([
      true,
      [{ remove: [pair('ann', 'ben')] }],
      said,
    ]);
    await act(() => wire.answer(view()));
    expect(sent()).toEqual([{ remove: [pair('ann', 'ben')] }, { remove: [pair('ben', 'cho')] }]);
    await act(() => wire.answer(view()));
    expect(manual.current.busy).toBe(false);
  });

  it('that were to follow one that is refused are not done', async () => {
    const manual = open();
    await act(async () => {
      manual.current.remove(pair('ann', 'ben'));
      await Promise.resolve();
    });
    act(() => manual.current.remove(pair('ben', 'cho')));
    await act(() => wire.refuse(refusal('needs-confirming')));
    expect([sent().length, manual.current.busy, manual.current.asked?.problem.code]).toEqual([
      1,
      false,
      'needs-confirming',
    ]);
  });
});
