import type { HiddenPassage, NameFindView } from '@salt-circle/contracts';
import { fireEvent, render, screen, within } from '@testing-library/react';
import { lateInWords } from '@salt-circle/core';
import { NameFinds } from './NameFinds.js';

const find = (part: Partial<NameFindView>): NameFindView => ({
  key: part.exact ?? 'k',
  where: 'text',
  whereWords: 'Report',
  partId: 'a',
  deliverableId: 'text',
  before: 'By ',
  exact: 'Ann Mensah',
  after: ', in May',
  start: 3,
  end: 13,
  what: 'name',
  certainty: 'sure',
  hideable: true,
  removed: false,
  ...part,
});

function show(finds: readonly NameFindView[], kept: readonly string[] = [], hidden: readonly HiddenPassage[] = []) {
  const onHide = jest.fn();
  const onKeep = jest.fn();
  const onShow = jest.fn();
  const onShowAgain = jest.fn();
  const acts = { onHide, onKeep, onShow, onShowAgain };
  render(<NameFinds finds={finds} hidden={hidden} kept={new Set(kept)} busy={false} {...acts} />);
  return acts;
}

describe('places that may tell who wrote it', () => {
  it('stand in their sentence, each with what can be done about it', () => {
    const name = find({});
    const { onHide, onKeep } = show([name, find({ exact: 'Mensah', certainty: 'perhaps' })]);
    expect(screen.getByRole('heading').textContent).toBe('2 places may tell reviewers who you are');
    const [first, second] = screen.getAllByRole('listitem');
    expect(first?.textContent).toContain('Report: By Ann Mensah, in May (your name)');
    expect(second?.textContent).toContain('(perhaps your name)');
    fireEvent.click(within(first as HTMLElement).getByRole('button', { name: 'Hide Ann Mensah' }));
    fireEvent.click(within(second as HTMLElement).getByRole('button', { name: 'Keep Mensah' }));
    expect(onHide).toHaveBeenCalledWith(name);
    expect(onKeep).toHaveBeenCalledTimes(1);
  });

  it('that cannot be hidden say where they have to be changed', () => {
    show([find({ where: 'copy', hideable: false })]);
    expect(screen.queryByRole('button', { name: /^Hide/ })).toBeNull();
    expect(screen.getByText('change it in the file, or')).toBeTruthy();
  });

  it('that were kept are no longer asked about', () => {
    show([find({ key: 'one' })], ['one']);
    expect(screen.getByText('kept')).toBeTruthy();
    expect(screen.queryByRole('button', { name: /^(Hide|Keep)/ })).toBeNull();
  });

  it('lead to their place in the text', () => {
    const name = find({});
    const { onShow } = show([name]);
    fireEvent.click(screen.getByRole('button', { name: 'Ann Mensah' }));
    expect(onShow).toHaveBeenCalledWith(name);
  });

  it('that were hidden in a document can be shown again', () => {
    const passage = { partId: 'b', deliverable: 'Paper', start: 3, end: 9, words: 'Mensah' };
    const { onShowAgain } = show([], [], [passage]);
    expect(screen.getByText(/^Hidden from reviewers in “Paper”/).textContent).toContain('Mensah');
    fireEvent.click(screen.getByRole('button', { name: 'Show Mensah again' }));
    expect(onShowAgain).toHaveBeenCalledWith(passage);
  });

  it('that reviewers do not get anyway are told together, once each', () => {
    const removed = { removed: true, hideable: false, where: 'metadata' as const, whereWords: 'author of a remark' };
    show([
      find({ ...removed, key: '1' }),
      find({ ...removed, key: '2' }),
      find({ ...removed, key: '3', exact: 'Ann' }),
    ]);
    expect(screen.queryByRole('heading')).toBeNull();
    expect(screen.getByText(/^Left out for reviewers/).textContent).toBe(
      'Left out for reviewers: author of a remark (Ann Mensah); author of a remark (Ann).',
    );
  });
});

describe('what being late costs', () => {
  const rule = { amount: 5, unit: 'percent', per: 'day', cap: 20, graceMinutes: 15 } as const;
  const HOUR = 3_600_000;
  const cases: Array<[Parameters<typeof lateInWords>[0], string]> = [
    [{ by: 10_000, startedDays: 0, loses: 0, rule }, '1 minute late, within the grace period: no penalty.'],
    [{ by: 35 * 60_000, startedDays: 1, loses: 5, rule }, '35 minutes late: loses 5 percentage points.'],
    [{ by: 30 * HOUR, startedDays: 2, loses: 10, rule }, '30 hours late: loses 10 percentage points.'],
    [{ by: 72 * HOUR, startedDays: 4, loses: 1, rule: { ...rule, unit: 'points' } }, '3 days late: loses 1 point.'],
    [{ by: HOUR, startedDays: 1, loses: 0, rule: null }, '60 minutes late: no penalty.'],
  ];
  it.each(cases)('is said in words: %j', (late, words) => {
    expect(lateInWords(late)).toBe(words);
  });
});
