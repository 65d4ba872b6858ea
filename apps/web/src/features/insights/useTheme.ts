import { useSyncExternalStore } from 'react';

function heard(tell: () => void): () => void {
  const dark = matchMedia('(prefers-color-scheme: dark)');
  dark.addEventListener('change', tell);
  const chosen = new MutationObserver(tell);
  chosen.observe(document.documentElement, { attributes: true });
  return () => {
    dark.removeEventListener('change', tell);
    chosen.disconnect();
  };
}

/** Changes whenever the colours of the page do: by the system, or by a choice. */
export function useTheme(): string {
  return useSyncExternalStore(
    heard,
    () =>
      `${matchMedia('(prefers-color-scheme: dark)').matches} ${document.documentElement.className} ${document.documentElement.dataset['theme'] ?? ''}`,
  );
}
