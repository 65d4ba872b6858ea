import { Injectable, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { ProblemError } from '../problems/problem-error.js';
import { FROM_ELSEWHERE } from './public.js';
import { say } from '../../words/security.js';

/** Another site cannot set it without asking first (a preflight), and nobody answers that here. */
export const OWN_HEADER = 'x-salt-circle';

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Refuses changes that another site asks for in the name of a signed-in person. Three locks, because browsers
 * differ: the header of our own, the browser's word on where the request comes from, and the origin.
 */
@Injectable()
export class CrossSiteGuard implements CanActivate {
  constructor(private readonly reflector: Reflector) {}

  canActivate(context: ExecutionContext): boolean {
    if (this.reflector.get<boolean | undefined>(FROM_ELSEWHERE, context.getHandler()) === true) return true;
    const { method, headers } = context.switchToHttp().getRequest<Request>();
    if (SAFE.has(method)) return true;
    const site = headers['sec-fetch-site'];
    const { origin, host } = headers;
    const foreign =
      headers[OWN_HEADER] !== '1' ||
      (site !== undefined && site !== 'same-origin') ||
      (origin !== undefined && hostOf(origin) !== host);
    if (!foreign) return true;
    throw new ProblemError({
      code: 'cross-site',
      sentence: say('thisRequestDidNotCome'),
      whatToDo: say('openSaltCircleItselfAnd'),
    });
  }
}

function hostOf(origin: string): string | null {
  return URL.canParse(origin) ? new URL(origin).host : null;
}
