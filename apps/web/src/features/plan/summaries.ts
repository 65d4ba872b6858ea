import type { PlanView } from '@salt-circle/contracts';
import { deliverableWords, language, listed } from '@salt-circle/core';
import type { Settings } from './settings.js';
import { say } from '../../words/plan.js';

/** One line for each folded group of settings. */
export function handInWords({ deliverables, handInAs }: Settings): string {
  return handInAs === 'group'
    ? say('asGroup', { deliverables: listed(deliverables.map(deliverableWords)) })
    : say('eachAlone', { deliverables: listed(deliverables.map(deliverableWords)) });
}

export function takesPartWords({ takesPart }: Settings, { students }: PlanView): string {
  const keys = { everyone: 'everybody', chosen: 'chosenSectionsAndGroups', except: 'allButSomeOf' } as const;
  return say(keys[takesPart.kind], { students });
}

export function whomWords(
  { whom, reviewsPerStudent: drafts, groupSetId, selfReview: own }: Settings,
  { choices }: PlanView,
): string {
  const title = choices.groupSets.find(({ id }) => id === groupSetId)?.title;
  const set = title === undefined ? say('noGroupSetChosen') : say('quoted', { words: title });
  if (whom !== 'partners' && !(drafts >= 1)) return say('sayHowManyReviewsEach');
  switch (whom) {
    case 'anyone':
      return say('eachReviewsByOthers', { drafts, own });
    case 'own-group':
      return say('eachReviewsFromOwnGroup', { drafts, set, own });
    case 'other-groups':
      return say('eachReviewsFromOtherGroups', { drafts, set, own });
    case 'partners':
      return say('standingPartners', { set, own });
  }
}

export function namesWords({ names, showNamesAtRelease }: Settings): string {
  const words = {
    open: say('openEverybodySeesNames'),
    'both-ways': say('hiddenBothWaysUnderAliases'),
    'reviewers-only': say('reviewersHiddenFromAuthors'),
    'authors-only': say('authorsHiddenFromReviewers'),
  }[names];
  return names !== 'open' && showNamesAtRelease ? say('untilRelease', { words }) : words;
}

export function practiceWords({ practice: { when } }: Settings): string {
  return { off: say('off'), offered: say('offeredBeforeReviewing'), first: say('comesFirstReviewsOpenAfter') }[when];
}

export function afterWords({ dates, after, remindHours }: Settings): string {
  const told = [
    ...(dates.repliesDue === null ? [] : [say('answersAsked')]),
    ...(dates.revisionDue === null ? [] : [say('revision')]),
    ...(after.ratings === 'off' ? [] : [say('howReviewsHelped')]),
    ...(after.reflection === null ? [] : [say('reflection')]),
    ...(remindHours === null ? [] : [say('reminders', { hours: remindHours })]),
  ];
  return told.length === 0 ? say('nothingIsAskedOfAuthors') : capital(listed(told));
}

function capital(words: string): string {
  return words.replace(/^./u, (one) => one.toLocaleUpperCase(language()));
}
