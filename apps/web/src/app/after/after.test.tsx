import type { DecisionsView, DecisionView, Problem, ThreadsView } from '@salt-circle/contracts';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { Provider } from 'react-redux';
import { api } from '../api.js';
import { changesIn, forget, server, show } from '../../testing/pages.js';
import { store } from '../store.js';
import { Adopt } from './Adopt.js';
import { Decide } from './Decide.js';
import { Rating } from './Rating.js';
import { Thread } from './Thread.js';

// There is no IndexedDB here, and nothing of it is needed.
jest.mock('../saving/browserStore.js', () => ({ browserStore: () => ({}) }));

const NONE: ThreadsView = {
  ...{ replies: [], may: true, over: false, until: null, rating: null, mayRate: true, ratingRead: 'staff' },
};
const OVER = { code: 'over', sentence: 'The due time has passed.', whatToDo: 'Ask.', fields: [] } as unknown as Problem;

beforeEach(forget);

describe('a thread', () => {
  const path = '/reviews/r/replies';

  it('shows who answered as what, of one note alone, and tells no time of the other side', async () => {
    const reply = (id: string, part: object) => ({ id, noteId: 'n', itemId: null, words: id, at: null, ...part });
    server({
      [path]: {
        ...NONE,
        may: false,
        replies: [
          reply('Which year?', { as: 'author', by: { alias: 'Heron' } }),
          reply('Well seen.', { as: 'staff', by: { name: 'Tomasz Wilk' } }),
          reply('Elsewhere.', { as: 'author', by: { alias: 'Heron' }, noteId: 'other' }),
        ],
      },
    });
    await show(<Thread reviewId="r" noteId="n" timeZone="UTC" />);
    await screen.findByText('Which year?');
    // Instructors and assistants alike.
    expect(screen.getByText(/of the teaching staff/)).not.toBeNull();
    expect(screen.queryByText('Elsewhere.')).toBeNull();
    expect(document.querySelector('time')).toBeNull();
    expect(screen.queryByRole('button', { name: 'Answer…' })).toBeNull();
  });

  it('keeps what could not be sent in time, also over a reload, and sends it with one id', async () => {
    const asked = server({ [path]: NONE }, { [path]: OVER });
    const { unmount } = await show(<Thread reviewId="r" noteId="n" timeZone="UTC" />);
    fireEvent.click(await screen.findByRole('button', { name: 'Answer…' }));
    fireEvent.change(screen.getByLabelText('Your answer'), { target: { value: 'In 1962.' } });
    for (const times of [1, 2]) {
      fireEvent.click(screen.getByRole('button', { name: 'Send the answer' }));
      await waitFor(() => expect(changesIn(asked)).toHaveLength(times));
      await screen.findByText('The due time has passed.');
    }
    const [first, second] = changesIn(asked).map(({ body }) => (body as { id: string }).id);
    expect(first).toBe(second);
    unmount();
    store.dispatch(api.util.resetApiState());
    server({ [path]: { ...NONE, may: false, over: true } });
    await show(<Thread reviewId="r" noteId="n" timeZone="UTC" />);
    expect((await screen.findByLabelText<HTMLTextAreaElement>('Your answer')).value).toBe('In 1962.');
    expect(screen.getByText(/The time for answers is over/)).not.toBeNull();
    expect(screen.queryByRole('button', { name: 'Send the answer' })).toBeNull();
  });
});

describe('a decision', () => {
  const decided = (part: Partial<DecisionView> = {}): DecisionView => ({
    ...{ key: 'note.n', decision: null, why: '', done: false, revision: 3 },
    ...part,
  });

  it('is made by a press or by its number, and taken back by the same', async () => {
    const asked = server({});
    await show(<Decide exchangeId="x" of="note.n" decision={decided({ decision: 'there' })} />);
    const press = screen.getByRole('button', { name: 'will not' });
    fireEvent.keyDown(press, { key: '1' });
    await waitFor(() => expect(changesIn(asked)).toHaveLength(1));
    expect(changesIn(asked)[0]).toEqual({
      ...{ path: '/exchanges/x/decisions/note.n', method: 'PUT' },
      body: { decision: 'will-change', why: '', done: false, revision: 3 },
    });
    await waitFor(() => {
      fireEvent.click(screen.getByRole('button', { name: 'already there' }));
      expect(changesIn(asked).at(-1)?.body).toMatchObject({ decision: null });
    });
    const before = changesIn(asked).length;
    fireEvent.keyDown(press, { key: '1', ctrlKey: true });
    fireEvent.keyDown(press, { key: '9' });
    expect(changesIn(asked)).toHaveLength(before);
  });

  it('asks why not, and where nothing is to be changed offers no tick', async () => {
    server({});
    const { rerender } = await show(
      <Decide exchangeId="x" of="note.n" decision={decided({ decision: 'will-not' })} ticks />,
    );
    expect(screen.getByLabelText('Why')).not.toBeNull();
    expect(screen.queryByLabelText('done')).toBeNull();
    rerender(
      <Provider store={store}>
        <Decide exchangeId="x" of="note.n" decision={decided({ decision: 'will-change', done: true })} ticks />
      </Provider>,
    );
    expect(screen.getByLabelText<HTMLInputElement>('done').checked).toBe(true);
  });
});

describe('adopting', () => {
  const decisions: DecisionsView = { decisions: [], adoptions: [], mayAdopt: true };

  it('says why an edit was not put in, and that another one is of the same words', async () => {
    server({ '/exchanges/x/adoptions': { ...decisions, skipped: [{ noteId: 'n', why: 'gone' }] } });
    await show(<Adopt exchangeId="x" noteId="n" decisions={decisions} rivals={1} />);
    expect(screen.getByText(/Another edit of the same words/)).not.toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'Adopt the edit' }));
    expect((await screen.findByRole('alert')).textContent).toContain('not in your text any more');
  });

  it('offers to take out only what can be taken out', async () => {
    server({});
    const adoptions = [{ id: 'a', noteId: 'n', undoable: false }];
    await show(<Adopt exchangeId="x" noteId="n" decisions={{ ...decisions, adoptions }} rivals={0} />);
    expect(screen.getByText('adopted')).not.toBeNull();
    expect(screen.queryByRole('button')).toBeNull();
  });
});

describe('how a review helped', () => {
  const path = '/reviews/r/replies';

  it('is said with who reads it, and not sent before a step is chosen', async () => {
    const asked = server({ [path]: NONE });
    await show(<Rating reviewId="r" />);
    expect(await screen.findByText('How did this review help you?')).not.toBeNull();
    expect(screen.queryByRole('button', { name: 'Say so' })).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'It was of some use' }));
    expect(screen.getByText('Only your instructor and assistants read this.')).not.toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'Say so' }));
    await waitFor(() => expect(changesIn(asked)[0]?.body).toEqual({ helped: 'some-use', words: '' }));
  });

  it('is read by whoever may', async () => {
    server({ [path]: { ...NONE, mayRate: false, rating: { helped: 'carried-on', words: 'Thank you.' } } });
    await show(<Rating reviewId="r" />);
    expect(await screen.findByText(/Thank you/)).not.toBeNull();
  });

  it('is nowhere for everybody else', async () => {
    server({ [path]: { ...NONE, mayRate: false } });
    const { container } = await show(
      <>
        <Rating reviewId="r" />
        <Thread reviewId="r" timeZone="UTC" />
      </>,
    );
    // The answer is there: what hangs on it is shown.
    await screen.findByRole('button', { name: 'Answer the whole review…' });
    expect(container.textContent).not.toMatch(/help/);
  });
});
