import { sentences } from './say.js';

export const say = sentences('inbox', {
  inbox: 'Inbox',
  yourInbox: 'your inbox',
  eachTime: 'each time',
  onceDayWhatIHave: 'once a day, what I have not read',
  whatHappenedUnread: 'What happened <span>{unread, plural, one {1 unread} other {# unread}}</span>',
  markAllAsRead: 'Mark all as read',
  nothingHasHappenedYet: 'Nothing has happened yet.',
  reviewsToWriteFeedbackAnswers: 'Reviews to write, feedback, answers and reminders come here.',
  mailTellsMeOfThese: 'Mail tells me of these',
  read: 'read',
  notRead: 'not read',
  notReceiptsAndSignIn: 'not; receipts and sign-in links come all the same',
});
