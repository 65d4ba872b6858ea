/** A short label for a mechanical remark, with the letter that leaves it. */
export interface ShorthandLabel {
  /** One letter, in lower case; none is used twice. */
  readonly key: string;
  readonly label: string;
  readonly meaning: string;
  /** Labels of one group stand together. */
  readonly group: string;
}

const label = (group: string, key: string, words: string, meaning: string): ShorthandLabel => ({
  key,
  label: words,
  meaning,
  group,
});

/**
 * What a new set of shorthand begins with. Grouped as the international standard on proof correction groups its marks (ISO 5776:
 * text taken out, put in and changed; where it stands and how far apart; how it looks), from memory of its contents; the labels
 * are ours, and its drawings are not used. What a proof-reader does not mark, and a reviewer does, is a group of its own.
 */
export const USUAL_SHORTHAND: readonly ShorthandLabel[] = [
  label('Words', 'd', 'Take out', 'This can go without loss.'),
  label('Words', 'm', 'Missing', 'A word or a part of the sentence is missing here.'),
  label('Words', 'w', 'Wording', 'Another word would say it better, or is meant.'),
  label('Words', 'p', 'Spelling', 'Misspelt.'),
  label('Words', 'g', 'Grammar', 'The parts of the sentence do not go together: number, case or tense.'),
  label('Words', 'c', 'Punctuation', 'A sign is missing, too many, or another one.'),
  label('Place', 'o', 'Order', 'This comes too early or too late.'),
  label('Place', 'n', 'New paragraph', 'A new thought begins here.'),
  label('Place', 'j', 'Run on', 'This belongs to the paragraph before.'),
  label('Place', 'a', 'Apart', 'A space is missing, or one too many.'),
  label('Look', 'k', 'Capital', 'A capital letter, or none.'),
  label('Look', 'f', 'Form', 'Italic, bold, raised or set otherwise than elsewhere.'),
  label('Content', 's', 'Source?', 'This needs a source, or a better one.'),
  label('Content', 'u', 'Unit', 'A unit is missing, or the wrong one.'),
  label('Content', 'l', 'Too long', 'Two sentences, or half as many words.'),
  label('Content', 'x', 'Said before', 'This stands elsewhere already.'),
];
