import { usualShorthand } from './usualShorthand.js';

describe('the shorthand that a new set begins with', () => {
  it('has a letter of its own for each label, none of which leaves a note of another kind', () => {
    const keys = usualShorthand().map(({ key }) => key);
    expect(keys.length).toBeGreaterThan(10);
    expect(new Set(keys).size).toBe(keys.length);
    expect(keys.filter((key) => !/^[a-z]$/.test(key))).toEqual([]);
  });

  it('keeps each group together', () => {
    const groups = usualShorthand().map(({ group }) => group);
    const runs = groups.filter((group, at) => group !== groups[at - 1]);
    expect(new Set(runs).size).toBe(runs.length);
  });
});
