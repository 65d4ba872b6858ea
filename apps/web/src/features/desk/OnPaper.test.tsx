import type { DeskView } from '@salt-circle/contracts';
import { EMPTY_FORM } from '@salt-circle/core';
import { screen, within } from '@testing-library/react';
import { forget, server, show } from '../../testing/pages.js';
import { OnPaper } from './OnPaper.js';

const part = {
  ...{ deliverableId: 't', deliverable: 'Report', kind: 'text', show: 'html', name: '', url: '', title: '', about: '' },
  ...{ words: 3, size: null, digest: null, copy: null, facts: {}, captions: false, original: false },
};
const note = (id: string, partId: string, start: number, body: string) => ({
  ...{ id, kind: 'ask', body, edit: null, itemId: null, revision: 1 },
  place: {
    ...{ version: 1, partId },
    selector: {
      type: 'text',
      quote: { type: 'TextQuoteSelector', exact: 'rose', prefix: '', suffix: '' },
      position: { type: 'TextPositionSelector', start, end: start + 4 },
    },
  },
});
const DESK = {
  ...{ id: 'r', author: { alias: 'Lagoon' }, reviewer: { you: true }, self: false, submittedAt: null, files: [] },
  exchange: { id: 'x', title: 'Field report', courseTitle: 'Coast', timeZone: 'UTC' },
  draft: {
    ...{ draftId: 'd', title: 'On the basin', context: '', version: 2, words: 6 },
    parts: [
      { ...part, id: 'a', html: '<p>The bed rose.</p>' },
      {
        ...part,
        id: 'b',
        html: null,
        show: 'pdf',
        kind: 'file',
        deliverableId: 'f',
        deliverable: 'Figures',
        facts: { pages: 3 },
      },
    ],
  },
  form: {
    ...EMPTY_FORM,
    items: [
      { kind: 'prompt', id: 'p', title: 'What first?', guidance: '', required: true, weight: 1, minimumWords: 0 },
    ],
  },
  answers: { p: { levelId: null, text: 'Say how much.', next: '', value: null, checks: {}, choices: [], revision: 1 } },
  notes: [note('n2', 'b', 1, 'Which gauge?'), note('n1', 'a', 8, 'By how much?')],
} as unknown as DeskView;

beforeEach(forget);

it('puts the draft with all its parts, the notes by their places, and the form on paper', async () => {
  server({});
  await show(<OnPaper desk={DESK} />);
  const paper = await screen.findByRole('article', { hidden: true });
  expect(paper.textContent).toContain('Draft by Lagoon, version 2; review by you, not submitted');
  expect(within(paper).getByText('The bed rose.')).toBeTruthy();
  expect(paper.textContent).toContain('3 pages: “Download…” has its pages with the notes on them');
  expect(
    within(paper)
      .getAllByRole('comment', { hidden: true })
      .map(({ textContent }) => textContent),
  ).toEqual([expect.stringMatching(/Report.*rose.*By how much\?$/), expect.stringMatching(/Figures.*Which gauge\?$/)]);
  expect(within(paper).getByText('Say how much.')).toBeTruthy();
});
