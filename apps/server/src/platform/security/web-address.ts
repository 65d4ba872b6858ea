import { LIMITS, WEB_ADDRESS } from '@salt-circle/contracts';

/** Parses an address that somebody else has given. Returns null for what may not be asked, opened or named in a header. */
export function webAddress(text: string): URL | null {
  return text.length <= LIMITS.url && WEB_ADDRESS.test(text) && URL.canParse(text) ? new URL(text) : null;
}
