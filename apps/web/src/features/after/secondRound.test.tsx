import type { Problem, RoundCard } from '@salt-circle/contracts';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { changesIn, forget, server, show } from '../../testing/pages.js';
import { SecondRound } from './SecondRound.js';

const EXCHANGE = { id: 'x', title: 'Field report', course: { timeZone: 'Asia/Tokyo', role: 'instructor' } };
const PATH = '/exchanges/x/rounds';

beforeEach(forget);

const open = async (refuses: Record<string, Problem> = {}) => {
  // What is asked first is the list, and then what was made.
  const asked = server({ [PATH]: { id: 'y', title: 'Field report, second round' } }, refuses);
  const made = globalThis.fetch;
  globalThis.fetch = (input, init) =>
    (init?.method ?? 'GET') === 'GET' ? Promise.resolve(new Response('[]', { status: 200 })) : made(input, init);
  const { router } = await show(<SecondRound revised={3} instructor />, { exchange: EXCHANGE });
  fireEvent.click(await screen.findByRole('button', { name: 'Second round…' }));
  await screen.findByRole('dialog');
  return { asked, router };
};

describe('a second round', () => {
  it('is made in a press from what is usual: a week, to the end of a day of the course', async () => {
    const { asked, router } = await open();
    expect(screen.getByRole('dialog').textContent).toContain('All 3 revisions are taken over');
    fireEvent.click(screen.getByRole('button', { name: 'Open the second round' }));
    await waitFor(() => expect(router.state.location.pathname).toBe('/exchanges/y/reviews'));
    expect(changesIn(asked)).toEqual([
      {
        ...{ path: PATH, method: 'POST' },
        body: {
          ...{ title: 'Field report, second round', reviewers: 'same', earlierShown: false, release: null },
          // 23:59 in Tokyo.
          reviewsDue: '2026-04-04T14:59:00.000Z',
        },
      },
    ]);
  });

  it('goes on to the board of allocation where others review', async () => {
    const { asked, router } = await open();
    fireEvent.change(screen.getByLabelText('Reviewed by'), { target: { value: 'others' } });
    fireEvent.click(screen.getByLabelText(/^Reviewers read all the earlier feedback/));
    fireEvent.click(screen.getByRole('button', { name: 'Open it, and allocate' }));
    await waitFor(() => expect(router.state.location.pathname).toBe('/exchanges/y/allocation'));
    expect(changesIn(asked)[0]?.body).toMatchObject({ reviewers: 'others', earlierShown: true });
  });

  it('says beside its field what is wrong, and stays as it was filled in', async () => {
    const fields = [{ path: 'dates.reviewsDue', code: 'past', sentence: 'This is over by now.' }];
    const problem = { code: 'invalid', sentence: 'Mend this.', whatToDo: '', fields } as unknown as Problem;
    const { router } = await open({ [PATH]: problem });
    fireEvent.change(screen.getByLabelText('Title'), { target: { value: 'Once more' } });
    fireEvent.click(screen.getByRole('button', { name: 'Open the second round' }));
    await screen.findAllByText('This is over by now.');
    expect(screen.getByLabelText<HTMLInputElement>('Title').value).toBe('Once more');
    expect(router.state.location.pathname).toBe('/exchanges/x/page');
  });

  it('is listed for all, and made by instructors from revisions alone', async () => {
    const rounds: RoundCard[] = [{ id: 'y', title: 'Second look' } as RoundCard];
    server({ [PATH]: rounds });
    const { unmount } = await show(<SecondRound revised={3} instructor={false} />, { exchange: EXCHANGE });
    expect((await screen.findByRole('link', { name: 'Second look' })).getAttribute('href')).toBe(
      '/exchanges/y/reviews',
    );
    expect(screen.queryByRole('button')).toBeNull();
    unmount();
    await show(<SecondRound revised={0} instructor />, { exchange: EXCHANGE });
    await screen.findByRole('link', { name: 'Second look' });
    expect(screen.queryByRole('button')).toBeNull();
  });
});
