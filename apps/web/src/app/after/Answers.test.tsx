import type { FeedbackView } from '@salt-circle/contracts';
import { EMPTY_FORM, type CriterionItem, type FormItem } from '@salt-circle/core';
import { render, screen, within } from '@testing-library/react';
import { ByCriterion, ByReviewer } from './Answers.js';

type Given = FeedbackView['reviews'][number];

const answer = (levelId: string | null, text: string) => ({
  levelId,
  text,
  next: '',
  value: null,
  checks: {},
  choices: [],
  revision: 1,
});
const FEEDBACK: FeedbackView = {
  drafts: [{ title: 'T', words: 9, version: 1, draftId: 'd', context: '', parts: [] }],
  form: {
    ...EMPTY_FORM,
    overall: 'none',
    items: [
      {
        kind: 'criterion',
        id: 'c',
        title: 'Evidence',
        guidance: 'Does every claim rest on something?',
        required: true,
        weight: 1,
        comment: 'optional',
        levels: [
          { id: 'some', title: 'Some backed', description: 'You would have to guess.', points: 3 },
          { id: 'all', title: 'All backed', description: '', points: 6 },
        ],
      },
      { kind: 'prompt', id: 'p', title: 'What first?', guidance: '', required: false, weight: 1, minimumWords: 0 },
    ],
  },
  reviews: [
    {
      id: 'r1',
      self: false,
      version: 1,
      reviewer: { alias: 'Heron' },
      answers: { c: answer('some', ''), p: answer(null, 'Say how large it is.') },
      notes: [],
      files: [],
    },
    {
      id: 'r2',
      self: false,
      version: 1,
      reviewer: { alias: 'Tern' },
      answers: { c: answer('all', 'Dated readings.') },
      notes: [],
      files: [],
    },
  ],
  missing: 0,
};

describe('feedback by reviewer', () => {
  it('gives each reviewer’s points out of the most there are, and every answer', () => {
    render(<ByReviewer feedback={FEEDBACK} timeZone="UTC" asks={false} />);
    const [heron, tern] = screen
      .getAllByRole('heading', { level: 3 })
      .map((heading) => heading.parentElement as HTMLElement);
    expect(within(heron as HTMLElement).getByRole('heading').textContent).toBe('Heron3 of 6 points');
    expect(within(heron as HTMLElement).getByText('Say how large it is.')).toBeTruthy();
    expect((heron as HTMLElement).textContent).toContain('3 of 6Some backed: You would have to guess.');
    expect(within(tern as HTMLElement).getByText('Dated readings.')).toBeTruthy();
    // Left out is said, not left blank.
    expect(within(tern as HTMLElement).getByText('not answered')).toBeTruthy();
  });

  it('speaks of no points where the form has none', () => {
    const form = { ...FEEDBACK.form, items: FEEDBACK.form.items.slice(1) };
    const { container } = render(<ByReviewer feedback={{ ...FEEDBACK, form }} timeZone="UTC" asks={false} />);
    expect(container.textContent).not.toMatch(/points/);
  });
});

describe('feedback by criterion', () => {
  it('puts the answers of all reviewers side by side under each question', () => {
    render(<ByCriterion feedback={FEEDBACK} />);
    const evidence = screen.getByRole('heading', { name: 'Evidence' }).parentElement as HTMLElement;
    expect(
      within(evidence)
        .getAllByRole('term')
        .map(({ textContent }) => textContent),
    ).toEqual(['Heron', 'Tern']);
    expect(within(evidence).getByText('Does every claim rest on something?')).toBeTruthy();
    const first = screen.getByRole('heading', { name: 'What first?' }).parentElement as HTMLElement;
    expect(
      within(first)
        .getAllByRole('definition')
        .map(({ textContent }) => textContent),
    ).toEqual(['Say how large it is.', 'not answered']);
  });

  it('asks nobody what was not asked: staff have a form of their own, with other levels under the same name', () => {
    const [heron, ...rest] = FEEDBACK.reviews as [Given, ...Given[]];
    const [evidence, ...others] = FEEDBACK.form.items as [CriterionItem, ...FormItem[]];
    const items = [{ ...evidence, levels: evidence.levels.slice(1) }, ...others];
    const form = { ...FEEDBACK.form, items };
    render(<ByCriterion feedback={{ ...FEEDBACK, reviews: [{ ...heron, form }, ...rest] }} />);
    const asked = screen.getAllByRole('heading').map((heading) => [
      heading.textContent,
      within(heading.parentElement as HTMLElement)
        .getAllByRole('term')
        .map(({ textContent }) => textContent),
    ]);
    expect(asked).toEqual([
      ['Evidence', ['Tern']],
      ['What first?', ['Heron', 'Tern']],
      ['Evidence', ['Heron']],
    ]);
  });
});
