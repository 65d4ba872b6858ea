// Before the first paint, so that a dark page never flashes light. Not inline: the content policy allows no inline script.
try {
  const chosen = localStorage.getItem('salt-circle:theme');
  if (chosen === 'light' || chosen === 'dark') document.documentElement.dataset.theme = chosen;
} catch {
  // Storage can be switched off; the system's theme is used then.
}
