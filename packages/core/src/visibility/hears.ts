import type { ExchangeFacts, Viewer } from './facts.js';

/**
 * What can have changed in an exchange, so that pages know what to ask for again. `own-draft` is news to the authors
 * of that draft, `own-review` to its reviewer, `preview` to the one who asked for it.
 */
export const TOPICS = [
  'plan',
  'drafts',
  'allocation',
  'reviews',
  'people',
  'mail',
  'grades',
  'own-draft',
  'own-review',
  'preview',
] as const;
export type Topic = (typeof TOPICS)[number];

/**
 * Whether somebody hears at once that something changed. Students hear of what is said to all of them, and of what is
 * their own: the moment at which somebody else works tells who it is.
 *
 * @param own the change is of the viewer's own doing or of the viewer's own work
 */
export function hears(viewer: Viewer, exchange: Pick<ExchangeFacts, 'published'> | null, topic: Topic, own: boolean) {
  if (viewer.role === null) return false;
  switch (topic) {
    case 'own-draft':
    case 'own-review':
    case 'preview':
      return own;
    case 'plan':
      return viewer.role !== 'student' || exchange?.published === true;
    case 'drafts':
    case 'allocation':
    case 'reviews':
    case 'people':
    case 'mail':
    case 'grades':
      return viewer.role !== 'student';
  }
}
