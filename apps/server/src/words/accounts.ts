import { sentences } from '@salt-circle/core';

export const say = sentences('server.accounts', {
  browser: 'A browser',
  on: '{browser} on {os}',
  thisIsYourAddressAlready: 'This is your address already.',
  thisAddressHasAccountBy: 'This address has an account by now.',
  newPasswordForSaltCircle: 'A new password for Salt Circle',
  somebodyProbablyYouHasAsked:
    'Somebody, probably you, has asked for a new password for your account on Salt Circle.\n\nChoose it here:\n{secret}\n\nThe link can be used once, within an hour. If it was not you, leave it: nothing changes.\n',
  yourPasswordForSaltCircle: 'Your password for Salt Circle has been changed',
  passwordOfYourAccountOn:
    'The password of your account on Salt Circle has been changed, and all other browsers have been signed out.\n\nIf it was not you, choose a new one at once:\n{publicUrl}/forgotten\n',
  yourNewAddressForSalt: 'Your new address for Salt Circle',
  somebodyProbablyYouWantsTo:
    'Somebody, probably you, wants to sign in to Salt Circle with {to} instead of {from} from now on. Both addresses have been sent a link; the change is made when both have been used.\n\nConfirm it here:\n{secret}\n\nThe link can be used once, within a day. If it was not you, leave it, and change your password.\n',
  thisServerSendsNoMail: 'This server sends no mail, so a new address cannot be confirmed.',
  goOnWithOneThat: 'Go on with the one that you have.',
  thisLinkHasBeenUsed: 'This link has been used, or has run out: it can be used once, within a day.',
  askForChangeAgainUnder: 'Ask for the change again, under your account.',
  giveAnotherOne: 'Give another one.',
  nobodyHasTakenThisPlace: 'Nobody has taken this place yet, so there is no password to choose anew.',
  invitePersonInstead: 'Invite the person instead.',
  thisServerSendsNoMailSo: 'This server sends no mail, so a link cannot be sent.',
  askOneWhoRunsIt: 'Ask the one who runs it: there is a command that makes a link.',
  thisLinkHasBeenUsedOr: 'This link has been used, or has run out: it can be used once, within an hour.',
  haveNewOneSentTo: 'Have a new one sent to you.',
  noAccountHasThisEmail: 'No account has this email address with this password.',
  checkBothIfYouForgot: 'Check both. If you forgot the password, have a link for a new one sent to you.',
  youHaveAccessTokensWhich: 'You have {most} access tokens, which is as many as there can be.',
  takeOneBackThatYou: 'Take one back that you do not need any more.',
});
