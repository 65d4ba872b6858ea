import fc from 'fast-check';
import { findIdentities, type SearchOptions } from './findIdentities.js';
import { fold, tokens } from './fold.js';
import type { Identity } from './nameForms.js';

const ADJOA: Identity = { name: 'Adjoa Mensah', email: 'adjoa.mensah@students.example.org', campusId: 'cr-4101' };
const QUYEN: Identity = { name: 'Quyên Trần', email: 'qt@students.example.org', campusId: null };
const ANNA: Identity = { name: 'Müller-Lüdenscheid, Anna Lena', email: 'alm@example.org', campusId: '00012345' };
const ROSE: Identity = { name: 'Rose Marsh', email: 'rose.marsh@example.org', campusId: null };
const WILL: Identity = { name: 'Will Young', email: 'young7@example.org', campusId: '77' };
const RUI: Identity = { name: 'Rui de la Cruz', email: 'rui@example.org', campusId: null };

/** What is found, marked in the text itself: [[sure]] and {{perhaps}}. */
function marked(text: string, people: readonly Identity[], options?: SearchOptions): string {
  let result = '';
  let at = 0;
  for (const { start, end, certainty } of findIdentities(text, people, options)) {
    const exact = text.slice(start, end);
    result += text.slice(at, start) + (certainty === 'sure' ? `[[${exact}]]` : `{{${exact}}}`);
    at = end;
  }
  return result + text.slice(at);
}

const plain = (text: string) => text.replace(/\[\[|\]\]|\{\{|\}\}/g, '');

/** Made-up sentences; the marks say what must be found. */
const PROSE: ReadonlyArray<readonly [what: string, who: Identity, text: string]> = [
  ['the whole name, in any order and case', ADJOA, 'Report by [[Adjoa Mensah]]. [[MENSAH, Adjoa]]; [[adjoa mensah]]'],
  ['initials', ADJOA, 'Measured by [[A. Mensah]] and [[Mensah, A.]] in May.'],
  [
    'the address and the campus id',
    ADJOA,
    'Write to [[Adjoa.Mensah@students.example.org]], id [[CR 4101]] or [[cr4101]].',
  ],
  ['names run together', ADJOA, 'Files are in drive/[[adjoamensah]]/ and [[AMensah]]_final.'],
  ['an uncommon family name alone', ADJOA, 'The photographs are [[Mensah]]’s own.'],
  ['but not where it is cited', ADJOA, 'Saltmarsh grows (Mensah, 2015; Mensah et al. 2019; see Mensah and Obi 2020).'],
  ['or has another forename', ADJOA, 'We thank Kwame Mensah of the harbour office, and B. Mensah.'],
  ['a given name alone may be anybody', ADJOA, 'Then {{Adjoa}} took the boat out; she was late.'],
  ['unless the words before say so', ADJOA, 'Author: [[Adjoa]]. My name is [[Adjoa]].'],
  ['accents or none', QUYEN, 'Thanks to [[Quyen Tran]], also [[Quyên Trần]] and [[TRAN Quyen]].'],
  [
    'umlauts spelled out, and double names',
    ANNA,
    'Signed [[Anna Lena Mueller-Luedenscheid]]; [[A. L. Müller]]; id [[00012345]].',
  ],
  ['a name that is made of words', ROSE, 'By [[Rose Marsh]]. The bed rose and the marsh grew. rose marsh is a plant.'],
  ['words at the beginning of a sentence', ROSE, 'Rose hips were found. Marsh plants grew. We met Rose there.'],
  ['words in small letters', WILL, 'We will plant young cordgrass. Will it grow? Young plants do.'],
  ['an id that is too short to tell anything', WILL, 'We counted 77 birds on 77 days, near [[Will Young]]’s house.'],
  [
    'particles tell nothing by themselves',
    RUI,
    'The mouth of the river, de facto la mer; [[Rui de la Cruz]]; de la [[Cruz]] is gone.',
  ],
  [
    'a first name that elsewhere is a particle',
    { name: 'Ben Kiss', email: '', campusId: null },
    'By [[Ben]]. The Ben Nevis.',
  ],
  ['names in scripts without spaces', { name: '李 明華', email: '', campusId: null }, '作者[[李明華]]。明天明華不來。'],
  ['names with particles that follow at once', { name: '김 민준', email: '', campusId: null }, '[[김민준]]이 썼다.'],
  ['parts of other words', ADJOA, 'The Mensahville dam; commensal species; the {{Mensahs}}.'],
  ['other addresses', ADJOA, 'Write to x@students.example.org.'],
];

