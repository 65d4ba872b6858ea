import { LIMITS } from '@salt-circle/contracts';
import fc from 'fast-check';
import { readBody } from './body-shape.js';

describe('the body of a request', () => {
  it('is what JSON says, whatever stands in it', () => {
    const small = fc.dictionary(fc.string({ maxLength: 6 }), fc.jsonValue({ maxDepth: 3 }), { maxKeys: 8 });
    fc.assert(
      fc.property(small, (value) => expect(readBody(JSON.stringify(value))).toEqual(JSON.parse(JSON.stringify(value)))),
      { seed: 1962 },
    );
    // Signs of structure within strings mean nothing: RFC 8259, section 7.
    const told = { a: '{[:,'.repeat(40_000), 'b"\\': '\\"{', c: '' };
    expect(readBody(JSON.stringify(told))).toEqual(told);
  });

  const keys = (count: number) => `{${Array.from({ length: count }, (_, index) => `"k${index}":1`).join()}}`;
  const deep = (levels: number) => `${'{"a":'.repeat(levels)}1${'}'.repeat(levels)}`;
  const objects = (count: number) =>
    `{"a":[${Array(count - 1)
      .fill('{}')
      .join()}]}`;

  it('is taken up to the bounds, and refused beyond them, in words', () => {
    for (const fits of [keys(LIMITS.keys), deep(LIMITS.depth), objects(LIMITS.objects)]) readBody(fits);
    expect(() => readBody(keys(LIMITS.keys + 1))).toThrow('more than 60 fields');
    expect(() => readBody(deep(LIMITS.depth + 1))).toThrow('32 levels deep');
    expect(() => readBody(objects(LIMITS.objects + 1))).toThrow('more than any page sends');
    expect(() =>
      readBody(
        `{"a":[${Array(LIMITS.values + 2)
          .fill(1)
          .join()}]}`,
      ),
    ).toThrow('more than any page sends');
  });

  it.each(['[]', '1', 'null', '"text"'])('is refused when it is no object: %s', (body) => {
    expect(() => readBody(body)).toThrow('no object');
  });

  it.each(['{', '{"a":}', '{"a":1,}', ']', '{"a":"', '}{', 'x'])('is refused when it is no JSON: %s', (body) => {
    expect(() => readBody(body)).toThrow('no JSON');
  });
});
