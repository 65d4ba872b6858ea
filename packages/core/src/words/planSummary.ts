import { sentences } from './say.js';

/** A plan in plain words. */
export const say = sentences('core.account', {
  handIn:
    '{students, plural, one {One student{which, select, chosen { of {named}} except { (all but {named})} other {}} hands in {what}} other {# students{which, select, chosen { of {named}} except { (all but {named})} other {}} hand in {what}}}{when, select, set { by {due}} other {; when, is not settled yet}}.',
  handInTogether:
    '{students, plural, one {One student{which, select, chosen { of {named}} except { (all but {named})} other {}} hands in} other {# students{which, select, chosen { of {named}} except { (all but {named})} other {}} hand in}} together, {groups, select, chosen {in their groups of “{title}”} other {in groups}}, one hand-in for each: {what}{when, select, set { by {due}} other {; when, is not settled yet}}.',
  nothingYet: 'nothing yet',
  typedDraft: 'a typed draft',
  deliverable:
    '{title} ({families, select, some {file: {kinds}} other {{kind}}}{required, select, yes {} other {; optional}})',
  untitled: 'Untitled',
  quoted: '“{words}”',
  writingOpens: 'Writing opens {opens}.',
  lateUntil: 'Late work is accepted until {until}.',
  lateLosesNothing: 'No late penalty.',
  lateLoses:
    'Late work loses {unit, select, percent {{amount, plural, one {# percentage point} other {# percentage points}}} other {{amount, plural, one {# point} other {# points}}}}{per, select, day { for each day or part of a day} other { once}}{capped, select, percent {, at most {cap, plural, one {# percentage point} other {# percentage points}}} points {, at most {cap, plural, one {# point} other {# points}}} other {}}{grace, plural, =0 {} one {, after a #-minute grace period} other {, after a #-minute grace period}}.',
  practiceOffered:
    'Students can review practice drafts first, and see your own review beside theirs{tries, plural, =0 {, as often as they like} =1 {, once} other {, up to # times}}.',
  practiceFirst:
    'Before the drafts of others open to them, students review practice drafts and see your own review beside theirs{tries, plural, =0 {, as often as they like} =1 {, once} other {, up to # times}}.',
  practiceUntilNear:
    'Before the drafts of others open to them, students review practice drafts and see your own review beside theirs{tries, plural, =0 {, as often as they like: until {percent}% of the items are close to your review} =1 {, once: until {percent}% of the items are close to your review, or until no attempt is left} other {, up to # times: until {percent}% of the items are close to your review, or until no attempt is left}}.',
  selfFirst: 'Everybody reviews their own draft first, with the same form; the drafts of others open after that.',
  selfWith: 'Everybody also reviews their own draft, with the same form.',
  selfAfter:
    'Everybody reviews their own draft as well, with the same form, once the reviews of the others are submitted.',
  selfDue: 'That review is due {due}.',
  reviewing:
    '{span, select, nightly {Until {until}, } dated {From {from} to {until}, } other {Then }}{who, select, alone {each student alone} handedIn {everyone who handed in} other {everyone, handed in or not,}} {whom, select, others {{drafts, plural, one {reviews 1 draft by a classmate} other {reviews # drafts by classmates}}} groups {{drafts, plural, one {reviews 1 draft by other groups} other {reviews # drafts by other groups}}} ownGroup {{drafts, plural, one {reviews 1 draft from their own group in {set}} other {reviews # drafts from their own group in {set}}}} otherGroups {{drafts, plural, one {reviews 1 draft from other groups of {set}} other {reviews # drafts from other groups of {set}}}} other {reviews the drafts of all others in their own group of {set}}}{end, select, nightly {, as drafts come in} fair {, and gets about as many reviews} other {}}.',
  setNotChosen: 'a group set that is not chosen yet',
  allocatedNightly: 'Every night, whoever has handed in is given drafts to review.',
  allocatedAtDue: 'Drafts are allocated automatically at the draft due date.',
  allocatedAt: 'Drafts are allocated automatically on {at}.',
  allocatedOnCommand: 'Drafts are allocated when you start it; reviewers see nothing until then.',
  formAsksNothing: 'The review form asks for nothing yet.',
  form: 'The form: {parts}.',
  namesOpen: 'Authors and reviewers see each other’s names.',
  namesHidden:
    'Nobody sees a name but you and your assistants: authors and reviewers know each other by an alias that stays the same.',
  reviewersHidden: 'Authors do not learn who reviewed them; reviewers see whose draft they read.',
  authorsHidden: 'Reviewers do not learn whose draft they read; authors see who reviewed them.',
  namesAtRelease: 'At release, names are shown.',
  reviewsFinal: 'A review is final once it is submitted; you can reopen one, with a reason.',
  feedbackEach: 'Authors read each review as soon as it is submitted.',
  feedbackWhenDue: 'Authors read their feedback as soon as reviews are due, {release}.',
  feedbackOn: 'Authors read their feedback on {release}; until then you can look at the reviews.',
  feedbackAfterCheck: 'You can check the reviews until {check}; then authors read their feedback.',
  feedbackLater: 'You can check the reviews until {check}; authors read their feedback on {release}.',
  revision: 'Authors hand in a revision by {revision}.',
  replies: 'Authors and reviewers answer each other by {replies}.',
  repliesAndRevision: 'Authors and reviewers answer each other by {replies}; a revision is due by {revision}.',
  ratingsForStaff: 'Authors say how each review helped them; only you and your assistants read that.',
  ratingsAtOnce: 'Authors say how each review helped them, and its reviewer reads that at once.',
  ratingsAtEnd: 'Authors say how each review helped them; its reviewer reads that once answers and revisions are over.',
  reflection:
    'Authors think their feedback over and answer {questions, plural, one {a question} other {# questions}}{words, plural, =0 {} one {, in at least one word} other {, in at least # words}}.',
  othersReviews: 'After release, reviewers read the other reviews of the drafts that they reviewed.',
  revisionShown: 'Reviewers see what became of the drafts that they reviewed.',
  grade: 'The grade: {parts}.',
  gradePart: '{part} {share}%',
  pdf: 'PDF',
  wordProcessor: 'word processor document',
  picture: 'picture',
  sound: 'sound',
  video: 'video',
  plainText: 'plain text or Markdown',
  typedText: 'typed text',
  file: 'file',
  link: 'link',
  recording: 'recording',
  handingIn: 'handing in',
  reviewsDone: 'reviews done',
  formCompleted: 'form completed',
  notesMade: 'notes made',
  peerScore: 'score from peers',
  reviewQuality: 'quality of reviewing',
  repliesPart: 'replies',
  reflectionPart: 'reflection',
  instructorMark: 'instructor’s mark',
  lateInGrace:
    '{long, select, minutes {{count, plural, one {1 minute late} other {# minutes late}}} hours {{count} hours late} other {{count} days late}}, within the grace period: no penalty.',
  lateForNothing:
    '{long, select, minutes {{count, plural, one {1 minute late} other {# minutes late}}} hours {{count} hours late} other {{count} days late}}: no penalty.',
  lateWithLoss:
    '{long, select, minutes {{count, plural, one {1 minute late} other {# minutes late}}} hours {{count} hours late} other {{count} days late}}: loses {unit, select, percent {{loses, plural, one {# percentage point} other {# percentage points}}} other {{loses, plural, one {# point} other {# points}}}}.',
});