describe('findIdentities', () => {
  it.each(PROSE)('finds %s', (_, who, text) => {
    expect(marked(plain(text), [who])).toBe(text);
  });

  it('takes labels at their word, where capitals and sentences tell nothing', () => {
    const as = { as: 'label' } as const;
    expect(marked('mensah_essay2_FINAL.docx', [ADJOA], as)).toBe('[[mensah]]_essay2_FINAL.docx');
    expect(marked('AdjoaMensah-v3.pdf', [ADJOA], as)).toBe('[[AdjoaMensah]]-v3.pdf');
    expect(marked('rose-garden.pdf', [ROSE], as)).toBe('{{rose}}-garden.pdf');
    expect(marked('report.docx', [ADJOA, ROSE], as)).toBe('report.docx');
  });

  it('says whose trace it is, for all members of a group', () => {
    const finds = findIdentities('By Adjoa Mensah and Quyen Tran.', [QUYEN, ADJOA]);
    expect(finds.map(({ person, exact }) => [person, exact])).toEqual([
      [1, 'Adjoa Mensah'],
      [0, 'Quyen Tran'],
    ]);
  });

  it('holds for any text: in order, apart, inside the text, the same again', () => {
    const word = fc.constantFrom(
      'Adjoa',
      'MENSAH',
      'mensah,',
      'A.',
      'the',
      'marsh',
      'cr',
      '4101',
      '\n',
      '😀',
      'é',
      'By',
    );
    fc.assert(
      fc.property(fc.array(word), (words) => {
        const text = words.join(' ');
        const finds = findIdentities(text, [ADJOA, ROSE]);
        finds.forEach(({ start, end, exact }, index) => {
          expect(start).toBeGreaterThanOrEqual(finds[index - 1]?.end ?? 0);
          expect(end).toBeGreaterThan(start);
          expect(text.slice(start, end)).toBe(exact);
        });
        expect(findIdentities(text, [ADJOA, ROSE])).toEqual(finds);
      }),
      { seed: 1962 },
    );
  });

  it('grows with the text, not with its square: a name on every line of a long one is found each time', () => {
    const text = 'Read by Adjoa Mensah, as Mensah says.\n'.repeat(5_000);
    const finds = findIdentities(text, [ADJOA]);
    expect(finds).toHaveLength(10_000);
    expect(finds.at(-1)?.end).toBe(text.lastIndexOf('Mensah') + 'Mensah'.length);
  });

  it('finds nothing where there is nothing to look for', () => {
    expect(findIdentities('', [ADJOA])).toEqual([]);
    expect(findIdentities('By Adjoa Mensah.', [])).toEqual([]);
    expect(findIdentities('By A. B.', [{ name: '', email: '', campusId: '' }])).toEqual([]);
  });
});

describe('fold and tokens', () => {
  it('keep the way back, also where a letter becomes two', () => {
    const { text, from } = fold('Straße É😀x');
    expect(text).toBe('strasse e😀x');
    expect(from[text.indexOf('e ') + 2]).toBe('Straße '.length);
    expect(from.at(-1)).toBe('Straße É😀x'.length);
  });

  it('cut at capitals after small letters, and between letters and digits', () => {
    expect(tokens('AdjoaMensah2_v1').map(({ original }) => original)).toEqual(['Adjoa', 'Mensah', '2', 'v', '1']);
  });
});
