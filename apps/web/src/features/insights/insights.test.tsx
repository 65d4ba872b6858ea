import type { CourseInsightsView, InsightsView } from '@salt-circle/contracts';
import { fireEvent, screen, within } from '@testing-library/react';
import { forget, server, show } from '../../testing/pages.js';
import { CourseInsightsPage } from './CourseInsightsPage.js';
import { InsightsPage } from './InsightsPage.js';
import { dayBars, heatMap, intervals, layers, lines, scatter } from './options.js';

// Pictures need a canvas, which is not here; what they are made from is looked at below, and they by the browser.
jest.mock('./Chart.js', () => ({
  Chart: ({ label, onPick }: { label: string; onPick?: (index: number, series: number) => void }) => (
    <button type="button" onClick={({ detail }) => onPick?.(detail, 0)}>{`picture: ${label}`}</button>
  ),
}));

const COLOURS = {
  ink: 'ink',
  soft: 'soft',
  line: 'line',
  paper: 'paper',
  dusk: 'dusk',
  copper: 'copper',
  kelp: 'kelp',
  slate: 'slate',
};
const DRAFT: InsightsView['drafts'][number] = {
  ...{ id: 'd1', author: { name: 'Ann Mensah' }, mean: 0.7, adjusted: 0.65, low: 0.5, high: 0.8, reviews: 3 },
  ...{ less: 2, more: 0, forHalf: 12, staff: null, self: null, items: [0.8, 0.6] },
};
const review = (id: string, words: number, levels: Array<number | null>): InsightsView['reviews'][number] => ({
  ...{ id, words, levels, notes: 2, minutes: null, day: '2026-03-18', along: id === 'r1' ? [['change', 0]] : [] },
  ...{ person: { name: 'Cho Sato' }, author: { name: 'Ann Mensah' } },
});
const VIEW: InsightsView = {
  items: [
    { itemId: 'a', title: 'Evidence', counts: [1, 0, 2, 5, 10], answers: 18, mean: 0.725, alpha: 0.41 },
    { itemId: 'b', title: 'Structure', counts: [0, 0, 0, 4, 8], answers: 12, mean: 0.9, alpha: 0.8 },
  ],
  drafts: [DRAFT, { ...DRAFT, id: 'd2', author: { name: 'Ben Kiss' }, adjusted: 0.4, staff: 0.5, forHalf: null }],
  reviewers: [
    { id: 'p1', person: { name: 'Cho Sato' }, severity: 0.1, low: 0.02, high: 0.18, reviews: 3 },
    { id: 'p2', person: { name: 'Dee New' }, severity: -0.05, low: -0.12, high: 0.02, reviews: 2 },
  ],
  days: [{ day: '2026-03-18', reviews: 2 }],
  groupings: [],
  reliability: { single: 0.4, reviews: 3, together: 0.667, needed: 3.5 },
  reviews: [review('r1', 120, [0.9, null]), review('r2', 40, [0.1, 0.9])],
  notes: [{ kind: 'change', counts: [1, 0, 0, 0, 0, 0, 0, 0, 0, 2], elsewhere: 1 }],
  uptake: [{ kind: 'change', remarks: 3, done: 1, toDo: 1, wont: 0, undecided: 1 }],
  problem: null,
  provisional: false,
};
const open = async (part: Partial<InsightsView> = {}) => {
  server({ '/exchanges/x/insights': { ...VIEW, ...part } });
  await show(<InsightsPage />, { exchange: { id: 'x', course: { timeZone: 'UTC' } } });
  await screen.findByRole('heading', { name: 'Insights' });
};
const figure = (question: RegExp) => screen.getByRole('region', { name: question });
const rows = (question: RegExp) =>
  within(figure(question))
    .getAllByRole('row')
    .slice(1)
    .map((row) => [...row.children].map(({ textContent }) => textContent));

beforeEach(forget);

