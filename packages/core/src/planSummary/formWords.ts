import { say } from '../words/form.js';
import { listed } from '../words/listed.js';
import type { ItemKind, ReviewForm } from '../form/form.js';
import { formMaximum } from '../form/score.js';

const COUNTED = {
  criterion: 'criteria',
  range: 'ranges',
  checklist: 'checklists',
  prompt: 'prompts',
  pair: 'pairs',
  number: 'numbers',
  choice: 'choices',
} as const satisfies Record<ItemKind, string>;

/** Words that required items ask for, added up. */
function minimumWords({ items }: ReviewForm): number {
  return items.reduce((sum, item) => sum + ('minimumWords' in item && item.required ? item.minimumWords : 0), 0);
}

/** What a form asks, as a phrase: "2 criteria and 1 prompt, 18 points, an overall comment". */
export function formWords(form: ReviewForm): string {
  const counts = new Map<ItemKind, number>();
  for (const { kind } of form.items) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  const items = listed([...counts].map(([kind, count]) => say(COUNTED[kind], { count })));
  const minimum = minimumWords(form);
  const parts = [
    items,
    pointsWords(form),
    { required: say('overallRequired'), optional: say('overallOptional'), none: '' }[form.overall],
    form.minimumNotes > 0 ? say('leastNotes', { count: form.minimumNotes }) : '',
    minimum > 0 ? say('leastWords', { count: minimum }) : '',
    form.targetNotes > 0 ? say('hopedFor', { count: form.targetNotes }) : '',
  ];
  return listed(
    parts.filter((part) => part !== ''),
    'comma',
  );
}

function pointsWords(form: ReviewForm): string {
  const points = formMaximum(form);
  if (points !== null) return form.weighting === 'weights' ? say('byWeights') : say('points', { points });
  return form.items.some(({ kind }) => kind !== 'prompt' && kind !== 'pair') ? say('noPoints') : say('commentsOnly');
}
