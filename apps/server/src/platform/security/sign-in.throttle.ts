import { Injectable } from '@nestjs/common';
import { ThrottlerGuard } from '@nestjs/throttler';
import type { Request } from 'express';

/** Tries to sign in, counted per address of the network and account together. */
export const SIGN_IN_TRIES = { limit: 10, ttl: 5 * 60_000 } as const;

@Injectable()
export class SignInThrottle extends ThrottlerGuard {
  protected override getTracker(request: Request): Promise<string> {
    const body = request.body as { email?: unknown } | undefined;
    const email = typeof body?.email === 'string' ? body.email.toLowerCase() : '';
    return Promise.resolve(`${request.ip} ${email}`);
  }
}
