import { routePatterns } from './route-patterns.js';

/**
 * What somebody of the teaching team can open while viewing an exchange as one of its students, below `/api`: the pages of that exchange, and
 * what the frame of a page asks for. All else is the student's own (account, tokens, calendar, inbox, other courses), and closed. Which
 * exchange it is, and what of it the student may see, the permissions decide.
 */
export const VIEW_AS_ROUTES = [
  '/session',
  '/changes',
  '/today',
  '/courses/:courseId',
  '/exchanges/:exchangeId',
  '/exchanges/:exchangeId/form',
  '/exchanges/:exchangeId/draft',
  '/exchanges/:exchangeId/draft/check',
  '/exchanges/:exchangeId/draft/versions/:number',
  '/exchanges/:exchangeId/drafts/:draftId',
  '/exchanges/:exchangeId/drafts/:draftId/revision',
  '/exchanges/:exchangeId/drafts/:draftId/versions/:number',
  '/exchanges/:exchangeId/drafts/:draftId/pictures/:digest',
  '/exchanges/:exchangeId/drafts/:draftId/parts/:partId/original',
  '/exchanges/:exchangeId/drafts/:draftId/parts/:partId/copy',
  '/exchanges/:exchangeId/drafts/:draftId/parts/:partId/captions',
  '/exchanges/:exchangeId/reviews',
  '/exchanges/:exchangeId/practice',
  '/exchanges/:exchangeId/feedback',
  '/exchanges/:exchangeId/feedback/draft.docx',
  '/exchanges/:exchangeId/feedback/notes.jsonld',
  '/exchanges/:exchangeId/feedback/parts/:partId/notes.pdf',
  '/exchanges/:exchangeId/decisions',
  '/exchanges/:exchangeId/reflection',
  '/exchanges/:exchangeId/grade',
  '/exchanges/:exchangeId/attachments/:attachmentId',
  '/exchanges/:exchangeId/attachments/:attachmentId/original',
  '/exchanges/:exchangeId/attachments/:attachmentId/copy',
  '/exchanges/:exchangeId/attachments/:attachmentId/pictures/:digest',
  '/practice/:practiceId/result',
  '/reviews/:reviewId',
  '/reviews/:reviewId/earlier',
  '/reviews/:reviewId/others',
  '/reviews/:reviewId/replies',
  '/reviews/:reviewId/look-requests',
  '/reviews/:reviewId/draft.docx',
  '/reviews/:reviewId/notes.jsonld',
  '/reviews/:reviewId/parts/:partId/notes.pdf',
  '/reviews/:reviewId/files/:fileId',
  '/reviews/:reviewId/files/:fileId/copy',
  '/reviews/:reviewId/files/:fileId/pictures/:digest',
] as const;

export const isOpenToViewAs = routePatterns(VIEW_AS_ROUTES);
