import type { TakesPartView } from '@salt-circle/contracts';
import type { Setup, TakesPart } from '@salt-circle/core';
import type { Exchange } from '../model/exchange.js';

/** Of all fields, those that the kind of the rule looks at. */
export function takesPartRule({ kind, sections, groupIds, studentIds }: TakesPartView): TakesPart {
  if (kind === 'everyone') return { kind };
  return kind === 'chosen' ? { kind, sections, groupIds } : { kind, sections, groupIds, studentIds };
}

/** What contradictions of a plan are looked for in. */
export function setupOf(exchange: Pick<Exchange, Exclude<keyof Setup, 'takesPart'> | 'takesPart'>): Setup {
  const { handInAs, whom, groupSetId, reviewsPerStudent, selfReview, ownHandInFirst, names } = exchange;
  const takesPart = takesPartRule(exchange.takesPart);
  return { takesPart, handInAs, whom, groupSetId, reviewsPerStudent, selfReview, ownHandInFirst, names };
}
