import type { FormItem } from '@salt-circle/core';

const level = (id: string, points: number | null, title: string, description = '') => ({
  id,
  title,
  description,
  points,
});

export const PROPOSAL_FORM: readonly FormItem[] = [
  {
    kind: 'criterion',
    id: 'argument',
    title: 'The argument',
    guidance: 'Can you say in one sentence what is to be done, and why there?',
    required: true,
    comment: 'optional',
    levels: [
      level('none', 0, 'No claim', 'It describes, but asks for nothing.'),
      level('thin', 3, 'Claim, reasons thin', 'You would have to guess why.'),
      level('reasons', 6, 'Claim with reasons', 'The reasons lead to the proposal.'),
      level('weighs', 8, 'Also weighs another way', 'It says why this and not something else.'),
    ],
  },
  {
    kind: 'criterion',
    id: 'evidence',
    title: 'Evidence from the site',
    guidance: 'Does every claim about the site rest on a measurement, a map or a source?',
    required: true,
    comment: 'required',
    levels: [
      level('only', 1, 'Claims only'),
      level('some', 3, 'Some claims backed'),
      level('most', 5, 'Most claims backed'),
      level('all', 6, 'All backed, limits stated'),
    ],
  },
  {
    kind: 'criterion',
    id: 'reader',
    title: 'Order and language',
    guidance: 'Think of a parish councillor who has ten minutes.',
    required: true,
    comment: 'optional',
    levels: [
      level('lost', 0, 'Hard to follow'),
      level('works', 2, 'Works with effort'),
      level('clear', 4, 'Clear at first reading'),
    ],
  },
  {
    kind: 'prompt',
    id: 'first',
    title: 'What should the author change first?',
    guidance: 'One thing, where it is, and what it would do for the reader.',
    required: true,
    minimumWords: 25,
  },
  {
    kind: 'prompt',
    id: 'source',
    title: 'Which source or measurement is missing?',
    guidance: 'Name one, or say what kind would help and where.',
    required: false,
    minimumWords: 10,
  },
];

export const DESCRIPTION_FORM: readonly FormItem[] = [
  {
    kind: 'criterion',
    id: 'seeing',
    title: 'Seeing the place',
    guidance: 'Could you draw a rough map after reading?',
    required: true,
    comment: 'optional',
    levels: [level('no', 0, 'No'), level('partly', 2, 'Partly'), level('yes', 4, 'Yes')],
  },
  {
    kind: 'criterion',
    id: 'facts',
    title: 'Facts and sources',
    guidance: 'How were the figures got?',
    required: true,
    comment: 'optional',
    levels: [level('none', 0, 'Not told'), level('some', 2, 'Told for some'), level('all', 4, 'Told for all')],
  },
  {
    kind: 'prompt',
    id: 'works',
    title: 'What works, and why does it?',
    guidance: 'Point to a place in the text.',
    required: true,
    minimumWords: 15,
  },
  {
    kind: 'prompt',
    id: 'next',
    title: 'What would you do next with this text?',
    guidance: 'As if it were yours and you had one more evening.',
    required: true,
    minimumWords: 20,
  },
];
