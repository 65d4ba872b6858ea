import { sentences } from '@salt-circle/core';

export const say = sentences('server.revising', {
  thisDecision: 'This decision',
  yourReflection: 'Your reflection',
  hasNoAnswerYet: '“{prompt}” has no answer yet.',
  theseAreOfWordsThat:
    '{minimumWords, plural, one {These are {words} of the 1 word that is asked for. Write a little more.} other {These are {words} of the # words that are asked for. Write a little more.}}',
  textHasBeenChangedSince:
    'The text has been changed since this edit was put into it, so it cannot be taken out by itself.',
  changeWordsInYourText: 'Change the words in your text by hand.',
});
