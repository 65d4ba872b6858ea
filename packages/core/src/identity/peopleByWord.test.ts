import fc from 'fast-check';
import { findIdentities } from './findIdentities.js';
import { PeopleByWord } from './peopleByWord.js';

const PEOPLE = [
  { name: 'Adjoa Mensah', email: 'a.mensah@example.org', campusId: 'AM-104' },
  { name: 'Kiss, Bálint', email: 'balint@example.org', campusId: null },
  { name: 'Øyvind Strand', email: 'ost@example.org', campusId: null },
  { name: 'Chen Li', email: 'li9@example.org', campusId: '7' },
];

describe('the people of whom a text has a word', () => {
  it('are those that a search of all would find, but for initials', () => {
    const index = new PeopleByWord(PEOPLE);
    const words = fc.constantFrom(
      ...['Adjoa', 'mensah', 'Balint', 'KISS', 'Strand', 'Oyvind', 'li9', 'Chen', 'Li', 'AM-104'],
      ...['the', 'tide', 'rose', 'by', 'author', 'and', '.', ','],
    );
    fc.assert(
      fc.property(fc.array(words, { maxLength: 12 }), (given) => {
        const text = given.join(' ');
        const few = index.in(text);
        const names = (people: typeof PEOPLE, finds: ReturnType<typeof findIdentities>) =>
          finds.map(({ start, end, person }) => `${start} ${end} ${people[person]?.name}`);
        const sorted = PEOPLE.filter((person) => few.includes(person));
        expect(names(sorted, findIdentities(text, sorted))).toEqual(names(PEOPLE, findIdentities(text, PEOPLE)));
      }),
      { seed: 2026, numRuns: 300 },
    );
    expect(index.in('Nobody of them was there, nor was A. M.')).toEqual([]);
  });
});
