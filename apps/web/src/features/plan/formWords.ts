import { formMaximum, type ItemKind, type ReviewForm } from '@salt-circle/core';
import { listed } from '../../app/settingWords.js';

const COUNTED: Readonly<Record<ItemKind, readonly [string, string]>> = {
  criterion: ['criterion', 'criteria'],
  range: ['range', 'ranges'],
  checklist: ['checklist', 'checklists'],
  prompt: ['prompt', 'prompts'],
  pair: ['pair of what works and next step', 'pairs of what works and next step'],
  number: ['number', 'numbers'],
  choice: ['choice', 'choices'],
};

/** What a form asks, as a phrase: "2 criteria and 1 prompt, 18 points, an overall comment". */
export function formWords(form: ReviewForm): string {
  const counts = new Map<ItemKind, number>();
  for (const { kind } of form.items) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  const items = listed([...counts].map(([kind, count]) => `${count} ${COUNTED[kind][count === 1 ? 0 : 1]}`));
  const points = formMaximum(form);
  const parts = [
    items,
    points === null
      ? 'comments only, no points'
      : form.weighting === 'weights'
        ? 'a score in percent, by weights'
        : `${points} points`,
    form.overall === 'required'
      ? 'an overall comment'
      : form.overall === 'optional'
        ? 'an overall comment if they like'
        : '',
    form.minimumNotes > 0
      ? `at least ${form.minimumNotes} ${form.minimumNotes === 1 ? 'note' : 'notes'} on the draft`
      : '',
    form.targetNotes > 0 ? `${form.targetNotes} notes hoped for` : '',
  ];
  return parts.filter((part) => part !== '').join(', ');
}
