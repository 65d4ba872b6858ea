import type { ProgressReview, ProgressRow } from '@salt-circle/contracts';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { changesIn, forget, server, show } from '../../testing/pages.js';
import { speakInBrackets, wordsOutside } from '../../testing/otherLanguage.js';
import { DraftsPage } from './DraftsPage.js';
import { ReviewsPage } from './ReviewsPage.js';

const EXCHANGE = {
  ...{ id: 'x', title: 'Field report', published: true, secondRound: false, figures: { students: 4, allocated: 3 } },
  ...{ course: { id: 'c', timeZone: 'UTC', role: 'instructor' }, dates: { draftsDue: null, reviewsDue: null } },
};
const DRAFT: ProgressRow['draft'] = {
  ...{ id: null, state: 'none', version: 0, handedInAt: null, words: 0, title: '', bytes: 0, late: null },
  ...{ savedAt: null, copyFailed: false, group: null },
};
const handedIn = (id: string): ProgressRow['draft'] => ({
  ...{ ...DRAFT, id, state: 'handed-in', version: 2, words: 900, title: 'On the basin' },
  handedInAt: '2026-03-10T10:00:00.000Z',
});
const review = (id: string, draftId: string, part: Partial<ProgressReview> = {}): ProgressReview => ({
  ...{ id, draftId, author: { name: draftId }, state: 'submitted', changing: false, answered: 2, required: 2 },
  ...{ words: 200, notes: 4 },
  ...part,
});

function row(name: string, part: Partial<ProgressRow> = {}): ProgressRow {
  return {
    ...{ id: name.slice(0, 3), person: { name }, draft: DRAFT, reviews: [], practised: null, received: 0, receives: 0 },
    ...{ dropped: false, excused: false, words: 0, notes: 0, minutes: null, workedAt: null, asks: 0 },
    ...{ section: null, groups: [] },
    ...part,
  };
}

const ROWS = [
  row('Ann Mensah', { draft: handedIn('ann'), reviews: [review('r1', 'ben')], received: 1, receives: 1 }),
  row('Ben Kiss', {
    ...{ draft: handedIn('ben'), received: 1, receives: 2 },
    reviews: [review('r2', 'ann', { state: 'in-progress', answered: 1 })],
  }),
  row('Cho Sato', { reviews: [review('r3', 'ben', { words: 12 })] }),
  row('Dee New', { excused: true }),
];
const open = async (page: React.ReactNode, exchange: object = {}, rows: readonly ProgressRow[] = ROWS) => {
  const preview = { people: ['Ben Kiss'], leftOut: [], ownTimes: [], subject: 'A reminder', text: 'Still open.' };
  const asked = server({
    '/exchanges/x/progress': { rows },
    '/exchanges/x/reminders/preview': preview,
    '/exchanges/x/reminders': preview,
  });
  await show(page, { exchange: { ...EXCHANGE, ...exchange } });
  await screen.findByRole('table');
  return asked;
};
const names = () => screen.getAllByRole('rowheader').map(({ textContent }) => textContent);
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));

beforeEach(forget);

describe('the board of drafts', () => {
  it('counts those of whom something is asked, and shows those who miss it alone', async () => {
    await open(<DraftsPage />);
    expect(screen.getByRole('heading', { name: 'Drafts 2 of 3 handed in' })).not.toBeNull();
    press('Not handed in 1');
    expect(names()).toEqual(['Cho Sato']);
    press('Not handed in 1');
    expect(names()).toHaveLength(4);
    expect(screen.getByText('exempt')).not.toBeNull();
  });

  it('asks for nothing where revisions are reviewed once more', async () => {
    await open(<DraftsPage />, { secondRound: true });
    expect(screen.getByRole('heading', { name: /2 of 3 revised, and are reviewed once more/ })).not.toBeNull();
    expect(screen.queryByRole('button', { name: /^(Not handed in|Remind)/ })).toBeNull();
    expect(screen.getAllByText('revision')).toHaveLength(2);
    expect(screen.getByText('no revision')).not.toBeNull();
    expect(screen.queryByText(/not begun/)).toBeNull();
  });

  it('leaves more time and excuses to instructors', async () => {
    await open(<DraftsPage />, { course: { ...EXCHANGE.course, role: 'assistant' } });
    fireEvent.keyDown(screen.getByRole('button', { name: 'More about Cho Sato' }), { key: 'Enter' });
    const menu = await screen.findByRole('menu');
    expect(
      within(menu)
        .getAllByRole('menuitem')
        .map(({ textContent }) => textContent),
    ).toEqual(['Hand in for the student…']);
  });
});

describe('the board of reviews', () => {
  it('finds what should be looked at first', async () => {
    await open(<ReviewsPage />);
    for (const [filter, who] of [
      ['Unfinished 1', 'Ben Kiss'],
      ['Too short 1', 'Cho Sato'],
      ['Not handed in 1', 'Cho Sato'],
    ] as const) {
      press(filter);
      expect([filter, names()]).toEqual([filter, [who]]);
      press(filter);
    }
    // Nobody waits for a look, so it is not offered; whoever has not begun is worth knowing also where there is nobody.
    expect(screen.queryByRole('button', { name: /^Asks you/ })).toBeNull();
    expect(screen.getByRole('button', { name: 'No review begun 0' })).not.toBeNull();
  });

  it('reminds of those shown whoever has something left, after the mail was seen', async () => {
    const asked = await open(<ReviewsPage />);
    press('Remind 1…');
    const dialog = await screen.findByRole('dialog');
    await within(dialog).findByText(/Still open\./);
    expect(changesIn(asked).at(-1)?.body).toMatchObject({ participantIds: ['Ben'], about: 'reviews' });
    expect(changesIn(asked).every(({ path }) => path.endsWith('/preview'))).toBe(true);
    fireEvent.click(within(dialog).getByRole('button', { name: /^Send/ }));
    await waitFor(() => expect(changesIn(asked).at(-1)?.path).toBe('/exchanges/x/reminders'));
  });

  it('shows the same by draft: who reviews it, and how many are in', async () => {
    await open(<ReviewsPage />);
    press('By draft');
    const lines = within(await screen.findByRole('table', { name: 'Reviews by draft' }))
      .getAllByRole('row')
      .slice(1)
      .map(({ textContent }) => textContent);
    // By surnames.
    expect(lines[0]).toMatch(/^Ben Kiss1 of 2.*Ann Mensah.*Cho Sato/);
    expect(lines[1]).toMatch(/^Ann Mensah1 of 1.*Ben Kiss/);
  });
});

describe('both boards in another language', () => {
  it.each([
    ['drafts', <DraftsPage key="drafts" />],
    ['reviews', <ReviewsPage key="reviews" />],
  ])('of %s have no words of their own but what people wrote', async (_, page) => {
    const back = speakInBrackets();
    await open(page);
    const written = new Set([...ROWS.map(({ person }) => person.name), 'Ann', 'Ben', 'ann', 'ben', 'On the basin']);
    expect(screen.getAllByText(/⟦/).length).toBeGreaterThan(10);
    expect(wordsOutside(document.body).filter((words) => !written.has(words))).toEqual([]);
    back();
  });
});
