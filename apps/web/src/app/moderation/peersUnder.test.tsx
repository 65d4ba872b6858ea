import type { AnswerView, DeskView, DraftFeedbackView, PersonLabel } from '@salt-circle/contracts';
import { EMPTY_FORM, type Answer, type FormItem, type ReviewForm } from '@salt-circle/core';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { forget, server, show } from '../../testing/pages.js';
import { PeersOf, PeersUnder } from './PeersUnder.js';

const ITEM: FormItem = {
  ...{ kind: 'criterion', id: 'c', title: 'Evidence', guidance: '', required: true, weight: 1, comment: 'optional' },
  levels: [
    { id: 'none', title: 'Claims only', description: '', points: 0 },
    { id: 'some', title: 'Some backed', description: '', points: 3 },
    { id: 'all', title: 'All backed', description: '', points: 6 },
  ],
};
const FORM: ReviewForm = { ...EMPTY_FORM, items: [ITEM] };
const answer = (levelId: string, text = ''): AnswerView => ({
  ...{ levelId, text, next: '', value: null, checks: {}, choices: [], revision: 1 },
});
type Given = DraftFeedbackView['reviews'][number];
type Withheld = DraftFeedbackView['withheld'];
const given = (id: string, reviewer: PersonLabel, levelId: string, part: Partial<Given> = {}): Given => ({
  ...{
    id,
    reviewer,
    self: false,
    version: 1,
    answers: { c: answer(levelId, `${id} says why.`) },
    notes: [],
    files: [],
  },
  ...part,
});
const DESK = {
  ...{ id: 'own', voice: 'assistant', reviewer: { you: true }, exchange: { id: 'x' }, draft: { draftId: 'd' } },
} as unknown as DeskView;

const open = async (reviews: readonly Given[], desk: DeskView = DESK, withheld: Withheld = []) => {
  const taken: Answer[] = [];
  const asked = server({ '/exchanges/x/drafts/d/feedback': { form: FORM, reviews, withheld } });
  await show(
    <PeersOf desk={desk}>
      <PeersUnder item={ITEM} onTake={(one) => taken.push(one)} />
    </PeersOf>,
  );
  return { taken, asked };
};
const lines = async () => (await screen.findByRole('group')).querySelectorAll('li');

beforeEach(forget);

describe('what others say, beside an item of an own review', () => {
  it('is taken over as a level alone: words are somebody’s own', async () => {
    const { taken } = await open([given('r1', { name: 'Ann Mensah' }, 'some')]);
    const [ann, ...more] = await lines();
    expect(more).toEqual([]);
    expect(ann?.textContent).toMatch(/^Ann MensahTake over.*r1 says why\./);
    fireEvent.click(within(ann as HTMLElement).getByRole('button', { name: 'Take over' }));
    expect(taken).toEqual([{ levelId: 'some' }]);
  });

  it('is the mean of peers as well: not of the author’s own review, of staff, or of what is withheld', async () => {
    const { taken } = await open(
      [
        given('r1', { name: 'Ann Mensah' }, 'all'),
        given('r2', { name: 'Cho Sato' }, 'some'),
        given('self', { name: 'Ben Kiss' }, 'none', { self: true }),
        given('r4', { name: 'Ines Marchetti', role: 'instructor' }, 'none'),
        given('kept', { name: 'Dee New' }, 'none'),
        given('words', { name: 'Eli Moss' }, 'none'),
        given('own', { you: true }, 'none'),
      ],
      DESK,
      [
        { reviewId: 'kept', kind: 'review', targetId: '', reason: 'Harsh.' },
        { reviewId: 'words', kind: 'answer', targetId: 'c', reason: 'Not about the draft.' },
      ],
    );
    const all = [...(await lines())].map(({ textContent }) => textContent?.replace(/Take over.*$/s, ''));
    expect(all).toEqual([
      ...['Ann Mensah', 'Cho Sato', 'The author’s own review', 'Ines Marchetti (instructor)', 'On average'],
    ]);
    fireEvent.click(screen.getAllByRole('button', { name: 'Take over' }).at(-1) as HTMLElement);
    // 4.5 lies between 3 and 6: one of the two.
    expect(taken).toHaveLength(1);
    expect(['some', 'all']).toContain(taken[0]?.levelId);
  });

  it('is of those alone who were asked the same: another form may have other levels under the same id', async () => {
    const items = [{ ...ITEM, levels: ITEM.levels.slice(1) }];
    const otherwise = given('r2', { name: 'Tom Acheson', role: 'assistant' }, 'some', { form: { ...FORM, items } });
    await open([given('r1', { name: 'Ann Mensah' }, 'some'), otherwise]);
    expect([...(await lines())].map(({ textContent }) => textContent?.slice(0, 10))).toEqual(['Ann Mensah']);
  });

  it('is not asked for at all by whoever reviews under an alias', async () => {
    const peer = { ...DESK, voice: null } as DeskView;
    const { asked } = await open([given('r1', { name: 'Ann Mensah' }, 'some')], peer);
    await waitFor(() => expect(document.querySelector('details')).toBeNull());
    expect(asked.filter(({ path }) => path.includes('/drafts/'))).toEqual([]);
  });
});
