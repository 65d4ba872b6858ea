import { sentences } from './say.js';

export const say = sentences('outbox', {
  mailOfDemo: 'Mail of the demo',
  mail: 'the mail',
  everybodysMail: 'Everybody’s mail',
  whatWouldBeInMailboxes:
    'What would be in the mailboxes of all people of the demo. No mail leaves it, and links work from here.',
  invitationsReceiptsAndLinksFor: 'Invitations, receipts and links for new passwords will be here.',
  keptHere: 'kept here',
  waitsToBeSent: 'waits to be sent',
  notSent: 'not sent',
  notSentOverBefore: 'not sent: over before',
  mails: '{total, plural, one {1 mail} other {# mails}}',
  noMailYet: 'No mail yet.',
  toPeople: '{more, plural, one {to 1 person: {statesOf}, {when}} other {to # people: {statesOf}, {when}}}',
  newestOf: 'The newest {mails} of {total}.',
  mailLabel: 'Mail',
  chooseMailToReadIt: 'Choose a mail to read it.',
  to: 'to {to}',
  mailServerAnswered: 'The mail server answered: {error}',
  outbox: 'the outbox',
  outboxLabel: 'Outbox',
  mailGoesOutByMail: 'Mail goes out by the mail server that is set, and a copy stays here.',
  noMailServerIsSet:
    'No mail server is set, so mail is kept here and goes nowhere. Whoever runs the server can set one.',
  invitationsReceiptsAndNoticesOf: 'Invitations, receipts and notices of moved dates will be here.',
  stateAndTime: '{state}, {when}',
  sent: 'sent',
});
