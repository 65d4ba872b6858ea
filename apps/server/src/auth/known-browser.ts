import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { parseCookie } from 'cookie';
import type { Response } from 'express';
import type { Settings } from '../platform/config/settings.js';

/**
 * A browser that has signed in with an account before is known again by a signed cookie, one entry for each account. Tries of others
 * never keep it out (OWASP, "Slow Down Online Guessing Attacks with Device Cookies"). It opens nothing by itself.
 */
const NAME = 'salt_circle_known';
/** Accounts of one browser; the one used last comes first. */
const MOST = 5;
const LASTS = 365 * 24 * 3_600_000;

function cookieName({ secure }: Pick<Settings, 'secure'>): string {
  return secure ? `__Host-${NAME}` : NAME;
}

function entriesOf(header: string | undefined, settings: Settings): string[] {
  const value = header === undefined ? undefined : parseCookie(header)[cookieName(settings)];
  return (value ?? '')
    .split('.')
    .filter((entry) => /^[\w-]{22}~[\w-]{43}$/.test(entry))
    .slice(0, MOST);
}

function signature(nonce: string, account: string, { secret }: Settings): string {
  return createHmac('sha256', secret).update(`known browser\n${nonce}\n${account}`).digest('base64url');
}

function isFor(entry: string, account: string, settings: Settings): boolean {
  const [nonce = '', signed = ''] = entry.split('~');
  return timingSafeEqual(Buffer.from(signed), Buffer.from(signature(nonce, account, settings)));
}

/** @param account address, in small letters @returns what to count this browser's own tries by; null where it is not known */
export function knownBrowser(header: string | undefined, account: string, settings: Settings): string | null {
  return (
    entriesOf(header, settings)
      .find((entry) => isFor(entry, account, settings))
      ?.split('~')[0] ?? null
  );
}

/** After a sign-in. @param account address, in small letters */
export function setKnownBrowser(
  response: Response,
  header: string | undefined,
  account: string,
  settings: Settings,
): void {
  const nonce = randomBytes(16).toString('base64url');
  const others = entriesOf(header, settings).filter((entry) => !isFor(entry, account, settings));
  const value = [`${nonce}~${signature(nonce, account, settings)}`, ...others].slice(0, MOST).join('.');
  response.cookie(cookieName(settings), value, {
    ...{ httpOnly: true, sameSite: 'lax', secure: settings.secure, path: '/', maxAge: LASTS },
  });
}
