import { assertShallow, valuesIn } from './xml.js';

const bytes = (text: string) => Buffer.from(text);

describe('XML of documents, read once from beginning to end', () => {
  // Properties as in ECMA-376 part 2, clause 8.3.4 (core properties), and authors of remarks as in part 1, clause 17.13.4.2.
  const CORE =
    '<cp:coreProperties><dc:title>On &amp; off</dc:title><dc:creator>Ann\u00a0Mensah</dc:creator><dc:creator/></cp:coreProperties>';

  it('tells what stands in the elements that are asked for, entities read', () => {
    expect(valuesIn(bytes(CORE), { elements: ['dc:creator', 'dc:title'] })).toEqual([
      'On & off',
      'Ann\u00a0Mensah',
      '',
    ]);
    expect(valuesIn(bytes(CORE), { elements: ['creator'] })).toEqual([]);
  });

  it('tells what stands in attributes, also where a sign is cut by a block of reading', () => {
    const padding = 'x'.repeat((1 << 16) - 30);
    const remark = `<w:p><w:t>${padding}</w:t><w:comment w:author="Zoë Ström" w15:author="Z." w:id="1"/></w:p>`;
    expect(valuesIn(bytes(remark), { attribute: /^w\d*:author$/ })).toEqual(['Zoë Ström', 'Z.']);
  });

  it('is refused where it nests deeper than any document, without being read to its end', () => {
    expect(() => assertShallow(bytes('<a>'.repeat(400)))).not.toThrow();
    expect(() => assertShallow(bytes('<a>'.repeat(2_000_000)))).toThrow('nested too deeply');
    expect(() => assertShallow(bytes('<a></a>'.repeat(100_000)))).not.toThrow();
  });
});
