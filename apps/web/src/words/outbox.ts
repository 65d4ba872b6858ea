import { sentences } from './say.js';

export const say = sentences('outbox', {
  mailOfDemo: 'Mail of the demo',
  mail: 'the mail',
  everybodysMail: 'Everybody’s mail',
  whatWouldBeInMailboxes:
    'What would be in the mailboxes of all people of the demo. No mail leaves it, and links work from here.',
  invitationsReceiptsAndLinksFor: 'Invitations, receipts and links for new passwords will be here.',
  heldTitle: 'Mail is on hold',
  heldDescription:
    'This server runs on restored or moved data. Nothing is sent until whoever runs it decides what happens to waiting mail.',
  sendAgainOne: 'Send to {address} again',
  sendAgainAll: '{failed, plural, one {Send 1 failed mail again} other {Send # failed mails again}}',
  invitationLinks: 'Invitation links…',
  invitationLinksTitle: 'Invitation links',
  invitationLinksDescription:
    'No mail server is set up. Send each person their own link; whoever opens it joins as that person.',
  invitationLinksLoading: 'the links',
  invitationLinksCount:
    '{links, plural, =0 {Nobody is waiting for a link.} one {1 person has not joined yet.} other {# people have not joined yet.}}',
  invitationLinksHidden:
    '{hidden, plural, one {1 more person has an account here and joins by signing in.} other {# more people have accounts here and join by signing in.}}',
  invitationLinksCopy: 'Copy all links',
  invitationLinksCsv: 'Download CSV',
  invitationLinksCopied: 'Copied',
  keptHere: 'not sent (no mail server)',
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
  noMailServerIsSet: 'No mail server is set up, so no mail is sent. You can read and copy it here.',
  invitationsReceiptsAndNoticesOf: 'Invitations, receipts and notices of moved dates will be here.',
  stateAndTime: '{state}, {when}',
  sent: 'sent',
});