describe('insights', () => {
  it('say what is read differently, who differs for sure, and when not to rely on it', async () => {
    await open();
    expect(figure(/strong and weak/).textContent).toContain('Different people read “Evidence” differently');
    expect(figure(/strong and weak/).textContent).not.toContain('“Structure”');
    expect(figure(/How sure|how sure/).textContent).toContain('With fewer than 10 drafts, do not rely on it.');
    // Of two, one whose bar leaves 0 out.
    expect(figure(/Who gives less/).textContent).toContain('One differs for sure');
  });

  it('have the same data in a table, in percent, the weakest first', async () => {
    await open();
    expect(rows(/how sure/)).toEqual([
      ['Ben Kiss', '40', '50', '80', '70', '3', '2', '0', '', '50'],
      ['Ann Mensah', '65', '50', '80', '70', '3', '2', '0', '12', ''],
    ]);
    expect(rows(/strong and weak/)[0]).toEqual(['Evidence', '1', '0', '2', '5', '10', '72.5', '0.41']);
    expect(rows(/Who gives less/)[0]).toEqual(['Dee New', '-5', '-12', '2', '2']);
    // Shown in the place of the picture.
    fireEvent.click(within(figure(/how sure/)).getByRole('button', { name: 'As a table' }));
    expect(within(figure(/how sure/)).queryByText(/^picture/)).toBeNull();
  });

  it('leave out what nothing can be said of, and say when there is nothing at all', async () => {
    await open({ items: [], drafts: [], reviewers: [], reviews: [], notes: [], uptake: [] });
    expect(screen.getAllByRole('region')).toHaveLength(1);
    expect(figure(/When were reviews submitted/)).not.toBeNull();
  });

  it('hold peers against staff, and authors against peers, in words that say what is usual', async () => {
    const drafts = [0.5, 0.6, 0.8, 0.9].map((mean, index) => ({
      ...{ ...DRAFT, id: `d${index}`, mean, staff: mean - 0.1 },
      self: index === 0 ? 1 : null,
    }));
    await open({ drafts });
    // By hand: always 10 points more, so that the limits are one, and the order is the same.
    expect(figure(/what the staff gives/).textContent).toContain(
      'Peers give 10 percentage points more than the staff on average; for 95 drafts in 100 they differ by 10 to 10 points (Bland and Altman). They put drafts into much the same order (Spearman 1.00',
    );
    expect(rows(/what the staff gives/)).toContainEqual(['Ann Mensah', '80', '70', '10']);
    expect(figure(/as their peers do/).textContent).toContain('With one alone there is nothing to compare.');
    expect(figure(/how sure/).textContent).toContain(
      'One review alone is 0.40 reliable, of 1; 3 together are 0.67 (Spearman and Brown). For 0.7, which is common practice, it would take 4 a draft.',
    );
  });

  it('put drafts together by section, or by a set of groups', async () => {
    const two = [DRAFT, { ...DRAFT, id: 'd2', items: [0.4, null] }];
    await open({ drafts: two, groupings: [{ title: 'section', of: { d1: 'A', d2: 'B' } }] });
    expect(rows(/each section/)).toEqual([
      ['Evidence', '80', '40'],
      ['Structure', '60', ''],
    ]);
    expect(figure(/each section/).textContent).toContain('Some have fewer than five drafts');
  });

  it('lead from a field to the reviews behind it', async () => {
    await open();
    // The first field is of Evidence, in the lowest fifth.
    fireEvent.click(within(figure(/strong and weak/)).getByRole('button', { name: /^picture/ }), { detail: 0 });
    const dialog = await screen.findByRole('dialog', { name: 'Evidence: 0 to 20%' });
    expect(
      within(dialog)
        .getAllByRole('link')
        .map((link) => link.getAttribute('href')),
    ).toEqual(['/reviews/r2']);
  });

  it('say where notes stand, what became of them, and how much was written', async () => {
    await open();
    expect(rows(/Where along the drafts/)).toEqual([['Change', '1', '0', '0', '0', '0', '0', '0', '0', '0', '2', '1']]);
    expect(figure(/Where along the drafts/).textContent).toContain('3 notes by kind. One more is on the whole');
    fireEvent.click(within(figure(/Where along/)).getByRole('button', { name: /^picture/ }), { detail: 0 });
    const dialog = await screen.findByRole('dialog', { name: 'Change notes, 0–10% of the way' });
    expect(
      within(dialog)
        .getAllByRole('link')
        .map((link) => link.getAttribute('href')),
    ).toEqual(['/reviews/r1']);
    fireEvent.keyDown(dialog, { key: 'Escape' });
    expect(rows(/make of remarks/)).toEqual([['Change', '3', '1', '1', '0', '1']]);
    expect(rows(/How much is written/)).toEqual([
      ['Cho Sato', 'Ann Mensah', '40', '2'],
      ['Cho Sato', 'Ann Mensah', '120', '2'],
    ]);
  });

  it('say what is still being worked out, and show the rest', async () => {
    await open({ drafts: [], reviewers: [], reliability: null, provisional: true, problem: 'Still being worked out.' });
    expect(screen.getByText('Still being worked out.')).not.toBeNull();
    expect(screen.queryByRole('region', { name: /how sure/ })).toBeNull();
    expect(figure(/strong and weak/)).not.toBeNull();
  });

  it('say when there is nothing yet', async () => {
    await open({ days: [] });
    expect(screen.getByText('No review has been submitted yet.')).not.toBeNull();
    expect(screen.queryByRole('region')).toBeNull();
  });
});

