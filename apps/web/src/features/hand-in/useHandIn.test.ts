import type { HandInCheck, NameFindView, PartView, Problem, VersionMeta } from '@salt-circle/contracts';
import { act, renderHook } from '@testing-library/react';
import { createElement, type ReactNode } from 'react';
import { Provider } from 'react-redux';
import { saveQueue, store } from '../../app/store.js';
import { Wire } from '../../testing/wire.js';
import { useHandIn } from './useHandIn.js';

// There is no IndexedDB here, and nothing of it is needed.
jest.mock('../../app/saving/browserStore.js', () => ({
  browserStore: () => ({
    store: { set: () => Promise.resolve(), remove: () => Promise.resolve(), all: () => Promise.resolve([]) },
  }),
}));

const PREFIX = 'ann:draft:x:';
const find = (key: string, removed = false) => ({ key, removed, partId: 'text', exact: key }) as NameFindView;
const check = (part: Partial<HandInCheck> = {}): HandInCheck => ({
  fingerprint: 'first',
  problems: [],
  purpose: 'draft',
  remarks: [],
  late: null,
  finds: [],
  hidden: [],
  reading: { draftId: 'd', title: 'T', context: '', words: 1, version: 1, parts: [] },
  ...part,
});
const waiting = { id: 'file', copy: { state: 'waiting' } } as PartView;
const CHANGED: Problem = { code: 'draft-changed', sentence: 'It changed.', whatToDo: 'Look again.', fields: [] };
const VERSION = { number: 1 } as VersionMeta;

const wire = new Wire();
const done = jest.fn<void, [VersionMeta]>();
const wrapper = ({ children }: { readonly children: ReactNode }) => createElement(Provider, { store, children });
const open = (prefix = PREFIX) => renderHook(() => useHandIn('x', prefix, done), { wrapper }).result;
const asked = () => wire.asked.map(({ method, url }) => `${method} ${url.replace('/api/exchanges/x/draft/', '')}`);
/** Lets what was begun go on until it waits for the server. */
const turns = () => act(() => new Promise((resolve) => setTimeout(resolve, 0)));
const answered = (body: object) => act(() => wire.answer(body));

async function checked(part: Partial<HandInCheck> = {}) {
  const hook = open();
  await turns();
  await answered(check(part));
  return hook;
}

beforeEach(() => {
  wire.install();
  done.mockReset();
});

describe('handing in', () => {
  it('looks at the draft as the server has it, and hands in what was looked at', async () => {
    const hook = await checked();
    expect(hook.current.looking).toMatchObject({ state: 'checked', check: { fingerprint: 'first' } });
    act(() => hook.current.handIn());
    await answered(VERSION);
    expect(asked()).toEqual(['GET check', 'POST hand-in']);
    expect(wire.asked[1]?.body).toEqual({ fingerprint: 'first', namesSeen: true });
    expect(done).toHaveBeenCalledWith(VERSION);
  });

  it('sends first what is typed and not sent, and does not look before that has arrived', async () => {
    act(() =>
      saveQueue.put({ key: `${PREFIX}text`, url: '/api/text', method: 'PUT', body: { html: 'typed' }, revision: 1 }),
    );
    const hook = open();
    await turns();
    expect(asked()).toEqual(['PUT /api/text']);
    await answered({ revision: 2, savedAt: '2026-03-05T00:00:00.000Z' });
    expect(asked()).toEqual(['PUT /api/text', 'GET check']);
    await answered(check());
    expect(hook.current.looking.state).toBe('checked');
  });

  it('says so when what is typed cannot be sent: nothing else would be checked than what is there', async () => {
    act(() =>
      saveQueue.put({ key: 'ben:draft:x:title', url: '/api/title', method: 'PUT', body: { title: '' }, revision: 1 }),
    );
    const hook = open('ben:draft:x:');
    await turns();
    await act(() => wire.refuse({ ...CHANGED, code: 'conflict' }));
    await turns();
    expect(hook.current.looking.state).toBe('unsent');
    expect(asked()).toEqual(['PUT /api/title']);
  });

  it('waits for each name to be taken out, or left on purpose', async () => {
    const hook = await checked({ finds: [find('Ann'), find('Mensah'), find('done', true)] });
    const open = () => hook.current.open.map(({ key }) => key);
    expect(open()).toEqual(['Ann', 'Mensah']);
    act(() => hook.current.keep(find('Ann')));
    expect(open()).toEqual(['Mensah']);
    act(() => hook.current.hide(find('Mensah')));
    expect(wire.asked.at(-1)?.body).toEqual({ fingerprint: 'first', key: 'Mensah' });
    await answered(check({ fingerprint: 'second', finds: [find('Ann'), find('Mensah', true)] }));
    expect(open()).toEqual([]);
    act(() => hook.current.handIn());
    expect(wire.asked.at(-1)?.body).toEqual({ fingerprint: 'second', namesSeen: true });
    await answered(VERSION);
  });

  it('looks again when it was refused, and shows why: what was looked at is not what is there', async () => {
    const hook = await checked();
    act(() => hook.current.handIn());
    await act(() => wire.refuse(CHANGED));
    expect(hook.current.problem).toEqual(CHANGED);
    await answered(check({ fingerprint: 'newer' }));
    expect(hook.current.looking).toMatchObject({ check: { fingerprint: 'newer' } });
    expect(done).not.toHaveBeenCalled();
  });

  it('looks again by itself as long as a copy is being made, which may hold names', async () => {
    const reading = { ...check().reading, parts: [waiting] };
    const hook = await checked({ reading });
    expect(asked()).toEqual(['GET check']);
    await act(() => new Promise((resolve) => setTimeout(resolve, 1_600)));
    expect(asked()).toEqual(['GET check', 'GET check']);
    await answered(check({ finds: [find('Ann')] }));
    expect(hook.current.open).toHaveLength(1);
    await act(() => new Promise((resolve) => setTimeout(resolve, 1_600)));
    expect(asked()).toHaveLength(2);
  });
});
