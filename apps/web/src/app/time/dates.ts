import type { DatesView } from '@salt-circle/contracts';
import { DATE_ORDER, type DateName, type ExchangeDates } from '@salt-circle/core';

/** From the wire to the core: ISO texts to milliseconds. */
export function toDates(dates: DatesView): ExchangeDates {
  const at = (text: string | null) => (text === null ? null : Date.parse(text));
  return Object.fromEntries(DATE_ORDER.map((name) => [name, at(dates[name])])) as Record<DateName, number | null>;
}
