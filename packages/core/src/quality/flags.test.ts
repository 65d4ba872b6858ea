import { newItem } from '../form/newItem.js';
import type { CriterionItem } from '../form/form.js';
import {
  flagKey,
  flagRank,
  flagsOf,
  levelShares,
  DEFAULT_FLAGGING_RULES,
  type Flag,
  type ReviewEvidence,
} from './flags.js';

const review = (id: string, part: Partial<ReviewEvidence> = {}): ReviewEvidence => ({
  ...{ id, draftId: 'd', reviewerId: `by-${id}`, self: false, words: 200, notes: 4, telling: 2, seconds: 3_600 },
  ...{ levels: { a: 0.5, b: 0.5, c: 0.75 }, text: '', names: [] },
  ...part,
});
const of = (
  one: Partial<ReviewEvidence>,
  bounds = DEFAULT_FLAGGING_RULES,
  others = [review('x'), review('y'), review('z')],
) => flagsOf([review('one', one), ...others], bounds).get('one') as Flag[];

describe('flags about a review', () => {
  it('are none about one like the others', () => {
    expect(of({})).toEqual([]);
    expect(flagsOf([], DEFAULT_FLAGGING_RULES).size).toBe(0);
  });

  it('have their figures', () => {
    expect(of({ words: 99 })).toEqual([{ code: 'few-words', words: 99, usual: 200 }]);
    expect(of({ words: 100 })).toEqual([]);
    expect(of({ telling: 0, notes: 3 })).toEqual([{ code: 'nothing-to-do', notes: 3 }]);
    expect(of({ seconds: 60 })).toEqual([{ code: 'hasty', seconds: 60 }]);
    expect(of({ seconds: null })).toEqual([]);
    expect(of({ names: ['Ann Berg'] })).toEqual([{ code: 'name', exact: 'Ann Berg' }]);
    expect(of({ text: 'This is STUPID, stupid. A stupidity.' })).toEqual([{ code: 'harsh', exact: 'stupid' }]);
  });

  it('compare levels with the other reviews of the draft, not with a self-review, nor with other drafts', () => {
    // By hand: 0.9, 0.9 and 1 against 0.5, 0.5 and 0.75 are 0.4, 0.4 and 0.25 apart, 0.35 on average.
    const [found] = of({ levels: { a: 0.9, b: 0.9, c: 1 } });
    expect(found).toMatchObject({ code: 'far-from-others', others: 3, gives: 'more' });
    expect((found as { apart: number }).apart).toBeCloseTo(0.35, 12);
    const mixed = of({ levels: { a: 0, b: 1, c: 0.25 } });
    expect(mixed).toMatchObject([{ code: 'far-from-others', gives: null }]);
    const elsewhere = [review('x', { draftId: 'e' }), review('y', { self: true }), review('z', { draftId: 'e' })];
    expect(of({ levels: { a: 0, b: 0, c: 0.1 } }, DEFAULT_FLAGGING_RULES, elsewhere)).toEqual([]);
    expect(of({ self: true, levels: { a: 0, b: 0, c: 0.1 } })).toEqual([]);
  });

  it('see everything at one end, from three items on', () => {
    const alone = { draftId: 'e' };
    expect(of({ ...alone, levels: { a: 1, b: 1, c: 1 } })).toEqual([{ code: 'one-end', end: 'top', items: 3 }]);
    expect(of({ ...alone, levels: { a: 0, b: 0, c: 0 } })).toMatchObject([{ end: 'bottom' }]);
    expect(of({ ...alone, levels: { a: 1, b: 1 } })).toEqual([]);
  });

  it('find text that stands in another review, of the same person or of somebody else', () => {
    const text =
      'The second part names no source for the figures that it gives, and the third repeats them without one.';
    const others = [review('x', { text, reviewerId: 'by-one' }), review('y'), review('z')];
    expect(of({ text }, DEFAULT_FLAGGING_RULES, others)).toEqual([
      { code: 'same-text', share: 1, reviewId: 'x', sameReviewer: true },
    ]);
    expect(of({ text }, { ...DEFAULT_FLAGGING_RULES, sameText: null }, others)).toEqual([]);
  });

  it('go by bounds, each of which can be turned off', () => {
    const bad = { words: 5, telling: 0, seconds: 5, names: ['A'], text: 'stupid', levels: { a: 1, b: 1, c: 1 } };
    const codes = (bounds: Partial<typeof DEFAULT_FLAGGING_RULES>) =>
      of(bad, { ...DEFAULT_FLAGGING_RULES, ...bounds }).map(({ code }) => code);
    expect(codes({})).toEqual(['harsh', 'name', 'few-words', 'nothing-to-do', 'far-from-others', 'hasty', 'one-end']);
    const off = { fewWords: null, nothingToDo: false, farFromOthers: null, oneEnd: false, hasty: null, names: false };
    expect(codes({ ...off, harshWords: [] })).toEqual([]);
    expect(codes({ harshWords: ['(', ''] })).not.toContain('harsh');
  });

  it('put what may harm first, and are known again by what they are of', () => {
    expect(flagRank([{ code: 'harsh', exact: 'x' }])).toBeGreaterThan(flagRank(of({ words: 9, telling: 0 })));
    expect(flagRank([])).toBe(0);
    expect(flagKey({ code: 'name', exact: 'Ann' })).toBe('name:ann');
    expect(flagKey({ code: 'few-words', words: 1, usual: 2 })).toBe(flagKey({ code: 'few-words', words: 9, usual: 9 }));
  });
});

describe('where on its scale an answer is', () => {
  let count = 0;
  const id = () => `i${(count += 1)}`;
  const criterion = newItem('criterion', id) as CriterionItem;
  const levels = [0, 3, 4].map((points) => ({ id: `l${points}`, title: '', description: '', points }));

  it('goes by points, and without points by the order of levels', () => {
    const scored = { ...criterion, id: 'scored', levels };
    const plain = { ...criterion, id: 'plain', levels: levels.map((level) => ({ ...level, points: null })) };
    const answers = { scored: { levelId: 'l3' }, plain: { levelId: 'l3' } };
    expect(levelShares({ items: [scored, plain] }, answers)).toEqual({ scored: 0.75, plain: 0.5 });
    expect(levelShares({ items: [scored, newItem('prompt', id)] }, {})).toEqual({});
  });
});
