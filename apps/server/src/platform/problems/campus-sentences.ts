import type { ArrivalStop, LaunchFault } from '@salt-circle/core';
import { say } from '../../words/problems.js';

/** Why somebody whom a campus has sent does not come in. */
export type ArrivalFault =
  | LaunchFault
  | ArrivalStop
  | 'campus-unknown'
  | 'campus-paused'
  | 'address-odd'
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

const goBack = () => say('goBackToPageOf');
const askStaff = () => say('askYourInstructor');
const tellCampus = () => say('tellWhoeverRunsYourCampus');

/** Words for each: what is the case, and what can be done. */
export const ARRIVAL_FAULTS: Readonly<Record<ArrivalFault, () => readonly [sentence: string, whatToDo: string]>> = {
  'campus-unknown': () => [say('youWereSentHereBy'), say('tellWhoeverRunsYourCampusIt')],
  'campus-paused': () => [say('comingHereByThisCampus'), say('askWhoeverRunsThisSalt')],
  'asked-wrong': () => [say('campusSentYouHereWithout'), tellCampus()],
  'address-odd': () => [say('platformAddressInvalid'), say('askWhoeverRunsThisSalt')],
  state: () => [say('stateUsed'), goBack()],
  'said-no': () => [say('campusDidNotSayWho'), say('signInThereThenPress')],
  'no-token': () => [say('campusSentYouBackWithout'), tellCampus()],
  signature: () => [say('whatCampusSentIsNot'), tellCampus()],
  'key-unknown': () => [say('whatCampusSentIsSigned'), tellCampus()],
  'keys-unread': () => [say('keysOfCampusCouldNot'), goBack()],
  issuer: () => [say('otherIssuer'), tellCampus()],
  audience: () => [say('otherAudience'), tellCampus()],
  expired: () => [say('whatCampusSentHasRun'), goBack()],
  'too-early': () => [say('whatCampusSentIsNotValid'), tellCampus()],
  'too-old': () => [say('whatCampusSentWasMade'), goBack()],
  nonce: () => [say('whatCampusSentBelongsTo'), goBack()],
  'token-odd': () => [say('whatCampusSentIsNotWhat'), tellCampus()],
  deployment: () => [say('thisPartOfCampusHas'), say('whoeverRunsThisSaltCircle')],
  version: () => [say('campusSpeaksAnotherVersionOf'), tellCampus()],
  'message-unknown': () => [say('campusAskedForSomethingThat'), tellCampus()],
  'deployment-missing': () => [say('campusDidNotSayBy'), tellCampus()],
  anonymous: () => [say('campusDidNotSayWhoYou'), say('whoeverRunsCampusCanHave')],
  'no-course': () => [say('campusDidNotSayFrom'), say('pressLinkInsideOfCourse')],
  'no-link': () => [say('campusDidNotSayWhich'), tellCampus()],
  'no-return': () => [say('campusDidNotSayWhere'), tellCampus()],
  'links-not-accepted': () => [say('campusDoesNotTakeLink'), say('chooseAnotherPlaceOfCourse')],
  'no-role': () => [say('onCampusYouAreIn'), askStaff()],
  'not-linked': () => [say('yourCourseHasNotBeen'), say('yourInstructorPressesSameLink')],
  dropped: () => [say('yourInstructorHasTakenYou'), askStaff()],
  taken: () => [say('placeInCourseThatSeems'), say('askYourInstructorOneOf')],
  'not-staff': () => [say('linksForCourseAreChosen'), askStaff()],
  'too-many': () => [say('thereWereTooManyTries'), say('waitFiveMinutesThenTry')],
  'arrival-over': () => [say('thisPageHasBeenLeft'), goBack()],
  'exchange-gone': () => [say('whatThisLinkLeadsTo'), say('yourInstructorCanChooseAnother')],
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
