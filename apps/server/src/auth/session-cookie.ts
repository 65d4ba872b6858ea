import { parseCookie } from 'cookie';
import type { CookieOptions, Request, Response } from 'express';
import type { Settings } from '../platform/config/settings.js';

const NAME = 'salt_circle';

/** Where the connection is secure, browsers let nobody but this very host set it. */
export function cookieName({ secure }: Pick<Settings, 'secure'>): string {
  return secure ? `__Host-${NAME}` : NAME;
}

/** What the cookie holds, if there is one. */
export function tokenIn(header: string | undefined, settings: Settings): string | null {
  return header === undefined ? null : parseCookie(header)[cookieName(settings)] || null;
}

function options(settings: Settings): CookieOptions {
  return { httpOnly: true, sameSite: 'lax', secure: settings.secure, path: '/' };
}

/**
 * Inside a page of another site browsers send no cookie but one that says so; it is kept apart for each such site, and needs TLS. What
 * others could ask for with it is refused by its three locks all the same (`cross-site.guard.ts`).
 */
function framed(settings: Settings): CookieOptions {
  return settings.secure ? { sameSite: 'none', partitioned: true } : {};
}

/** Hands the token of a session to the browser, out of reach of scripts. @param inside a page of another site */
export function setSessionCookie(response: Response, token: string, settings: Settings, inside = false): void {
  const where = inside ? framed(settings) : {};
  response.cookie(cookieName(settings), token, { ...options(settings), ...where, maxAge: 60 * 24 * 3_600_000 });
}

const ARRIVING = 'salt_circle_arriving';

function arrivingName({ secure }: Pick<Settings, 'secure'>): string {
  return secure ? `__Host-${ARRIVING}` : ARRIVING;
}

/** By which a browser is known again that a platform has been asked about. It comes back by a form of the platform, from another site. */
export function setArriving(response: Response, token: string, settings: Settings): void {
  response.cookie(arrivingName(settings), token, { ...options(settings), ...framed(settings), maxAge: 3_600_000 });
}

export function arrivingIn(header: string | undefined, settings: Settings): string | null {
  return header === undefined ? null : parseCookie(header)[arrivingName(settings)] || null;
}

/** Takes it back. */
export function clearSessionCookie(response: Response, settings: Settings): void {
  response.clearCookie(cookieName(settings), options(settings));
  // One that was set inside another site's page is another one.
  if (settings.secure) response.clearCookie(cookieName(settings), { ...options(settings), ...framed(settings) });
}

/** What the browser calls itself. */
export function browserOf(request: Request): string {
  return request.headers['user-agent'] ?? '';
}
