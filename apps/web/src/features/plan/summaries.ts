import type { PlanView } from '@salt-circle/contracts';
import { counted, deliverableWords, listed } from '@salt-circle/core';
import type { Settings } from './settings.js';

/** One line for each folded group of settings. */
export function handInWords({ deliverables, handInAs }: Settings): string {
  return `${handInAs === 'group' ? 'As a group' : 'Each alone'}: ${listed(deliverables.map(deliverableWords))}`;
}

export function takesPartWords({ takesPart }: Settings, { students }: PlanView): string {
  const count = counted(students, '1 student', '# students');
  if (takesPart.kind === 'everyone') return `Everybody, ${count}`;
  return takesPart.kind === 'chosen' ? `Chosen sections and groups, ${count}` : `All but some, ${count}`;
}

export function whomWords(
  { whom, reviewsPerStudent: number, groupSetId, selfReview }: Settings,
  { choices }: PlanView,
): string {
  const title = choices.groupSets.find(({ id }) => id === groupSetId)?.title;
  const set = title === undefined ? 'no group set chosen' : `“${title}”`;
  if (whom !== 'partners' && !(number >= 1)) return 'Say how many reviews each student gives';
  const drafts = counted(number, '1 draft', '# drafts');
  const words = {
    anyone: `Each reviews ${drafts} by others`,
    'own-group': `Each reviews ${drafts} from the own group (${set})`,
    'other-groups': `Each reviews ${drafts} from other groups (${set})`,
    partners: `Standing partners (${set})`,
  }[whom];
  const own = {
    off: '',
    first: ', and the own draft first',
    with: ', and the own draft',
    after: ', then the own draft',
  };
  return `${words}${own[selfReview]}`;
}

export function namesWords({ names, showNamesAtRelease }: Settings): string {
  const words = {
    open: 'Open: everybody sees names',
    'both-ways': 'Hidden both ways, under aliases of shore birds and plants',
    'reviewers-only': 'Reviewers hidden from authors',
    'authors-only': 'Authors hidden from reviewers',
  }[names];
  return names !== 'open' && showNamesAtRelease ? `${words}, until release` : words;
}

export function practiceWords({ practice: { when } }: Settings): string {
  return { off: 'Off', offered: 'Offered before reviewing', first: 'Comes first: reviews open after it' }[when];
}

export function afterWords({ dates, after, remindHours }: Settings): string {
  const told = [
    ...(dates.repliesDue === null ? [] : ['answers']),
    ...(dates.revisionDue === null ? [] : ['a revision']),
    ...(after.ratings === 'off' ? [] : ['how reviews helped']),
    ...(after.reflection === null ? [] : ['a reflection']),
  ];
  const what =
    told.length === 0 ? 'Nothing is asked of authors' : listed(told).replace(/^./u, (one) => one.toUpperCase());
  return remindHours === null
    ? what
    : `${what}; reminders ${counted(remindHours, '1 hour', '# hours')} before due times`;
}
