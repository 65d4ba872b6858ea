import type { PracticeCard, PracticeView } from '@salt-circle/contracts';
import { counted, type Closeness, type ItemCloseness, type PracticeRule, type PracticeState } from '@salt-circle/core';
import { percent } from '../../app/percent.js';
import type { MarkState } from '../../kit/index.js';

export const PRACTICE_MARKS: Readonly<Record<PracticeState, MarkState>> = {
  'not-begun': 'not-begun',
  'in-progress': 'in-progress',
  again: 'in-progress',
  done: 'done',
  'used-up': 'done',
};

/** Where somebody stands with a practice draft, in words. */
export function stateWords({ state, shares }: NonNullable<PracticeCard['own']>, { closeEnough }: PracticeRule): string {
  const last = shares.at(-1) ?? null;
  const near = last === null ? '' : `, ${percent(last)} of the items near the key`;
  switch (state) {
    case 'not-begun':
      return 'not begun';
    case 'in-progress':
      return shares.length === 0 ? 'begun, not submitted' : 'begun once more, not submitted';
    case 'again':
      return `submitted${near}; ${percent(closeEnough ?? 0)} are asked for`;
    case 'done':
      return `submitted${near}`;
    case 'used-up':
      return `submitted as often as you can${near}`;
  }
}

/** What practice is for, and what it opens. */
export function ruleWords({ rule }: Pick<PracticeView, 'rule'>): string {
  const what =
    'Review a sample draft as you will review those of others. When you submit, you see how your instructor reviewed the same one, item by item. No other student reads what you write here, and it counts for nothing.';
  const first =
    rule.when === 'first'
      ? ' The drafts of others open to you once this is done.'
      : ' You may leave it out: reviewing does not wait for it.';
  return `${what}${first}`;
}

export function triesWords({ tries }: PracticeRule, used: number): string {
  if (tries === null) return used === 0 ? 'as often as you like' : counted(used, '1 try so far', '# tries so far');
  return `${counted(used, '1 try', '# tries')} of ${tries}`;
}

/** How one item stands to the key. */
export function itemWords({ unit, apart, gives }: ItemCloseness): string {
  if (apart === null) return 'you left it open';
  if (apart === 0) return unit === 'bands' ? 'the same band as the key' : 'the same as the key';
  const side = gives === null ? '' : gives === 'more' ? ' higher than the key' : ' lower than the key';
  const away = side === '' ? ' away from the key' : side;
  switch (unit) {
    case 'levels':
      return `${counted(apart, '1 level', '# levels')}${away}`;
    case 'bands':
      return `${counted(apart, '1 band', '# bands')}${away}`;
    case 'points':
      return `${counted(apart, '1 point', '# points')}${away}`;
    case 'entries':
      return counted(apart, '1 entry answered otherwise', '# entries answered otherwise');
    case 'choice':
      return 'another choice than the key';
    case 'number':
      return `${apart}${gives === 'more' ? ' more' : ' less'} than the key`;
  }
}

/** The whole try in one sentence. */
export function resultWords({ items, share }: Closeness): string {
  if (share === null) return 'There is nothing to count here: compare the texts below with the key.';
  const near = items.filter((one) => one.near).length;
  const of = counted(items.length, '1 item', '# items');
  return near === items.length
    ? counted(
        near,
        'The one item that can be compared is near the key.',
        'All # items that can be compared are near the key.',
      )
    : `${near} of ${of} that can be compared ${counted(near, 'is', 'are')} near the key (${percent(share)}).`;
}
