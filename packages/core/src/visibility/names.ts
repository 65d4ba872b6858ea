import type { ExchangeFacts, Viewer } from './facts.js';

/** `both`: name and alias side by side, for staff. `self`: the viewer's own. */
export type NameShown = 'name' | 'alias' | 'both' | 'self';

/** How a participant of an exchange is named to the viewer. */
export function nameShown(viewer: Viewer, exchange: Pick<ExchangeFacts, 'names'>, isViewer: boolean): NameShown {
  if (isViewer) return 'self';
  if (viewer.role === 'instructor' || viewer.role === 'assistant') return exchange.names === 'open' ? 'name' : 'both';
  return exchange.names === 'open' ? 'name' : 'alias';
}
