import type { ExchangeFacts, NamesPolicy, Viewer } from './facts.js';

/** `both`: name and alias side by side, for staff. `self`: the viewer's own. */
export type NameShown = 'name' | 'alias' | 'both' | 'self';

/** As what a participant appears: as the author of a draft, or as the reviewer of one. */
export type Part = 'author' | 'reviewer';

/** How a participant of an exchange is named to the viewer. */
export function nameShown(
  viewer: Viewer,
  exchange: Pick<ExchangeFacts, 'names' | 'showNamesAtRelease' | 'may'>,
  part: Part,
  isViewer: boolean,
): NameShown {
  if (isViewer) return 'self';
  const { names } = exchange;
  if (viewer.role === 'instructor' || viewer.role === 'assistant') return names === 'open' ? 'name' : 'both';
  if (exchange.showNamesAtRelease && exchange.may.released) return 'name';
  return hidesNames(names, part) ? 'alias' : 'name';
}

/** Whether an exchange keeps the names of authors, or of reviewers, from the other side until release. */
export function hidesNames(names: NamesPolicy, part: Part): boolean {
  return names === 'both-ways' || names === (part === 'author' ? 'authors-only' : 'reviewers-only');
}
