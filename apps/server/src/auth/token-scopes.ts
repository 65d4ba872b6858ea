import type { TokenScope } from '@salt-circle/contracts';
import { routePatterns } from './route-patterns.js';

/** Grades, insights and results, and what is needed to find them. */
const GRADES = [
  '/openapi.json',
  '/courses',
  '/courses/:courseId',
  '/courses/:courseId/insights',
  '/courses/:courseId/results.zip',
  '/exchanges/:exchangeId',
  '/exchanges/:exchangeId/grades',
  '/exchanges/:exchangeId/grades.csv',
  '/exchanges/:exchangeId/grades.xlsx',
  '/exchanges/:exchangeId/insights',
] as const;

/**
 * What a token opens, route by route, below `/api`; all else is closed. Not among them is what lets somebody in: mails with their links,
 * invitations, the account and its sessions.
 */
export const OPENS: Readonly<Record<TokenScope, readonly string[]>> = {
  grades: GRADES,
  read: [
    ...GRADES,
    '/courses/:courseId/people',
    '/courses/:courseId/group-sets',
    '/courses/:courseId/library',
    '/courses/:courseId/library/forms/:id',
    '/courses/:courseId/library/forms/:id/files/:format',
    '/courses/:courseId/library/shorthand/:id',
    '/exchanges/:exchangeId/plan',
    '/exchanges/:exchangeId/form',
    '/exchanges/:exchangeId/progress',
    '/exchanges/:exchangeId/allocation',
    '/exchanges/:exchangeId/archive',
    '/exchanges/:exchangeId/queue',
    '/exchanges/:exchangeId/release',
    '/exchanges/:exchangeId/after',
    '/exchanges/:exchangeId/reflections',
    '/exchanges/:exchangeId/activity',
    '/exchanges/:exchangeId/rounds',
    '/exchanges/:exchangeId/notes.jsonld',
    '/exchanges/:exchangeId/participants/:participantId/story',
    '/exchanges/:exchangeId/drafts/:draftId',
    '/exchanges/:exchangeId/drafts/:draftId/versions/:number',
    '/exchanges/:exchangeId/drafts/:draftId/revision',
    '/exchanges/:exchangeId/drafts/:draftId/feedback',
    '/exchanges/:exchangeId/drafts/:draftId/feedback/draft.docx',
    '/exchanges/:exchangeId/drafts/:draftId/feedback/notes.jsonld',
    '/exchanges/:exchangeId/drafts/:draftId/feedback/parts/:partId/notes.pdf',
    '/exchanges/:exchangeId/drafts/:draftId/parts/:partId/original',
    '/exchanges/:exchangeId/drafts/:draftId/parts/:partId/copy',
    '/reviews/:reviewId',
    '/reviews/:reviewId/check',
    '/reviews/:reviewId/replies',
    '/reviews/:reviewId/draft.docx',
    '/reviews/:reviewId/notes.jsonld',
    '/reviews/:reviewId/parts/:partId/notes.pdf',
  ],
};

const OPENED: Readonly<Record<TokenScope, (path: string) => boolean>> = {
  grades: routePatterns(OPENS.grades),
  read: routePatterns(OPENS.read),
};

/** @param path below `/api`, as it was asked for */
export function opens(scope: TokenScope, path: string): boolean {
  return OPENED[scope](path);
}
