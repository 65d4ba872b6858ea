import type { CookieOptions, Response } from 'express';
import type { Settings } from '../platform/config/settings.js';
import { COOKIE } from './session.service.js';

function options(settings: Settings): CookieOptions {
  return { httpOnly: true, sameSite: 'lax', secure: settings.behindProxy, path: '/' };
}

/** Hands the token of a session to the browser, out of reach of scripts. */
export function setSessionCookie(response: Response, token: string, settings: Settings): void {
  response.cookie(COOKIE, token, { ...options(settings), maxAge: 60 * 24 * 3_600_000 });
}

/** Takes it back. */
export function clearSessionCookie(response: Response, settings: Settings): void {
  response.clearCookie(COOKIE, options(settings));
}
