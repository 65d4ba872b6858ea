import { useEffect, useState } from 'react';
import { saveQueue } from '../../app/store.js';

/**
 * Text that is typed here and may also change on the server: by somebody of the group, in another tab, or because a
 * name in it was hidden. What is newer there shows here, unless something typed here is still on its way.
 *
 * @returns the text, a way to change it, and the revision of the text that is shown. What is saved must name this one
 * and not the newest: otherwise a text that nobody here has seen would be overwritten without a word.
 */
export function useServerText<T extends object>(
  key: string,
  server: T,
  revision: number,
): [text: T, change: (next: T) => void, base: number] {
  const [shown, setShown] = useState(() => ({
    text: { ...server, ...(saveQueue.pending(key)?.body as Partial<T> | undefined) },
    revision,
  }));
  useEffect(() => {
    if (revision > saveQueue.revision(key, shown.revision) && saveQueue.pending(key) === null) {
      setShown({ text: server, revision });
    }
  }, [key, revision, server, shown.revision]);
  return [shown.text, (text) => setShown({ text, revision: shown.revision }), shown.revision];
}
