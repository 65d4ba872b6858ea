import { sentences } from './say.js';

export const say = sentences('join', {
  placeForYou: 'A place for you',
  goToSaltCircle: 'Go to Salt Circle',
  yourInvitation: 'your invitation',
  places: 'Places',
  hasGivenYouPlaceAs: '{by} has added you as {role}. The course lists you as {name}.',
  youAreSignedInAs: 'You are signed in as {strong}.',
  invitationWentToYouCan: 'The invitation went to {invited}; you can take it with this account all the same.',
  takePlaces: '{placeIds, plural, one {Take 1 place} other {Take # places}}',
  takePlace: 'Take the place',
  useAnotherAccount: 'Use another account',
  youHaveAccountWithThen: 'You have an account with {email}. Then the place can be taken with it.',
  signInWithAccountThat: 'Sign in with the account that you have. Then the place can be taken with it.',
  forgottenYourPassword: 'Forgotten your password?',
  iHaveNoAccount: 'I have no account',
  makeAccountFromThenOn: 'Make an account. From then on you sign in with {strong}.',
  yourName: 'Your name',
  takeYourPlace: 'Join the course',
  iHaveAccountAlready: 'I have an account already',
});
