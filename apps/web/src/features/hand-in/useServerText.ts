import { useEffect, useRef, useState } from 'react';
import { saveQueue } from '../../app/store.js';

/**
 * Text that is typed here and may also change on the server: by somebody of the group, in another tab, or because a
 * name in it was hidden. What is newer there shows here, unless something typed here is still on its way.
 */
export function useServerText<T extends object>(key: string, server: T, revision: number): [T, (next: T) => void] {
  const [text, setText] = useState<T>(() => ({
    ...server,
    ...(saveQueue.pending(key)?.body as Partial<T> | undefined),
  }));
  const seen = useRef(revision);
  useEffect(() => {
    const known = saveQueue.revision(key, seen.current);
    if (revision > known && saveQueue.pending(key) === null) setText(server);
    // From here on this revision is known, so another look at the same changes nothing.
    seen.current = Math.max(seen.current, revision);
  }, [key, revision, server]);
  return [text, setText];
}
