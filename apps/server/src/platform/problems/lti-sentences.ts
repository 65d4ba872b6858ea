import type { ArrivalStop, LaunchFault } from '@salt-circle/core';
import { say } from '../../words/problems.js';

/** Why somebody whom a platform has sent does not come in. */
export type ArrivalFault =
  | LaunchFault
  | ArrivalStop
  | 'platform-unknown'
  | 'platform-paused'
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
const tellPlatform = () => say('tellWhoeverRunsYourPlatform');

/** Words for each: what is the case, and what can be done. */
export const ARRIVAL_FAULTS: Readonly<Record<ArrivalFault, () => readonly [sentence: string, whatToDo: string]>> = {
  'platform-unknown': () => [say('youWereSentHereBy'), say('tellWhoeverRunsYourPlatformIt')],
  'platform-paused': () => [say('comingHereByThisPlatform'), say('askWhoeverRunsThisSalt')],
  'asked-wrong': () => [say('platformSentYouHereWithout'), tellPlatform()],
  'address-odd': () => [say('platformAddressInvalid'), say('askWhoeverRunsThisSalt')],
  state: () => [say('stateUsed'), goBack()],
  'said-no': () => [say('platformDidNotSayWho'), say('signInThereThenPress')],
  'no-token': () => [say('platformSentYouBackWithout'), tellPlatform()],
  signature: () => [say('whatPlatformSentIsNot'), tellPlatform()],
  'key-unknown': () => [say('whatPlatformSentIsSigned'), tellPlatform()],
  'keys-unread': () => [say('keysOfPlatformCouldNot'), goBack()],
  issuer: () => [say('otherIssuer'), tellPlatform()],
  audience: () => [say('otherAudience'), tellPlatform()],
  expired: () => [say('whatPlatformSentHasRun'), goBack()],
  'too-early': () => [say('whatPlatformSentIsNotValid'), tellPlatform()],
  'too-old': () => [say('whatPlatformSentWasMade'), goBack()],
  nonce: () => [say('whatPlatformSentBelongsTo'), goBack()],
  'token-odd': () => [say('whatPlatformSentIsNotWhat'), tellPlatform()],
  deployment: () => [say('thisPartOfPlatformHas'), say('whoeverRunsThisSaltCircle')],
  version: () => [say('platformSpeaksAnotherVersionOf'), tellPlatform()],
  'message-unknown': () => [say('platformAskedForSomethingThat'), tellPlatform()],
  'deployment-missing': () => [say('platformDidNotSayBy'), tellPlatform()],
  anonymous: () => [say('platformDidNotSayWhoYou'), say('whoeverRunsPlatformCanHave')],
  'no-course': () => [say('platformDidNotSayFrom'), say('pressLinkInsideOfCourse')],
  'no-link': () => [say('platformDidNotSayWhich'), tellPlatform()],
  'no-return': () => [say('platformDidNotSayWhere'), tellPlatform()],
  'links-not-accepted': () => [say('platformDoesNotTakeLink'), say('chooseAnotherPlaceOfCourse')],
  'no-role': () => [say('onPlatformYouAreIn'), askStaff()],
  'not-linked': () => [say('yourCourseHasNotBeen'), say('yourInstructorPressesSameLink')],
  dropped: () => [say('yourInstructorHasTakenYou'), askStaff()],
  taken: () => [say('placeInCourseThatSeems'), say('askYourInstructorOneOf')],
  'not-staff': () => [say('linksForCourseAreChosen'), askStaff()],
  'too-many': () => [say('thereWereTooManyTries'), say('waitFiveMinutesThenTry')],
  'arrival-over': () => [say('thisPageHasBeenLeft'), goBack()],
  'exchange-gone': () => [say('whatThisLinkLeadsTo'), say('yourInstructorCanChooseAnother')],
};

/** What a person does, or a browser; all else is the platform's doing, and shown to whoever sees to it. */
const NOT_ITS_DOING: ReadonlySet<ArrivalFault> = new Set([
  ...(['state', 'said-no', 'nonce', 'too-many', 'arrival-over', 'platform-paused', 'exchange-gone'] as const),
  ...(['no-role', 'not-linked', 'dropped', 'taken', 'not-staff'] as const),
]);

export function isItsDoing(fault: ArrivalFault): boolean {
  return !NOT_ITS_DOING.has(fault);
}

export const isArrivalFault = (code: string): code is ArrivalFault => Object.hasOwn(ARRIVAL_FAULTS, code);
