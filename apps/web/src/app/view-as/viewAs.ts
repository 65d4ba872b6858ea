/** Kept for this tab only: another tab stays in one's own view. */
const KEY = 'salt-circle.see';

/** What to send along with each request while looking with a student's eyes, or null. */
export function viewAsHeader(): string | null {
  return sessionStorage.getItem(KEY);
}

/**
 * Looks at an exchange with a student's eyes. A full load: nothing of one's own view stays in memory.
 * @param who a participant's id, or `example` with an optional `@time`
 */
export function startViewAs(exchangeId: string, who: string): void {
  sessionStorage.setItem(KEY, `${exchangeId}/${who}`);
  window.location.assign(`/exchanges/${exchangeId}`);
}

export function endViewAs(to: string): void {
  sessionStorage.removeItem(KEY);
  window.location.assign(to);
}
