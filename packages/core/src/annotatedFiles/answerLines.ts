import { say } from '../words/form.js';
import { listed } from '../words/listed.js';
import { wordsBy } from '../words/wordsBy.js';
import type { Answer, Check, FormItem } from '../form/form.js';
import { bandOf, itemMaximum, itemPoints } from '../form/score.js';

const CHECKS: Readonly<Record<Check, string>> = wordsBy(say, {
  yes: 'yes',
  no: 'no',
  'cannot-tell': 'cannotTell',
});

/**
 * An answer in lines, for papers and files.
 *
 * @param item undefined for the overall comment
 * @returns empty where nothing was answered
 */
export function answerLines(item: FormItem | undefined, answer: Answer | undefined): string[] {
  if (answer === undefined) return [];
  const said = (words: string | undefined) => ((words ?? '').trim() === '' ? [] : [(words ?? '').trim()]);
  if (item === undefined) return said(answer.text);
  return item.kind === 'pair' ? pairLines(item, answer) : [...given(item, answer), ...said(answer.text)];
}

function pairLines(item: Extract<FormItem, { kind: 'pair' }>, { text = '', next = '' }: Answer): string[] {
  const line = (label: string, usual: string, words: string) =>
    words.trim() === '' ? [] : [say('labelled', { label: label === '' ? usual : label, words: words.trim() })];
  return [...line(item.worksLabel, say('whatWorks'), text), ...line(item.nextLabel, say('nextStep'), next)];
}

function given(item: FormItem, answer: Answer): string[] {
  const points = itemPoints(item, answer);
  const score = points === null ? '' : say('scoreOf', { points, of: itemMaximum(item) ?? 0 });
  const joined = (words: string) =>
    score === '' ? words : words === '' ? score : say('labelled', { label: score, words });
  switch (item.kind) {
    case 'criterion': {
      const level = item.levels.find(({ id }) => id === answer.levelId);
      return level === undefined ? [] : [joined(level.title)];
    }
    case 'range': {
      const band = points === null ? null : bandOf(item, points);
      return points === null ? [] : [joined(band?.title ?? '')];
    }
    case 'checklist': {
      const lines = item.entries.flatMap(({ id, text }) => {
        const check = answer.checks?.[id];
        return check === undefined ? [] : [say('labelled', { label: CHECKS[check], words: text })];
      });
      return score === '' ? lines : [score, ...lines];
    }
    case 'number':
      return answer.value == null ? [] : [`${answer.value} ${item.unit}`.trim()];
    case 'choice': {
      const chosen = item.options.filter(({ id }) => answer.choices?.includes(id)).map(({ title }) => title);
      return chosen.length === 0 ? [] : [listed(chosen, 'comma')];
    }
    default:
      return [];
  }
}
