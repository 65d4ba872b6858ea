import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { checkCatalogue, checkTranslation } from './checkCatalogue.js';
import { listed } from './listed.js';
import { catalogues, ENGLISH, partsFor, sentences, speakBy } from './say.js';
import { dayOf, exactly } from './times.js';
import { wordsBy } from './wordsBy.js';

const say = sentences('test', {
  hello: 'Hello',
  notes: '{notes, plural, one {1 note by {name}} other {# notes by {name}}}',
  kind: '{kind, select, keep {Works, leave it} other {Something else}}',
  link: 'Read <link>all of it</link> now',
});

/** A language that does not have all sentences. */
const speaking = (language: string, test: Readonly<Record<string, string>>) =>
  speakBy(() => ({ language, sentences: { test } }));

afterEach(() => speakBy(() => ENGLISH));

describe('a sentence', () => {
  it('is said with its slots filled, by how many there are, and around the words of a tag', () => {
    expect(say('hello')).toBe('Hello');
    expect([1, 2_000].map((notes) => say('notes', { notes, name: 'Ann' }))).toEqual([
      '1 note by Ann',
      '2,000 notes by Ann',
    ]);
    expect([say('kind', { kind: 'keep' }), say('kind', { kind: 'fix' })]).toEqual([
      'Works, leave it',
      'Something else',
    ]);
    expect(say('link', { link: (words) => `[${words}]` })).toBe('Read [all of it] now');
  });

  it('takes what is filled in as it is, whatever signs it has', () => {
    expect(say('notes', { notes: 1, name: "{x} <b>O'Neill</b> #1" })).toBe("1 note by {x} <b>O'Neill</b> #1");
  });

  it('keeps what is no text in its place', () => {
    const parts = partsFor('test-parts', { due: 'Due {when}, in your zone' })<{ at: number }>('due', {
      when: { at: 5 },
    });
    expect(parts).toEqual(['Due ', { at: 5 }, ', in your zone']);
  });

  it('is refused by the compiler without a slot, or with a word where a number is', () => {
    // @ts-expect-error a slot is missing
    expect(() => say('notes', { notes: 1 })).toThrow(/name/);
    // @ts-expect-error what is counted is a number
    expect(say('notes', { notes: 'some', name: 'Ann' })).toContain('Ann');
    // @ts-expect-error there is no such sentence
    expect(() => say('nothing')).toThrow('There is no sentence “nothing” in “test”.');
  });

  it('follows the plural rules of the language spoken', () => {
    // Unicode CLDR 47, plural rules of Polish: one; few for 2 to 4 but not 12 to 14; many else. The words are ours.
    speaking('pl', { notes: '{notes, plural, one {# uwaga} few {# uwagi} many {# uwag} other {# uwagi}} ({name})' });
    expect([1, 3, 5, 12, 22].map((notes) => say('notes', { notes, name: 'Ann' }))).toEqual([
      '1 uwaga (Ann)',
      '3 uwagi (Ann)',
      '5 uwag (Ann)',
      '12 uwag (Ann)',
      '22 uwagi (Ann)',
    ]);
  });

  it('is said in English, by English rules, where the language spoken lacks it', () => {
    speaking('pl', { hello: 'Cześć' });
    expect([say('hello'), say('notes', { notes: 2, name: 'Ann' })]).toEqual(['Cześć', '2 notes by Ann']);
  });

  it('that stands in a list of words is said anew each time', () => {
    const words = wordsBy(say, { greeting: 'hello' });
    expect(Object.entries(words)).toEqual([['greeting', 'Hello']]);
    speaking('pl', { hello: 'Cześć' });
    expect(words.greeting).toBe('Cześć');
  });
});

describe('lists and times', () => {
  const at = Date.UTC(2026, 2, 12, 21, 59);

  it('are said in English', () => {
    expect([listed([]), listed(['a']), listed(['a', 'b', 'c']), listed(['a', 'b'], 'or')]).toEqual([
      ...['', 'a', 'a, b and c', 'a or b'],
    ]);
    expect(listed(['a', 'b', 'c'], 'comma')).toBe('a, b, c');
    expect(exactly(at, 'Europe/Tallinn', at)).toBe('Thu 12 Mar, 23:59 EET');
    expect(exactly(at, 'Europe/Tallinn', Date.UTC(2027, 0, 1))).toBe('Thu 12 Mar 2026, 23:59 EET');
    expect([exactly(at, 'UTC', null), dayOf(at, 'UTC')]).toEqual(['Thu 12 Mar 2026, 21:59 UTC', 'Thu 12 Mar']);
  });

  it('are said in the language spoken, in its order', () => {
    speakBy(() => ({
      language: 'de',
      sentences: { 'core.times': { exact: '{weekday} {day}. {month}, {time} Uhr ({zone})' } },
    }));
    expect(listed(['a', 'b', 'c'])).toBe('a, b und c');
    // Names of days and months of German in CLDR.
    expect(exactly(at, 'Europe/Berlin', at)).toBe('Do. 12. März, 22:59 Uhr (MEZ)');
  });
});

describe('the sentences of the core', () => {
  it('are whole, and can be read', () => {
    const files = readdirSync(__dirname).filter((file) => /^\w+\.ts$/.test(file) && !file.includes('.test.'));
    for (const file of files) jest.requireActual(join(__dirname, file));
    const ours = [...catalogues()].filter(([area]) => area.startsWith('core.'));
    expect(ours.length).toBeGreaterThan(4);
    expect(
      ours.flatMap(([area, english]) => checkCatalogue(english, 'en-GB').map((line) => `${area}: ${line}`)),
    ).toEqual([]);
  });
});

describe('what is wrong with sentences', () => {
  it('is said by key', () => {
    const wrong = {
      hanging: ', due {when}',
      blank: 'Due ',
      alone: '{n, plural, one {goes} other {# go}} home',
      open: 'Due {when',
    };
    expect(checkCatalogue(wrong, 'en-GB').map((line) => line.split(':')[0])).toEqual([
      'hanging',
      'blank',
      'alone',
      'open',
    ]);
    expect(checkCatalogue({ letter: 'One.\n\nTwo.\n', whole: '“{title}” is due.' }, 'en-GB')).toEqual([]);
  });

  it('is said of another language', () => {
    const english = { due: 'Due {when}', link: '<link>Read</link>', same: 'Same' };
    expect(checkTranslation(english, { due: 'Fällig {when}', link: '<link>Lesen</link>' }, 'de')).toEqual([]);
    expect(
      checkTranslation(english, { due: 'Fällig {wann}', new: 'Neu', link: '<b>Lesen</b>', same: '{' }, 'de'),
    ).toEqual([
      'due: nothing is filled into “wann”',
      'new: there is no such sentence',
      'link: nothing is filled into “b”',
      expect.stringMatching(/^same: /),
    ]);
  });
});
