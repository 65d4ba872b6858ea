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

/** Hands the token of a session to the browser, out of reach of scripts. */
export function setSessionCookie(response: Response, token: string, settings: Settings): void {
  response.cookie(cookieName(settings), token, { ...options(settings), maxAge: 60 * 24 * 3_600_000 });
}

/** Takes it back. */
export function clearSessionCookie(response: Response, settings: Settings): void {
  response.clearCookie(cookieName(settings), options(settings));
}

/** What the browser calls itself. */
export function browserOf(request: Request): string {
  return request.headers['user-agent'] ?? '';
}
