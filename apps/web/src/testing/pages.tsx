import type { Problem, SessionView } from '@salt-circle/contracts';
import { render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { createMemoryRouter, Outlet, RouterProvider } from 'react-router';
import { api } from '../app/api.js';
import { store } from '../app/store.js';

// What the test document lacks of a browser.
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};

interface Asked {
  readonly path: string;
  readonly method: string;
  readonly body: unknown;
}

/** A server that answers by path, and keeps what it was asked. Changes of a path in `refuses` are refused with its problem. */
export function server(
  answers: Readonly<Record<string, unknown>>,
  refuses: Readonly<Record<string, Problem>> = {},
): Asked[] {
  const asked: Asked[] = [];
  globalThis.fetch = jest.fn((input: RequestInfo | URL, init: RequestInit = {}) => {
    if (typeof input !== 'string') throw new TypeError('our pages ask by address');
    const path = input.replace(/^.*\/api/, '');
    const method = init.method ?? 'GET';
    asked.push({ path, method, body: typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined });
    const problem = method === 'GET' ? undefined : refuses[path];
    const known = store.getState().api.queries['session(undefined)']?.data;
    const body = problem ?? (path === '/session' ? known : answers[path]);
    return Promise.resolve(new Response(JSON.stringify(body ?? null), { status: problem === undefined ? 200 : 403 }));
  });
  return asked;
}

/** What was asked to be changed. */
export const changesIn = (asked: readonly Asked[]) => asked.filter(({ method }) => method !== 'GET');

interface Around {
  /** Whose page it is, and with whose eyes; somebody who is signed in, unless said otherwise. */
  readonly session?: object;
  /** The exchange whose page it is. */
  readonly exchange?: object;
}

/** When it is, unless somebody says otherwise. */
const NOW = '2026-03-28T09:00:00.000Z';

const SESSION = { person: { id: 'ann', name: 'Ann' }, viewAs: null, demo: false, mail: false, now: NOW };

/** In a page of its own, below the pages that it has above itself. */
export async function show(what: ReactNode, { session = {}, exchange = {} }: Around = {}) {
  const known = { ...SESSION, ...session } as unknown as SessionView;
  await store.dispatch(api.util.upsertQueryData('session', undefined, known));
  const routes = [
    {
      path: '/exchanges/x',
      element: <Outlet context={exchange} />,
      children: [{ path: '*', element: what }],
    },
    // Where it leads to.
    { path: '*', element: null },
  ];
  const router = createMemoryRouter(routes, { initialEntries: ['/exchanges/x/page'] });
  const shown = render(
    <Provider store={store}>
      <RouterProvider router={router} />
    </Provider>,
  );
  return { ...shown, router };
}

/** Nothing of an earlier test is known any more. */
export function forget(): void {
  localStorage.clear();
  store.dispatch(api.util.resetApiState());
}
