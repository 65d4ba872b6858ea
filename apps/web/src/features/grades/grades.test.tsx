import type {
  LtiScoreView,
  GradebookView,
  GradeGroundsView,
  GradeMoveView,
  GradeRow,
  GradesView,
  OwnGradeView,
  Problem,
} from '@salt-circle/contracts';
import {
  gradeOf,
  USUAL_GRADE_RULE,
  type GradeEvidence,
  type GradePart,
  type GradeRule,
  type Override,
} from '@salt-circle/core';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { changesIn, forget, server, show } from '../../testing/pages.js';
import { GradesPage } from './GradesPage.js';
import { OwnGradePage } from './OwnGradePage.js';

// There is no IndexedDB here, and nothing of it is needed.
jest.mock('../../app/saving/browserStore.js', () => ({ browserStore: () => ({}) }));

const EXCHANGE = {
  id: 'x',
  title: 'Field report',
  course: { timeZone: 'UTC', role: 'instructor' },
  feedbackOpen: false,
};
const PARTS: GradePart[] = [
  { part: 'reviews-done', weight: 25 },
  { part: 'peer-score', weight: 75 },
];
const GROUNDS: GradeGroundsView = {
  ...{ reviews: 2, scores: [0.5, 0.7], interval: null, late: { percent: 0, points: 0 } },
  company: null,
  quality: { closeness: null, staff: null, substance: null, helpfulness: null, mark: null },
};
const there = (got: number, of = 1) => ({ got, of, excused: false });
const given = (part: Partial<GradeEvidence> = {}, rule: GradeRule = USUAL_GRADE_RULE) =>
  gradeOf(PARTS, rule, {
    ...{
      parts: { 'reviews-done': there(1, 2), 'peer-score': there(0.6) },
      lateLoses: 0,
      overrides: {},
      override: null,
    },
    ...part,
  });

function row(id: string, name: string, part: Partial<GradeRow> = {}): GradeRow {
  return {
    ...{ id, person: { name }, section: null, draftId: `${id}-draft`, reviewIds: [], grade: given(), grounds: GROUNDS },
    ...{ mark: { answers: {}, by: null }, released: false, correction: null },
    work: { draft: { state: 'open', by: null, grader: null }, reviewing: { state: 'none', by: null, grader: null } },
    ...part,
  };
}

const instead = (value: number, reason: string, computed: number | null): Override => ({ value, reason, computed });
const ROWS = [
  row('ann', 'Ann Mensah'),
  row('ben', 'Ben Kiss', { grade: given({ override: instead(80, 'Ill in the last week.', 40) }), correction: '57%' }),
  row('cho', 'Cho Sato', {
    ...{ grade: given({ parts: { 'reviews-done': there(2, 2) } }), released: true },
    grounds: { ...GROUNDS, late: { percent: 10, points: 0 } },
  }),
];
const VIEW: GradesView = {
  ...{ parts: PARTS, rule: USUAL_GRADE_RULE, revision: 4, reviewingForm: [], draftForm: null, rows: ROWS },
  ...{ release: null, problem: null, mayRule: true, reviewingEach: false, graders: [], provisional: false },
};

const NO_GRADEBOOK: GradebookView = {
  ...{ platform: null, columns: 'off', canMake: false, faults: [], tidy: null, scores: [] },
  counts: { changed: 0, refused: 0, waiting: 0, sent: 0, unreleased: 0, apart: 0 },
};

const open = async (view: Partial<GradesView> = {}, answers: object = {}, refuses: Record<string, Problem> = {}) => {
  const pages = { '/exchanges/x/grades': { ...VIEW, ...view }, '/exchanges/x/gradebook': NO_GRADEBOOK };
  const asked = server({ ...pages, ...answers }, refuses);
  await show(<GradesPage />, { exchange: EXCHANGE });
  await screen.findByRole('heading', { name: /^Grades/ });
  return asked;
};
const names = () => screen.getAllByRole('rowheader').map(({ textContent }) => textContent);
const sheet = async (name: string) => {
  const line = screen.getByRole('rowheader', { name: new RegExp(name) }).parentElement as HTMLElement;
  // The grade itself, which opens into how it came about.
  fireEvent.click(within(line).getAllByRole('button').at(-1) as HTMLElement);
  return screen.findByRole('dialog');
};

beforeEach(forget);

