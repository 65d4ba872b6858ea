import { sentences } from '@salt-circle/core';

export const say = sentences('server.access', {
  passwordNeeded: 'Enter your password to confirm that it is you.',
  enterPassword: 'Enter the password that you sign in with.',
  passwordWrong: 'This is not your password.',
  signInNeeded: 'You have been signed in for more than ten minutes, and this account has no password to confirm.',
  comeAgainFromPlatform: 'Open Salt Circle from your learning platform again, then try again.',
  hasNoSuchLoadPage: '“{title}” does not have what was chosen. Load the page again.',
  thisChecklistIsAnsweredWith: 'This checklist is answered with yes or no. Load the page again.',
  attachment: 'Attachment {number}{ending}',
  example: 'Example',
  exampleStudent: 'An example student',
  thisAccessTokenIsNot: 'This access token is not known, or has ended.',
  makeAnotherOneUnderYour: 'Make another one under “Your account”.',
  accessTokenDoesNotOpen: 'The access token “{name}” does not open this: it is for grades, insights and results.',
  accessTokenDoesNotOpenThis:
    'The access token “{name}” does not open this: it is for what the staff of a course read there.',
  accessTokenReadsAndChanges: 'An access token reads, and changes nothing.',
  signInToDoIt: 'Sign in to do it, or take a token that opens it.',
  draft: 'Draft',
});
