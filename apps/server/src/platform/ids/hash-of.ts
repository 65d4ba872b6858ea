import { createHash } from 'node:crypto';

/** Fingerprint of a token that lets somebody in (SHA-256, base64url): the token itself is stored nowhere but in its mail. */
export function hashOf(token: string): string {
  return createHash('sha256').update(token).digest('base64url');
}
