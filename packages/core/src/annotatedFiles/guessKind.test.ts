import { guessKind } from './guessKind.js';

/** Sentences of our own, as people write them beside drafts. */
const SENTENCES: ReadonlyArray<readonly [words: string, kind: string, body?: string]> = [
  ['Who counted them?', 'ask'],
  ['Is this (really) the same “gauge”?)', 'ask'],
  ['Nice, I like how this begins.', 'keep'],
  ['This works well for me.', 'keep'],
  ['Good point, but where is it from', 'change'],
  ['A clear sentence; add the year.', 'change'],
  ['Typo', 'fix'],
  ['there is a comma missing', 'fix'],
  ['You could say this in one sentence.', 'change'],
  ['Das verstehe ich nicht.', 'change'],
  ['Keep: the first line', 'keep', 'the first line'],
  ['ASK – since when', 'ask', 'since when'],
  ['Fix', 'fix', ''],
  // Not called by the kind, but begun with the word.
  ['Keep in mind that geese migrate.', 'change'],
  ['Changes of level are told twice.', 'change'],
];

describe('what a note is for, guessed from its words', () => {
  it.each(SENTENCES.map(([words, kind, body = words]) => [words, kind, body] as const))('%s', (words, kind, body) => {
    expect(guessKind(words)).toEqual({ kind, body });
  });

  it('is a change or a fix where a change goes with it, whatever it says', () => {
    expect(guessKind('', true)).toEqual({ kind: 'fix', body: '' });
    expect(guessKind('Is this better?', true)).toEqual({ kind: 'change', body: 'Is this better?' });
    expect(guessKind('Keep: this', true)).toEqual({ kind: 'change', body: 'Keep: this' });
    expect(guessKind('Fix: spelled out', true)).toEqual({ kind: 'fix', body: 'spelled out' });
  });
});
