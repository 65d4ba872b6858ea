import { createRemoteJWKSet, customFetch, type JWTVerifyGetKey } from 'jose';
import type { LtiPlatform } from '../../../model/lti.js';
import type { Outward } from '../../../platform/outward/outward.js';

/** Milliseconds: for how long keys are kept, and how soon a key that is not among them has them read again. */
const KEPT = 10 * 60_000;
const AGAIN = 2_000;

/** The public keys of platforms, read from where each publishes them, through the one way out. */
export class LtiKeysets {
  readonly #sets = new Map<string, JWTVerifyGetKey>();

  constructor(private readonly outward: Outward) {}

  of({ keysUrl }: Pick<LtiPlatform, 'keysUrl'>): JWTVerifyGetKey {
    const known = this.#sets.get(keysUrl);
    if (known !== undefined) return known;
    const set = createRemoteJWKSet(new URL(keysUrl), {
      cacheMaxAge: KEPT,
      cooldownDuration: AGAIN,
      [customFetch]: async (url) => {
        const { status, text } = await this.outward.ask(url, { headers: { accept: 'application/json' } });
        return new Response(text, { status });
      },
    });
    this.#sets.set(keysUrl, set);
    return set;
  }
}
