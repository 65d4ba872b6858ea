import { csvOf } from './saving.js';

describe('a table as CSV', () => {
  it('is as RFC 4180 has it, and holds no formulas', () => {
    expect(
      csvOf([
        ['name', 'score'],
        ['Ann "A" Aalto, Jr.', 0.5],
        ['=1+1', -2],
      ]),
    ).toBe('\uFEFF"name","score"\r\n"Ann ""A"" Aalto, Jr.",0.5\r\n"\'=1+1",-2\r\n');
  });
});
