import { sentences } from '@salt-circle/core';

export const say = sentences('server.security', {
  thisRequestDidNotCome: 'This request did not come from a page of Salt Circle, so it was refused.',
  openSaltCircleItselfAnd: 'Open Salt Circle itself and do it there.',
  thereWereTooManyTries: 'There were too many tries that came to nothing.',
  waitMinutesThenTryAgain:
    'Wait {minutes, plural, one {a minute} other {# minutes}}, then try again. A link for a new password works at once.',
  tooShort: 'This password has {length, plural, one {# character} other {# characters}}; it needs {least}.',
  tooCommon: 'This password is one of those that are tried first, because many people use it.',
  ownWords: 'This password is made of your own name or address.',
  chooseAnother: 'Choose another one: a few words in a row that belong to nothing of yours do well.',
  manySigningIn: 'Very many people are signing in at this moment.',
  waitTenSeconds: 'Wait ten seconds, then try again.',
});
