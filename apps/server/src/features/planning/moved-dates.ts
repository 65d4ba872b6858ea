import { DATE_ORDER, type ExchangeDates } from '@salt-circle/core';
import type { MovedDate } from '../../platform/events/domain-event.js';
import { isoOrNull } from '../../platform/wire/instants.js';

/** Which dates differ, with what they were. */
export function movedDates(from: ExchangeDates, to: ExchangeDates): MovedDate[] {
  return DATE_ORDER.filter((date) => from[date] !== to[date]).map((date) => ({
    date,
    from: isoOrNull(from[date]),
    to: isoOrNull(to[date]),
  }));
}
