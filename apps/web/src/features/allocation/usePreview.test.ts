import type { JobView, PreviewView } from '@salt-circle/contracts';
import { act, renderHook } from '@testing-library/react';
import { createElement, type ReactNode } from 'react';
import { Provider } from 'react-redux';
import { store } from '../../app/store.js';
import { Wire } from '../../testing/wire.js';
import { usePreview } from './usePreview.js';

// There is no IndexedDB here, and nothing of it is needed.
jest.mock('../../app/saving/browserStore.js', () => ({ browserStore: () => ({}) }));

const wire = new Wire();
const open = () => {
  const wrapper = ({ children }: { readonly children: ReactNode }) => createElement(Provider, { store, children });
  return renderHook(() => usePreview('x'), { wrapper }).result;
};
const job = (state: JobView['state'], preview: string | null): Partial<JobView> => ({
  id: 'j',
  state,
  preview: preview === null ? null : ({ id: preview } as PreviewView),
  problem: null,
});
const told = (answer: object) => act(() => wire.answer(answer));

beforeEach(() => wire.install());

describe('a preview that is dropped', () => {
  const begun = async () => {
    const previewing = open();
    const ask = () => act(() => previewing.current.start({ kind: 'new', seed: null, wishes: null }));
    ask();
    await told(job('done', 'first'));
    expect(previewing.current.preview?.id).toBe('first');
    ask();
    return previewing;
  };

  it('stays away when the answer to another one, asked for before, comes in', async () => {
    const previewing = await begun();
    act(() => previewing.current.show(null));
    await told(job('done', 'second'));
    expect(previewing.current.preview).toBeNull();
  });

  it('calls off the one that is still being worked out', async () => {
    const previewing = await begun();
    await told(job('running', null));
    expect(previewing.current.running).not.toBeNull();
    act(() => previewing.current.show(null));
    expect(previewing.current.running).toBeNull();
    expect(wire.asked.at(-1)?.method).toBe('DELETE');
  });
});
