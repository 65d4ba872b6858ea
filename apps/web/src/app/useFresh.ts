import { useState } from 'react';

/**
 * The data of a query once it has been fetched since this component appeared. Pages that take typed text
 * start from it: an older copy from the cache would show, and then save, what has been overtaken.
 */
export function useFresh<T>({
  data,
  fulfilledTimeStamp,
}: {
  readonly data?: T;
  readonly fulfilledTimeStamp?: number;
}): T | undefined {
  const [since] = useState(() => Date.now());
  return fulfilledTimeStamp !== undefined && fulfilledTimeStamp >= since ? data : undefined;
}
