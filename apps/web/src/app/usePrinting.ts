import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';

/** Whether the page is being printed: on paper there is nothing to press, so all that tabs hold is to be there. */
export function usePrinting(): boolean {
  const [printing, setPrinting] = useState(false);
  useEffect(() => {
    // What is printed is what stands on the page when this is over.
    const begin = () => flushSync(() => setPrinting(true));
    const end = () => setPrinting(false);
    window.addEventListener('beforeprint', begin);
    window.addEventListener('afterprint', end);
    return () => {
      window.removeEventListener('beforeprint', begin);
      window.removeEventListener('afterprint', end);
    };
  }, []);
  return printing;
}
