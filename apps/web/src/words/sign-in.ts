import { sentences } from './say.js';

export const say = sentences('sign-in', {
  yourNewAddress: 'Your new address',
  yourLink: 'your link',
  confirmIt: 'Confirm it',
  changeIsMade: 'The change is made.',
  confirmed: 'Confirmed.',
  fromNowOnYouSign: 'From now on you sign in with {to}.',
  nowOpenLinkThatWas: 'Now open the link that was sent to {to} as well.',
  goToSaltCircle: 'Go to Salt Circle',
  youSignInWithAnd:
    'You sign in with {strong}, and want to use {strong2} from now on. The other address has confirmed it already.',
  youSignInWithAndWant:
    'You sign in with {strong}, and want to use {strong2} from now on. It is changed once both addresses have confirmed it.',
  saltCircle: '{title} · Salt Circle',
  newPassword: 'A new password',
  thisPage: 'this page',
  thisServerSendsNoMail: 'This server sends no mail.',
  askOneWhoRunsIt: 'Ask the one who runs it for a link to choose a new password.',
  lookIntoYourMailbox: 'Look into your mailbox.',
  ifHasAccountLinkIs:
    'If {email} has an account, a link is on its way there. It works once, within an hour. If nothing comes, look among unwanted mail; perhaps your account has another address.',
  email: 'Email',
  addressThatYouSignIn: 'The address that you sign in with.',
  sendMeLink: 'Send me a link',
  backToSigningIn: 'Back to signing in',
  mailOfDemo: 'Mail of the demo',
  haveNewLinkSent: 'Have a new link sent',
  forAllBrowsersThatAre: 'For {strong}. All browsers that are signed in with this account will be signed out.',
  setItAndSignIn: 'Set it and sign in',
  signInToSaltCircle: 'Sign in to Salt Circle',
  forgottenYourPassword: 'Forgotten your password?',
  thisIsDemoPasswordOf:
    'This is the demo: the password of everybody is <em>saltmarsh</em>, or <link>step into a person with one press</link>.',
});
