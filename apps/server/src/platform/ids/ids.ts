import { randomBytes, randomInt, randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';

/** Where ids and seeds come from; tests put a seeded one in its place. */
@Injectable()
export class Ids {
  /** A random UUID (version 4): says nothing of when, or for whom, it was made. */
  uuid(): string {
    return randomUUID();
  }

  /** 0 to 2^32 - 1. */
  seed(): number {
    return randomInt(0, 2 ** 32);
  }

  /** 256 random bits for a session cookie. */
  token(): string {
    return randomBytes(32).toString('base64url');
  }
}
