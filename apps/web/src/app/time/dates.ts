import type { DatesView } from '@salt-circle/contracts';
import type { ExchangeDates } from '@salt-circle/core';

/** From the wire to the core: ISO texts to milliseconds. */
export function toDates(dates: DatesView): ExchangeDates {
  const at = (text: string | null) => (text === null ? null : Date.parse(text));
  return {
    draftsOpen: at(dates.draftsOpen),
    draftsDue: at(dates.draftsDue),
    reviewsOpen: at(dates.reviewsOpen),
    reviewsDue: at(dates.reviewsDue),
    release: at(dates.release),
  };
}
