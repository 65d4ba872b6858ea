import type { FormItem } from './form.js';
import { meanAnswer } from './meanAnswer.js';

const BASE = { id: 'i', title: 'Evidence', guidance: '', required: true, weight: 1, comment: 'none' as const };
const levels: FormItem = {
  ...BASE,
  kind: 'criterion',
  levels: [0, 2, 4].map((points) => ({ id: `l${points}`, title: '', description: '', points })),
};
const range: FormItem = {
  ...BASE,
  kind: 'range',
  step: 0.5,
  bands: [{ id: 'b', title: '', description: '', from: 0, to: 10 }],
};

describe('the mean of several answers', () => {
  it('is the nearest level, of two as near the one that gives less', () => {
    const of = (...ids: string[]) =>
      meanAnswer(
        levels,
        ids.map((levelId) => ({ levelId })),
      );
    expect([of('l0', 'l4', 'l4'), of('l4', 'l4', 'l2'), of('l0', 'l2')]).toEqual([
      { levelId: 'l2' },
      { levelId: 'l4' },
      { levelId: 'l0' },
    ]);
  });

  it('is a step of a range, and nothing where there are no points', () => {
    expect(meanAnswer(range, [{ value: 7 }, { value: 7.5 }, undefined])).toEqual({ value: 7.5 });
    expect(meanAnswer(range, [undefined])).toBeNull();
    expect(meanAnswer({ ...BASE, kind: 'prompt', minimumWords: 0 }, [{ text: 'x' }])).toBeNull();
    const plain: FormItem = { ...levels, levels: levels.levels.map((one) => ({ ...one, points: null })) };
    expect(meanAnswer(plain, [{ levelId: 'l2' }])).toBeNull();
  });
});
