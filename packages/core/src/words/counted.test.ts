import { counted } from './counted.js';

describe('counted', () => {
  it('takes the sentence for one for one alone, and puts the number into the other', () => {
    const notes = [0, 1, 2, 11, 21, 0.5].map((count) => counted(count, '1 note', '# notes'));
    expect(notes).toEqual(['0 notes', '1 note', '2 notes', '11 notes', '21 notes', '0.5 notes']);
  });

  it('leaves alone what else is in the sentence, also a sign like its own', () => {
    expect(counted(2, '1 word in “#1”', '# words in “#1”')).toBe('2 words in “#1”');
    expect(counted(3, 'goes', 'go')).toBe('go');
  });
});
