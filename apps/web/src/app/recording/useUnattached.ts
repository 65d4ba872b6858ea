import { useEffect, useState } from 'react';
import { useMe } from '../session/useMe.js';
import { countRecordings } from './recordings.js';

/**
 * How many recordings of this person are kept in this browser under keys that begin with `prefix`, and are attached to nothing yet.
 *
 * @param again counts anew when it changes
 */
export function useUnattached(prefix: string, again: unknown = null): number {
  const { id } = useMe();
  const [count, setCount] = useState(0);
  useEffect(() => {
    let gone = false;
    void countRecordings(`${id}:${prefix}`).then((found) => {
      if (!gone) setCount(found);
    });
    return () => {
      gone = true;
    };
  }, [id, prefix, again]);
  return count;
}
