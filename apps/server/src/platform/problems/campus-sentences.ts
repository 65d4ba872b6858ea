import type { ArrivalStop, LaunchFault } from '@salt-circle/core';

/** Why somebody whom a campus has sent does not come in. */
export type ArrivalFault =
  | LaunchFault
  | ArrivalStop
  | 'campus-unknown'
  | 'campus-paused'
  | 'asked-wrong'
  | 'state'
  | 'said-no'
  | 'no-token'
  | 'signature'
  | 'key-unknown'
  | 'keys-unread'
  | 'issuer'
  | 'audience'
  | 'expired'
  | 'too-early'
  | 'too-old'
  | 'nonce'
  | 'deployment'
  | 'token-odd'
  | 'too-many'
  | 'arrival-over'
  | 'exchange-gone';

const BACK = 'Go back to the page of your course there, and press the link again.';
const ASK_STAFF = 'Ask your instructor.';
const TELL = 'Tell whoever runs your campus what stands here.';

/** Words for each: what is the case, and what can be done. */
export const ARRIVAL_FAULTS: Readonly<Record<ArrivalFault, readonly [sentence: string, whatToDo: string]>> = {
  'campus-unknown': [
    'You were sent here by a campus that is not connected to this Salt Circle.',
    'Tell whoever runs your campus: it has to be connected first.',
  ],
  'campus-paused': ['Coming here by this campus has been paused.', 'Ask whoever runs this Salt Circle.'],
  'asked-wrong': ['The campus sent you here without saying who it is, or whom it sends.', TELL],
  state: ['This way in has been used already, has taken longer than ten minutes, or was not begun here.', BACK],
  'said-no': ['The campus did not say who you are.', 'Sign in there, then press the link again.'],
  'no-token': ['The campus sent you back without its signed statement.', TELL],
  signature: ['What the campus sent is not signed by it, so it counts for nothing.', TELL],
  'key-unknown': ['What the campus sent is signed with a key that it does not publish.', TELL],
  'keys-unread': ['The keys of the campus could not be read just now, so its signature could not be checked.', BACK],
  issuer: ['What was sent is signed in the name of another campus.', TELL],
  audience: ['What the campus sent is meant for another application.', TELL],
  expired: ['What the campus sent has run out, or its clock is behind.', BACK],
  'too-early': ['What the campus sent is not valid yet: its clock is ahead of ours.', TELL],
  'too-old': ['What the campus sent was made too long ago.', BACK],
  nonce: ['What the campus sent belongs to another way in.', BACK],
  'token-odd': ['What the campus sent is not what the standard says.', TELL],
  deployment: [
    'This part of the campus has not been allowed to send people here yet.',
    'Whoever runs this Salt Circle finds it on the page Campuses, and can allow it there.',
  ],
  version: ['The campus speaks another version of the standard than 1.3.', TELL],
  'message-unknown': ['The campus asked for something that is not done here.', TELL],
  'deployment-missing': ['The campus did not say by which of its parts you come.', TELL],
  anonymous: [
    'The campus did not say who you are, so nothing could be kept for you.',
    'Whoever runs the campus can have it pass on who people are; a number is enough.',
  ],
  'no-course': ['The campus did not say from which course you come.', 'Press the link inside of a course.'],
  'no-link': ['The campus did not say which link was pressed.', TELL],
  'no-return': ['The campus did not say where the link that you choose should go.', TELL],
  'links-not-accepted': ['The campus does not take a link at this place.', 'Choose another place of the course there.'],
  'no-role': [
    'On the campus you are in this course in a way that has no place in a peer review: neither student nor staff.',
    ASK_STAFF,
  ],
  'not-linked': [
    'Your course has not been set up here yet.',
    'Your instructor presses the same link once, and says which course it is.',
  ],
  dropped: ['Your instructor has taken you off the list of this course.', ASK_STAFF],
  taken: [
    'The place in the course that seems to be yours has been taken by another account than the one you come with.',
    'Ask your instructor: one of the two has to be taken off the list.',
  ],
  'not-staff': ['Links for a course are chosen by its instructors.', ASK_STAFF],
  'too-many': ['There were too many tries that came to nothing.', 'Wait five minutes, then try again.'],
  'arrival-over': ['This page has been left for too long, or belongs to another browser.', BACK],
  'exchange-gone': [
    'What this link leads to is not there any more, or is not open to you.',
    'Your instructor can choose another one for the link.',
  ],
};

/** What a person does, or a browser; all else is the campus's doing, and shown to whoever sees to it. */
const NOT_ITS_DOING: ReadonlySet<ArrivalFault> = new Set([
  ...(['state', 'said-no', 'nonce', 'too-many', 'arrival-over', 'campus-paused', 'exchange-gone'] as const),
  ...(['no-role', 'not-linked', 'dropped', 'taken', 'not-staff'] as const),
]);

export function isItsDoing(fault: ArrivalFault): boolean {
  return !NOT_ITS_DOING.has(fault);
}

export const isArrivalFault = (code: string): code is ArrivalFault => Object.hasOwn(ARRIVAL_FAULTS, code);
