import type { InsightsView } from '@salt-circle/contracts';
import { fireEvent, screen, within } from '@testing-library/react';
import { forget, server, show } from '../../testing/pages.js';
import { InsightsPage } from './InsightsPage.js';
import { dayBars, heatMap, intervals } from './options.js';

// Pictures need a canvas, which is not here; what they are made from is looked at below, and they by the browser.
jest.mock('./Chart.js', () => ({ Chart: ({ label }: { label: string }) => <div>{`picture: ${label}`}</div> }));

const COLOURS = { ink: 'ink', soft: 'soft', line: 'line', paper: 'paper', dusk: 'dusk', copper: 'copper' };
const DRAFT: InsightsView['drafts'][number] = {
  ...{ id: 'd1', author: { name: 'Ann Mensah' }, mean: 0.7, adjusted: 0.65, low: 0.5, high: 0.8, reviews: 3 },
  ...{ less: 2, more: 0, forHalf: 12, staff: null },
};
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
  days: [{ day: '2026-03-18', reviews: 5 }],
  problem: null,
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
    await open({ items: [], drafts: [], reviewers: [] });
    expect(screen.getAllByRole('region')).toHaveLength(1);
    expect(figure(/When were reviews submitted/)).not.toBeNull();
  });

  it('say when there is nothing yet', async () => {
    await open({ days: [] });
    expect(screen.getByText('No review has been submitted yet.')).not.toBeNull();
    expect(screen.queryByRole('region')).toBeNull();
  });
});

describe('pictures', () => {
  type Series = Array<{ data: unknown[] }>;
  const seriesOf = (option: object) => (option as { series: Series }).series;

  it('put each number into its field, the first item on top, light on dark', () => {
    const [map] = seriesOf(heatMap(VIEW.items)(COLOURS));
    const data = map?.data as Array<{ value: number[]; label: { color: string } }>;
    // Evidence, in the highest fifth.
    expect(data[4]).toEqual({ value: [4, 1, 10], label: { color: 'paper' } });
    expect(data[5]).toEqual({ value: [0, 0, 0], label: { color: 'ink' } });
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
    expect(seriesOf(dayBars(VIEW.days)(COLOURS))[0]?.data).toEqual([5]);
  });
});
