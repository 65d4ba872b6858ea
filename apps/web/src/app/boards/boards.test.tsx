import { fireEvent, render, screen } from '@testing-library/react';
import { Provider } from 'react-redux';
import { createMemoryRouter, Link, RouterProvider } from 'react-router';
import { store } from '../store.js';
import { PeopleBoard, usePersonColumns } from './PeopleBoard.js';
import { Walk } from './Walk.js';

// What the test document lacks of a browser.
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};

interface Row {
  readonly id: string;
  readonly person: { readonly name: string; readonly alias: string };
  readonly draft: string;
}
const row = (name: string, alias: string, draft: string): Row => ({ id: name, person: { name, alias }, draft });
/** Two of them have one draft together. */
const ROWS = [
  row('Ann Young', 'Tern', 'own'),
  row('Zoë Abel', 'Wrack', 'shared'),
  row('Cho Berg', 'Knot', 'shared'),
  row('Dee Chan', 'Fen', 'last'),
];

function Board() {
  const columns = usePersonColumns<Row>(({ person, draft }) => <Link to={`/drafts/${draft}`}>{person.name}</Link>);
  return (
    <PeopleBoard
      label="Drafts"
      rows={ROWS}
      columns={columns}
      stopsOf={({ draft }) => [{ to: `../drafts/${draft}`, words: draft }]}
    />
  );
}

function open() {
  const router = createMemoryRouter(
    [
      { path: '/board', element: <Board /> },
      { path: '/drafts/:id', element: <Walk /> },
    ],
    { initialEntries: ['/board'] },
  );
  render(
    <Provider store={store}>
      <RouterProvider router={router} />
    </Provider>,
  );
  return router;
}

const names = () => screen.getAllByRole('rowheader').map(({ textContent }) => textContent);
const press = (key: string) => fireEvent.keyDown(document.body, { key });

describe('a board of people', () => {
  beforeEach(() => localStorage.clear());

  it('goes by family name, or by names as written, and is found by name and alias', () => {
    open();
    expect(names()).toEqual(['Zoë Abel', 'Cho Berg', 'Dee Chan', 'Ann Young']);
    fireEvent.change(screen.getByLabelText('Order of names'), { target: { value: 'written' } });
    expect(names()).toEqual(['Ann Young', 'Cho Berg', 'Dee Chan', 'Zoë Abel']);
    fireEvent.change(screen.getByLabelText('Order of names'), { target: { value: 'family' } });
    fireEvent.change(screen.getByLabelText('Find a person'), { target: { value: 'kno' } });
    expect(names()).toEqual(['Cho Berg']);
    fireEvent.change(screen.getByLabelText('Find a person'), { target: { value: 'nobody' } });
    expect(screen.getByText('Nobody by that name.')).toBeTruthy();
  });

  it('is walked through in the order shown, a shared draft once, and never past its ends', async () => {
    const router = open();
    fireEvent.click(screen.getByRole('button', { name: 'Person' }));
    expect(names()[0]).toBe('Ann Young');
    fireEvent.click(screen.getByRole('link', { name: 'Dee Chan' }));
    // Young, Chan, Berg and Abel; the last two with one draft.
    await screen.findByText('2 of 3');
    press('n');
    await screen.findByText('3 of 3');
    expect(router.state.location.pathname).toBe('/drafts/shared');
    press('n');
    fireEvent.click(screen.getByRole('link', { name: 'Previous: last' }));
    await screen.findByText('2 of 3');
    fireEvent.keyDown(document.body, { key: 'p', ctrlKey: true });
    press('P');
    await screen.findByText('1 of 3');
    expect(router.state.location.pathname).toBe('/drafts/own');
    expect(screen.queryByRole('link', { name: /^Previous/ })).toBeNull();
  });
});