describe('a course from exchange to exchange', () => {
  const COURSE: CourseInsightsView = {
    exchanges: [
      { id: 'x', title: 'Field report', reviews: 40, items: [{ title: 'Evidence', mean: 0.5, answers: 40 }] },
      { id: 'y', title: 'Proposal', reviews: 38, items: [{ title: 'Evidence', mean: 0.75, answers: 38 }] },
    ],
    people: [
      {
        id: 'ann',
        name: 'Ann Mensah',
        scores: [0.4, 0.8],
        given: [
          { submitted: 2, of: 2 },
          { submitted: 1, of: 2 },
        ],
      },
      { id: 'ben', name: 'Ben Kiss', scores: [null, 0.6], given: [null, null] },
    ],
  };

  it('shows how people and items come along', async () => {
    server({ '/courses/c/insights': COURSE });
    await show(<CourseInsightsPage />, { exchange: { id: 'c' } });
    await screen.findByRole('heading', { name: 'From exchange to exchange' });
    expect(rows(/somebody come along/)).toEqual([
      ['all, on average', '40', '70', ''],
      ['Ann Mensah', '40', '80', '3 of 4'],
      ['Ben Kiss', '', '60', ''],
    ]);
    expect(rows(/items come along/)).toEqual([['Evidence', '50', '75']]);
  });

  it('says when there is nothing to look at yet', async () => {
    server({ '/courses/c/insights': { exchanges: [], people: [] } });
    await show(<CourseInsightsPage />, { exchange: { id: 'c' } });
    expect(await screen.findByText(/No review has been submitted in this course/)).not.toBeNull();
  });
});

describe('pictures', () => {
  type Series = Array<{ data: unknown[] }>;
  const seriesOf = (option: object) => (option as { series: Series }).series;

  it('put each number into its field, the first item on top', () => {
    const [map] = seriesOf(heatMap(VIEW.items)(COLOURS));
    const data = map?.data as Array<{ value: number[] }>;
    // Evidence, in the highest fifth.
    expect(data[4]).toMatchObject({ value: [4, 1, 10] });
    expect(data[5]).toMatchObject({ value: [0, 0, 0] });
  });

  it('draw each interval on its own line, and no ring where there is nothing beside', () => {
    const made = [
      { name: 'Ann', at: 65, other: 70, words: '2 of 3 reviewers give less than others', low: 50, high: 80 },
      { name: 'Ben', at: 40, other: null, words: '', low: 30, high: 50 },
    ];
    const option = intervals(made, { at: 'adjusted', other: 'plain mean' })(COLOURS);
    const [bars, points, rings] = seriesOf(option);
    expect(bars?.data).toEqual([
      [50, 80, 0],
      [30, 50, 1],
    ]);
    expect(points?.data).toEqual([
      [65, 0],
      [40, 1],
    ]);
    expect(rings?.data).toEqual([
      [70, 0],
      [NaN, 1],
    ]);
    const { formatter } = (option as { tooltip: { formatter: (of: { dataIndex: number }) => string } }).tooltip;
    expect(formatter({ dataIndex: 0 })).toBe(
      'Ann\nadjusted 65, 50 to 80\nplain mean 70\n2 of 3 reviewers give less than others',
    );
    expect(formatter({ dataIndex: 1 })).toBe('Ben\nadjusted 40, 30 to 50');
  });

  it('have a bar for each day', () => {
    expect(seriesOf(dayBars(VIEW.days)(COLOURS))[0]?.data).toEqual([2]);
  });

  it('tell layers and lines apart without colour as well', () => {
    const stacked = layers(['0–10%', '10–20%'], [{ name: 'Keep', colour: 'kelp', values: [1, 2] }], true)(COLOURS);
    expect(stacked).toMatchObject({ aria: { decal: { show: true } }, yAxis: { data: ['10–20%', '0–10%'] } });
    expect(seriesOf(stacked)[0]?.data).toEqual([2, 1]);
    const drawn = lines(
      ['one'],
      [
        { name: 'a', values: [1] },
        { name: 'b', values: [null] },
      ],
    )(COLOURS);
    const symbols = seriesOf(drawn).map((series) => (series as unknown as { symbol: string }).symbol);
    expect(new Set(symbols).size).toBe(2);
  });

  it('draw the line on which both give the same, where there is one', () => {
    const point = { name: 'Ann', x: 70, y: 80, words: '' };
    const words = { x: 'staff', y: 'peers' };
    expect(seriesOf(scatter([point], words, true)(COLOURS)).map(({ data }) => data)).toEqual([
      [[70, 80]],
      [
        [0, 0],
        [100, 100],
      ],
    ]);
    expect(seriesOf(scatter([point], words, false)(COLOURS))).toHaveLength(1);
  });
});
