import { counted } from '../words/counted.js';
import type { ItemKind, ReviewForm } from '../form/form.js';
import { formMaximum } from '../form/score.js';
import { listed } from './settingWords.js';

const COUNTED: Readonly<Record<ItemKind, readonly [string, string]>> = {
  criterion: ['criterion', 'criteria'],
  range: ['range', 'ranges'],
  checklist: ['checklist', 'checklists'],
  prompt: ['prompt', 'prompts'],
  pair: ['pair of what works and next step', 'pairs of what works and next step'],
  number: ['number', 'numbers'],
  choice: ['choice', 'choices'],
};

/** Words that required items ask for, added up. */
function minimumWords({ items }: ReviewForm): number {
  return items.reduce((sum, item) => sum + ('minimumWords' in item && item.required ? item.minimumWords : 0), 0);
}

/** What a form asks, as a phrase: "2 criteria and 1 prompt, 18 points, an overall comment". */
export function formWords(form: ReviewForm): string {
  const counts = new Map<ItemKind, number>();
  for (const { kind } of form.items) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  const items = listed([...counts].map(([kind, count]) => `${count} ${COUNTED[kind][count === 1 ? 0 : 1]}`));
  const points = formMaximum(form);
  const minimum = minimumWords(form);
  const parts = [
    items,
    points === null
      ? form.items.some(({ kind }) => kind !== 'prompt' && kind !== 'pair')
        ? 'no points'
        : 'comments only, no points'
      : form.weighting === 'weights'
        ? 'a score in percent, by weights'
        : `${points} points`,
    form.overall === 'required'
      ? 'an overall comment'
      : form.overall === 'optional'
        ? 'an overall comment if they like'
        : '',
    form.minimumNotes > 0 ? `at least ${counted(form.minimumNotes, '1 note', '# notes')} on the draft` : '',
    minimum > 0 ? `at least ${minimum} words in all` : '',
    form.targetNotes > 0 ? `${form.targetNotes} notes hoped for` : '',
  ];
  return parts.filter((part) => part !== '').join(', ');
}
