import { useState } from 'react';

/**
 * Text that is sent by a press: kept in this browser until it is, so that a closed page, a lost connection or a time that has passed takes
 * nothing of it.
 *
 * @returns the text, what changes it, and what lets it go once it has been sent
 */
export function useKeptText(key: string): readonly [string, (text: string) => void, () => void] {
  const at = `salt-circle-kept:${key}`;
  const [text, setText] = useState(() => localStorage.getItem(at) ?? '');
  const change = (next: string) => {
    setText(next);
    try {
      if (next === '') localStorage.removeItem(at);
      else localStorage.setItem(at, next);
    } catch (error) {
      // A full store keeps no more; what is typed is on the page all the same.
      if (!(error instanceof DOMException)) throw error;
    }
  };
  return [text, change, () => change('')];
}
