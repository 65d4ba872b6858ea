import { Injectable, createParamDecorator, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import type { CurrentUser } from './view-as.js';
import { refusal, signedOut } from '../platform/problems/sentences.js';
import { PUBLIC } from '../platform/security/public.js';
import { isOpenToViewAs } from './view-as-routes.js';
import { VIEW_AS_HEADER, ViewAsService } from './view-as.service.js';

export interface PersonRequest extends Request {
  /** Found out by the front gate. */
  person?: CurrentUser | null;
}

/** The signed-in person, as a parameter of a controller's method. */
export const Me = createParamDecorator((_: unknown, context: ExecutionContext): CurrentUser | null => {
  return context.switchToHttp().getRequest<PersonRequest>().person ?? null;
});

@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly viewAs: ViewAsService,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<PersonRequest>();
    const see = request.headers[VIEW_AS_HEADER];
    const person = request.person ?? null;
    if (person !== null && typeof see === 'string') {
      request.person = await this.viewAs.eyesOf(person, see);
      if (request.method !== 'GET') throw refusal('read-only');
      if (!isOpenToViewAs(request.path.replace(/^\/api/, ''))) throw refusal('unknown');
    }
    const open = this.reflector.getAllAndOverride<boolean | undefined>(PUBLIC, [
      context.getHandler(),
      context.getClass(),
    ]);
    if (person === null && open !== true) throw signedOut();
    return true;
  }
}
