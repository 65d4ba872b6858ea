import { findIdentities } from './findIdentities.js';
import { findLookalikes, shapeOfId } from './lookalikes.js';

describe('what looks like an address or an id', () => {
  it('is found whether anybody has it or not', () => {
    const shapes = new Set([shapeOfId('cr-4101') ?? '', shapeOfId('00012345') ?? '']);
    const found = (text: string) => findLookalikes(text, shapes).map(({ exact, what }) => `${what} ${exact}`);
    expect(found('CR-9999, CR 1234 and cr1234; no 2024, in 1998 and 12345678.')).toEqual([
      'campus-id CR-9999',
      'campus-id CR 1234',
      'campus-id cr1234',
      'campus-id 12345678',
    ]);
    expect(found('Ask a.b+c@mail.example.org, not @tide or x@ or 3@y.')).toEqual(['email a.b+c@mail.example.org']);
    expect(found('')).toEqual([]);
  });

  it('tells nothing by shapes that numbers in a text have as well', () => {
    expect([shapeOfId('77'), shapeOfId('2024'), shapeOfId('u552190'), shapeOfId('')]).toEqual([
      null,
      null,
      'A999999',
      null,
    ]);
  });
});

describe('the worst that a text can hold', () => {
  const AUTHOR = { name: 'Viktor Lund', email: 'viktor.lund@example.org', campusId: 'cr-4101' };
  const shapes = new Set(['AA9999']);
  // Each of these took time by the square of its length once: 41 s for 16,000 signs.
  it.each([
    ['combining marks', 'a' + '\u0301'.repeat(200_000)],
    ['initials', 'V L '.repeat(50_000)],
    ['signs of addresses', 'a@'.repeat(100_000)],
    ['one long word before an @', `${'a.'.repeat(100_000)}@`],
    ['hyphens at line ends', 'a-\n'.repeat(70_000)],
    ['halves of names', 'Viktor-'.repeat(30_000)],
  ])('is searched in one pass: %s', (_, text) => {
    // With the square of the length this would take hours, so no clock is needed.
    expect(Array.isArray(findIdentities(text, [AUTHOR]))).toBe(true);
    expect(Array.isArray(findLookalikes(text, shapes))).toBe(true);
  });
});
