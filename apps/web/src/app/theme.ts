export type Theme = 'system' | 'light' | 'dark';

const KEY = 'salt-circle:theme';

export function chosenTheme(): Theme {
  const theme = document.documentElement.dataset['theme'];
  return theme === 'light' || theme === 'dark' ? theme : 'system';
}

/** Chosen for this browser; `public/theme.js` applies it again before the first paint of the next visit. */
export function chooseTheme(theme: Theme): void {
  if (theme === 'system') delete document.documentElement.dataset['theme'];
  else document.documentElement.dataset['theme'] = theme;
  try {
    localStorage.setItem(KEY, theme);
  } catch {
    // Storage is switched off: the choice holds until the page is closed.
  }
}