describe('the board of grades', () => {
  it('says what each part came to, what is open or given instead, and what was told before', async () => {
    await open();
    const cells = (name: string) =>
      within(screen.getByRole('rowheader', { name: new RegExp(name) }).parentElement as HTMLElement)
        .getAllByRole('cell')
        .map(({ textContent }) => textContent);
    expect(cells('Ann')).toEqual(expect.arrayContaining(['50%', '60%', '58%']));
    expect(cells('Ben')).toEqual(expect.arrayContaining(['80% *was 57%']));
    expect(cells('Cho')).toEqual(expect.arrayContaining(['100%', 'pending']));
    expect(screen.getByRole('heading', { name: /Released to 1 of 3/ })).not.toBeNull();
  });

  it('shows those alone to whom something applies, and offers what applies to nobody not at all', async () => {
    await open();
    fireEvent.click(screen.getByRole('button', { name: 'Override out of date 1' }));
    expect(names().join()).toMatch(/^Ben Kiss/);
    expect(names()).toHaveLength(1);
    fireEvent.click(screen.getByRole('button', { name: 'Override out of date 1' }));
    fireEvent.click(screen.getByRole('button', { name: 'Late 1' }));
    expect(names().join()).toMatch(/^Cho Sato/);
    expect(screen.queryByRole('button', { name: /^Reviewing not marked/ })).toBeNull();
  });

  it('says how to begin where no grade is planned, and leaves rules and release to those who may', async () => {
    await open({ parts: [], mayRule: false });
    expect(screen.getByText('No grade is planned here.')).not.toBeNull();
    expect(screen.queryByRole('button', { name: 'Release…' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Weights and rules…' })).toBeNull();
  });
});

describe('the gradebook of a platform', () => {
  const score = (name: string, part: Partial<LtiScoreView>): LtiScoreView => ({
    ...{ participantId: name, name, part: '', state: 'sent', kind: 'graded', ours: 58, theirs: null },
    ...{ at: null, nextTryAt: null, error: null, ...part },
  });
  const GRADEBOOK: GradebookView = {
    ...{ ...NO_GRADEBOOK, platform: 'Northmere', columns: 'whole', canMake: true },
    counts: { ...NO_GRADEBOOK.counts, changed: 1, refused: 1, sent: 1 },
    scores: [
      score('Ben Kiss', { state: 'changed', ours: 80, theirs: 77 }),
      score('Cho Sato', { state: 'refused', kind: 'excused', ours: null, error: 'Northmere refused (422).' }),
      score('Ann Mensah', {}),
    ],
  };

  it('is not spoken of where there is none, and says how much of it wants to be looked at', async () => {
    await open();
    expect(screen.queryByRole('button', { name: /^Gradebook/ })).toBeNull();
  });

  it('shows both where they differ, why something was refused, and writes over only what is said', async () => {
    const asked = await open({}, { '/exchanges/x/gradebook': GRADEBOOK, '/exchanges/x/gradebook/decisions': {} });
    fireEvent.click(await screen.findByRole('button', { name: 'Gradebook: 2 to look at…' }));
    const dialog = await screen.findByRole('dialog');
    const line = (name: string) => within(dialog).getByRole('row', { name: new RegExp(name) }).textContent;
    expect(line('Ben Kiss')).toContain('80%77%changed there');
    expect(line('Cho Sato')).toContain('excused');
    expect(line('Cho Sato')).toContain('Northmere refused (422).');
    expect(line('Ann Mensah')).toContain('58%sent');
    expect(within(dialog).queryByRole('button', { name: /^Keep all gradebook values/ })).toBeNull();
    fireEvent.click(within(dialog).getByRole('button', { name: 'Overwrite the grade of Ben Kiss' }));
    await waitFor(() => expect(changesIn(asked)).toHaveLength(1));
    expect(changesIn(asked)[0]?.body).toEqual({ how: 'ours', participantIds: ['Ben Kiss'] });
  });
});

describe('the sheet of a grade', () => {
  it('shows the whole sum, and of what was given instead why, and that it rests on something else by now', async () => {
    await open();
    const dialog = await sheet('Ben Kiss');
    const text = dialog.textContent ?? '';
    expect(text).toContain('1 of 2 reviews submitted; in proportion');
    expect(text).toContain('60%, the mean from 2 reviews');
    expect(text).toContain('(25 × 50 + 75 × 60) ÷ 100 = 57.5 percent.');
    expect(text).toContain('Overridden to 80%. Reason: Ill in the last week. The computed grade has changed since.');
    expect(within(dialog).getByRole('link', { name: 'Score from peers' }).getAttribute('href')).toBe(
      '/exchanges/x/check/ben-draft',
    );
  });

  it('gives a part otherwise with a reason alone, as a share, and keeps what was typed when it is refused', async () => {
    const path = '/exchanges/x/grades/ann/override';
    const fields = [{ path: 'value', code: 'max', sentence: 'At most 100.' }];
    const refused = { code: 'invalid', sentence: 'Mend this.', whatToDo: '', fields } as unknown as Problem;
    const asked = await open({}, {}, { [path]: refused });
    const dialog = await sheet('Ann Mensah');
    fireEvent.click(within(dialog).getAllByRole('button', { name: 'Override…' })[0] as HTMLElement);
    const give = within(dialog).getByRole<HTMLButtonElement>('button', { name: 'Save override' });
    fireEvent.change(within(dialog).getByLabelText(/^Percent/), { target: { value: '62.5' } });
    expect(give.disabled).toBe(true);
    fireEvent.change(within(dialog).getByLabelText('Why'), { target: { value: 'One review was lost.' } });
    fireEvent.click(give);
    await within(dialog).findByText('At most 100.');
    expect(changesIn(asked)).toEqual([
      { path, method: 'PUT', body: { part: 'reviews-done', value: 0.625, reason: 'One review was lost.' } },
    ]);
    expect(within(dialog).getByLabelText<HTMLInputElement>('Why').value).toBe('One review was lost.');
    server({ '/exchanges/x/grades': VIEW, '/exchanges/x/gradebook': NO_GRADEBOOK });
    fireEvent.click(give);
    await waitFor(() => expect(within(dialog).queryByRole('button', { name: 'Save override' })).toBeNull());
  });

  it('takes back what was given instead', async () => {
    const asked = await open();
    const dialog = await sheet('Ben Kiss');
    fireEvent.click(within(dialog).getByRole('button', { name: 'Change the override' }));
    expect(within(dialog).getByLabelText<HTMLInputElement>(/^Percent/).value).toBe('80');
    fireEvent.click(within(dialog).getByRole('button', { name: 'Remove override' }));
    await waitFor(() => expect(changesIn(asked)).toHaveLength(1));
    expect(changesIn(asked)[0]?.body).toMatchObject({ part: '', value: null });
  });
});

describe('weights and rules', () => {
  const MOVES: GradeMoveView[] = [
    { id: 'ann', person: { name: 'Ann Mensah' }, before: '58%', after: '56%', by: -2 },
    { id: 'cho', person: { name: 'Cho Sato' }, before: '100%', after: '100%', by: 0 },
  ];
  const change = (label: string, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  const dialog = async () => {
    fireEvent.click(screen.getByRole('button', { name: 'Weights and rules…' }));
    await screen.findByRole('dialog');
  };

  it('are kept after it was shown who moves, and shown anew when something else is asked', async () => {
    const asked = await open({}, { '/exchanges/x/grades/preview': MOVES });
    await dialog();
    const keep = screen.getByRole<HTMLButtonElement>('button', { name: 'Save' });
    change('Weight of reviews done', '40');
    expect(keep.disabled).toBe(true);
    fireEvent.click(screen.getByRole('button', { name: 'Preview changes' }));
    await screen.findByText('1 grade will change.');
    expect(screen.getByText('Ann Mensah: 58% → 56% (−2)')).not.toBeNull();
    change('Cap (percent)', '110');
    expect(screen.queryByText('1 grade will change.')).toBeNull();
    expect(keep.disabled).toBe(true);
    fireEvent.click(screen.getByRole('button', { name: 'Preview changes' }));
    await screen.findByText('1 grade will change.');
    fireEvent.click(keep);
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    const last = changesIn(asked).at(-1);
    expect([last?.path, last?.method]).toEqual(['/exchanges/x/grades/rule', 'PUT']);
    expect(last?.body).toMatchObject({
      revision: 4,
      most: 110,
      gradeParts: [{ weight: 40 }, { weight: 75 }],
      parts: [],
    });
  });

  it('hold steps and bands of one’s own, which can be added, changed and removed', async () => {
    const asked = await open({}, { '/exchanges/x/grades/preview': [] });
    await dialog();
    fireEvent.change(screen.getByLabelText('How Reviews done counts'), { target: { value: 'steps' } });
    change('From how many percent step 1 of Reviews done holds', '33.3');
    change('How many percent step 1 of Reviews done gives', '40');
    fireEvent.click(screen.getByRole('button', { name: 'Add a step' }));
    fireEvent.click(screen.getByRole('button', { name: 'Remove step 2' }));
    fireEvent.change(screen.getByLabelText('Display as'), { target: { value: 'bands' } });
    change('Name of band 2', 'on its way');
    fireEvent.click(screen.getByRole('button', { name: 'Remove band 3' }));
    fireEvent.click(screen.getByRole('button', { name: 'Preview changes' }));
    await screen.findByText('No grade will change.');
    const { parts, scale } = changesIn(asked)[0]?.body as { parts: Array<{ steps: unknown }>; scale: unknown };
    const steps = [
      { from: expect.closeTo(0.333, 9), gives: expect.closeTo(0.4, 9) },
      { from: 1, gives: 1 },
    ];
    expect(parts).toEqual([{ part: 'reviews-done', how: 'steps', minimum: 0, bonus: false, steps }]);
    const bands = [
      { name: 'not yet', from: 0 },
      { name: 'on its way', from: 50 },
    ];
    expect(scale).toEqual({ kind: 'bands', bands });
  });

  it('take no empty field for a nought, and show what is wrong without losing what was typed', async () => {
    const fields = [{ path: 'most', code: 'grade-most', sentence: 'A grade comes to 100 to 200 percent at most.' }];
    const refused = { code: 'invalid', sentence: 'Mend this.', whatToDo: '', fields } as unknown as Problem;
    const asked = await open({}, {}, { '/exchanges/x/grades/preview': refused });
    await dialog();
    change('Cap (percent)', '');
    fireEvent.click(screen.getByRole('button', { name: 'Preview changes' }));
    await screen.findByText('A grade comes to 100 to 200 percent at most.');
    // Nothing, which the server refuses, and not 0 of which nobody spoke.
    expect(changesIn(asked)[0]?.body).toMatchObject({ most: null });
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save' }).disabled).toBe(true);
  });
});

describe('the release of grades', () => {
  it('says how many get one, how many have none, and goes to those who are shown', async () => {
    const asked = await open({ rows: [...ROWS, row('dee', 'Dee New', { grade: given({ parts: {} }) })] });
    fireEvent.click(screen.getByRole('button', { name: 'Release…' }));
    const all = await screen.findByRole('dialog');
    expect(all.textContent).toContain('3 students get a grade, 1 has none yet. 1 grade has missing components');
    fireEvent.keyDown(all, { key: 'Escape' });
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    fireEvent.click(screen.getByRole('button', { name: 'Late 1' }));
    fireEvent.click(screen.getByRole('button', { name: 'Release…' }));
    const some = await screen.findByRole('dialog');
    expect(within(some).getByLabelText<HTMLSelectElement>('Release to').value).toBe('some');
    fireEvent.click(within(some).getByRole('button', { name: 'Release' }));
    await waitFor(() => expect(changesIn(asked)).toHaveLength(1));
    expect(changesIn(asked)[0]?.body).toEqual({ how: 'some', at: null, participantIds: ['cho'] });
  });
});

describe('a student’s own grade', () => {
  const OWN: OwnGradeView = { rule: USUAL_GRADE_RULE, grade: given(), grounds: { ...GROUNDS, scores: [] } };
  const read = async (session: object = {}, feedbackOpen = false) => {
    const asked = server({ '/exchanges/x/grade': OWN });
    await show(<OwnGradePage />, { session, exchange: { ...EXCHANGE, feedbackOpen } });
    await screen.findByText('58%');
    return asked;
  };

  it('is marked as read by whoever it is of, once', async () => {
    const asked = await read();
    await waitFor(() =>
      expect(changesIn(asked)).toEqual([{ path: '/exchanges/x/grade/read', method: 'POST', body: undefined }]),
    );
  });

  it('leads to what each part rests on, and to feedback once that can be read', async () => {
    const links = () => screen.getAllByRole('link').map((link) => [link.textContent, link.getAttribute('href')]);
    await read();
    expect(links()).toEqual([['Reviews done', '/exchanges/x/review']]);
    cleanup();
    await read({}, true);
    expect(links()).toEqual([
      ['Reviews done', '/exchanges/x/review'],
      ['Score from peers', '/exchanges/x/feedback'],
    ]);
  });

  it('is not read by staff who look with that one’s eyes', async () => {
    const asked = await read({ viewAs: { exchangeId: 'x', participantId: 'ann', name: 'Ann' } });
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(changesIn(asked)).toEqual([]);
  });
});
