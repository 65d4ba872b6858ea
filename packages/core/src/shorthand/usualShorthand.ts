import { say } from '../words/defaults.js';

/** A short label for a mechanical remark, with the letter that leaves it. */
export interface ShorthandLabel {
  /** One letter, in lower case; none is used twice. */
  readonly key: string;
  readonly label: string;
  readonly meaning: string;
  /** Labels of one group stand together. */
  readonly group: string;
}

const GROUPS = {
  words: [
    ['d', 'takeOut'],
    ['m', 'lacking'],
    ['w', 'wording'],
    ['p', 'spelling'],
    ['g', 'grammar'],
    ['c', 'punctuation'],
  ],
  place: [
    ['o', 'order'],
    ['n', 'paragraph'],
    ['j', 'runOn'],
    ['a', 'apart'],
  ],
  look: [
    ['k', 'capital'],
    ['f', 'form'],
  ],
  content: [
    ['s', 'source'],
    ['u', 'unit'],
    ['l', 'tooLong'],
    ['x', 'saidBefore'],
  ],
} as const;

/**
 * What a new set of shorthand begins with. Grouped as the international standard on proof correction groups its marks (ISO 5776:
 * text taken out, put in and changed; where it stands and how far apart; how it looks), from memory of its contents; the labels
 * are ours, and its drawings are not used. What a proof-reader does not mark, and a reviewer does, is a group of its own.
 */
export function usualShorthand(): ShorthandLabel[] {
  return (Object.keys(GROUPS) as Array<keyof typeof GROUPS>).flatMap((group) =>
    GROUPS[group].map(([key, label]) => ({
      key,
      label: say(label),
      meaning: say(`${label}Means`),
      group: say(group),
    })),
  );
}
