import fc from 'fast-check';
import { containment, nearestTexts, resemblance, shinglesOf } from './shingles.js';

/** Words that nobody else has: so that what two texts share is known. */
const words = (from: number, count: number) => Array.from({ length: count }, (_, at) => `w${from + at}`).join(' ');

describe('shingles', () => {
  it('are the sequences of four words, each once (Broder 1997: “a rose is a rose is a rose” has three)', () => {
    // The example of section 2 of the paper, from memory: w = 4.
    expect([...shinglesOf('a rose is a rose is a rose')]).toEqual(['a rose is a', 'rose is a rose', 'is a rose is']);
    expect(shinglesOf('Three words only')).toEqual(new Set());
    expect(shinglesOf('Größe, GRÖSSE; größe groesse')).toHaveProperty('size', 1);
  });

  it('measure a known overlap', () => {
    // 20 words each, 10 of them the same in one stretch: 17 shingles each, 7 of both.
    const [a, b] = [shinglesOf(words(0, 20)), shinglesOf(`${words(0, 10)} ${words(100, 10)}`)];
    expect(resemblance(a, b)).toBeCloseTo(7 / 27, 12);
    expect(containment(a, b)).toBeCloseTo(7 / 17, 12);
    expect(containment(shinglesOf(words(0, 10)), a)).toBe(1);
    expect([resemblance(a, a), resemblance(a, new Set()), containment(new Set(), a)]).toEqual([1, 0, 0]);
  });

  it('find the nearest text as comparing all pairs does', () => {
    const text = fc.array(fc.integer({ min: 0, max: 12 }), { minLength: 0, maxLength: 40 });
    fc.assert(
      fc.property(fc.array(text, { maxLength: 8 }), (all) => {
        const texts = all.map((list, id) => ({ id: String(id), text: list.map((one) => `w${one}`).join(' ') }));
        const nearest = nearestTexts(texts);
        for (const one of texts) {
          const set = shinglesOf(one.text);
          const shares = texts
            .filter(({ id }) => id !== one.id)
            .map(({ text: other }) => containment(set, shinglesOf(other)));
          const best = Math.max(0, ...shares);
          expect(nearest.get(one.id)?.share ?? 0).toBeCloseTo(set.size < 8 ? 0 : best, 12);
        }
      }),
      { seed: 1997 },
    );
  });
});
