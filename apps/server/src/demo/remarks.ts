import type { NoteKind } from '@salt-circle/contracts';
import type { Site } from './sites.js';

/** How much somebody puts into a review. */
export type Care = 'careful' | 'usual' | 'thin';

export interface NoteTemplate {
  readonly kind: NoteKind;
  /** The passage it is about: a stretch of a sentence of the site, cut at a clause. */
  readonly passage: (site: Site) => string;
  /** Two ways of saying it, for two reviewers. */
  readonly bodies: readonly [string, string];
}

const firstClause = (sentence: string) =>
  sentence.split(/, (?:which|and|where|so|by)|;/)[0]?.replace(/\.$/, '') ?? sentence;
const wordsOf = (sentence: string, from: number, count: number) =>
  sentence
    .replace(/\.$/, '')
    .split(' ')
    .slice(from, from + count)
    .join(' ');

export const NOTES: readonly NoteTemplate[] = [
  {
    kind: 'keep',
    passage: (site) => firstClause(site.evidence),
    bodies: [
      'Numbers with how you got them. This is what makes the section convincing.',
      'You say how it was measured, in the same breath. I would quote this sentence.',
    ],
  },
  {
    kind: 'keep',
    passage: (site) => firstClause(site.cause),
    bodies: [
      'One sentence and I know the whole history. Leave it where it is.',
      'A cause with a year. Everything after it makes sense because of this.',
    ],
  },
  {
    kind: 'change',
    passage: (site) => wordsOf(site.risk, 0, 9),
    bodies: [
      'This is the real doubt, and it comes last. Say it before the costs, with how likely you think it is.',
      'Readers will think of this on page one. Answer it earlier, and say what you would do then.',
    ],
  },
  {
    kind: 'change',
    passage: (site) => firstClause(site.proposal),
    bodies: [
      'Give the size of the whole site beside this, or a reader cannot tell whether it is a lot or a little.',
      'Say in one clause what stays untouched. I only understood it when I read the method again.',
    ],
  },
  {
    kind: 'change',
    passage: (site) => wordsOf(site.reason, 0, 10),
    bodies: [
      'The reason is good, but it comes after the measure. Turn the two sentences round.',
      'This is your best argument and it hides in the middle. Begin the section with it.',
    ],
  },
  {
    kind: 'ask',
    passage: (site) => wordsOf(site.neighbours, 0, 8),
    bodies: [
      'Have you asked them yourselves, or is this hearsay? It changes how much weight it can bear.',
      'When was this, and how many of them did you talk to?',
    ],
  },
  {
    kind: 'ask',
    passage: (site) => site.steps[2],
    bodies: ['Who does this once the course is over?', 'How would you know from this whether to stop?'],
  },
  {
    kind: 'ask',
    passage: (site) => site.steps[1],
    bodies: [
      'Does this need a permit at that time of the year? Birds are nesting on most of this coast until August.',
      'Could it be done earlier, while the ground still carries a machine?',
    ],
  },
  {
    kind: 'fix',
    passage: (site) => wordsOf(site.loss, 0, 5),
    bodies: ['Long subject: start with what is lost.', 'Two things in one sentence; split it.'],
  },
  {
    kind: 'fix',
    passage: (site) => site.costs[0]?.[0] ?? '',
    bodies: ['Same words as in the method, please, so that one can find it.', 'Is this with or without tax?'],
  },
];

/** What careful reviewers propose beside: the words as they would read. */
export const PROPOSED = {
  passage: 'Any plan has to begin with them',
  text: 'Any plan has to begin with the people who live there',
  body: 'Two sentences on, nobody knows any longer who “them” is.',
} as const;

export const COMMENTS: Readonly<Record<Care, readonly string[]>> = {
  careful: [
    'The measurements are told with dates and places, so I could go and check them. What is missing is how far off they could be: two readings at the same place would show it.',
    'Most figures come from your own visits, which is strong. The claim about neighbouring sites has no source, and it carries the whole argument in the method.',
    'I believe the field data. I am less sure of the comparison with the other breach or marsh, because nothing says how alike the two places are.',
  ],
  usual: [
    'Good figures from the site, but the comparison in the method has no source.',
    'The main claim is backed by your own readings. The costs are not explained.',
    'Mostly backed. One map would say more than the second paragraph.',
  ],
  thin: ['Looks fine to me.', 'Good evidence.', 'Okay.'],
};

export const FIRST_CHANGES: Readonly<Record<Care, readonly string[]>> = {
  careful: [
    'Move the doubts up to right after the method. A councillor will ask about the neighbours first, and now has to read through the whole cost table before seeing that you thought of them. Two sentences there would earn you trust for everything that follows.',
    'Say in the first paragraph how large the site is and what share of it your measure touches. I read the method twice before I understood that most of the ground would be left as it is, which is your strongest point with the people who live there.',
    'Split the method into what is certain and what is a trial. At the moment the third step sounds as sure as the first, yet it depends on how the ground behaves after the first winter. A short sentence on when you would decide to go on would help.',
  ],
  usual: [
    'Put the summary of costs before the method, because I wanted to know the scale first. It would also let you shorten the last section, which repeats some of it.',
    'The section on what could go wrong should come earlier and say what you would do then. As it stands it reads like an excuse at the end of the text.',
    'Add a simple map at the start. I got lost between the bank, the creek and the road, and had to read the second section again to see where things lie.',
  ],
  thin: [
    'I think it is really good already, maybe just check the text again for small mistakes and make some parts of it a bit longer so that it is clearer for everybody.',
    'It is great, I liked reading it very much and I would not change a lot, perhaps only the order of the parts, or maybe the title, but it is fine.',
  ],
};

export const SOURCES: readonly string[] = [
  'A tide table for the basin would help in section 3, because the opening depends on spring tides.',
  'Name the survey you took the older figures from, with its year and the scale of its map.',
  'An aerial photograph from before the change would show the reader what was there, better than any list.',
];

export const WORKS: readonly string[] = [
  'The paragraph on how it came about works because it gives one cause, one year and one person, and so I remember it.',
  'Your figures come with the way you got them, right in the same sentence, which made me trust the rest of the text too.',
  'It ends with the people who use the place, and that gave me a reason to care about the plants in the section before.',
];

export const NEXT: readonly string[] = [
  'I would go back once more at high water and describe the same spot again, because now the text only knows the place at low tide.',
  'I would draw the map that the second section asks for, put it on top, and then cut every sentence that the map makes unnecessary.',
  'I would find out how the figures for the earlier years were measured, since the whole comparison rests on them and nothing is said about it.',
];
