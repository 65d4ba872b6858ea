import { Injectable } from '@nestjs/common';
import { LtiPlatform } from '../../../model/lti.js';
import { Clock } from '../../../platform/clock/clock.js';
import { Database } from '../../../platform/database/database.js';
import { Outward, OutwardError, type Answered, type Asked } from '../../../platform/outward/outward.js';
import { LtiFault, outwardFault, refusedWith } from './lti-fault.js';
import { LtiKeys } from './keys.service.js';
import { say } from '../../../words/lti.js';

/** Seconds for which a statement of ours counts, and before its end that a token is asked for anew. */
const STATEMENT = 120;
const SPARE = 60;
/** A container with more pages than this goes round in a circle, or is none. */
const MOST_PAGES = 400;
/** How stale `answeredAt` may get before a call pays for writing it. */
const ANSWERED_STEP = 60_000;
/** Milliseconds after which the same fault is put on record again. */
const RECORDED_STEP = 3_600_000;

interface Token {
  readonly value: string;
  /** Milliseconds. */
  readonly until: number;
}

interface Call extends Asked {
  readonly scopes: readonly string[];
  readonly url: string;
}

/** Asks platforms in our name: a token for what is wanted, then the service itself. */
@Injectable()
export class LtiClient {
  readonly #tokens = new Map<string, Token>();
  readonly #answeredAt = new Map<string, number>();
  /** What was put on record last: what goes on is no news, page by page and try by try. */
  readonly #recorded = new Map<string, { readonly fault: string; readonly at: number }>();

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly outward: Outward,
    private readonly keys: LtiKeys,
  ) {}

  /** @throws LtiFault, which is noted with the platform too */
  async ask(platform: LtiPlatform, call: Call): Promise<Answered> {
    return this.#noting(platform, async () => {
      const answer = await this.#withToken(platform, call);
      await this.#note(platform, null);
      return answer;
    });
  }

  /** Like {@link ask}, for JSON. */
  async json(platform: LtiPlatform, call: Call): Promise<unknown> {
    const { text } = await this.ask(platform, call);
    return this.#noting(platform, () => parsed(platform, text));
  }

  async #noting<T>(platform: LtiPlatform, work: () => T | Promise<T>): Promise<T> {
    try {
      return await work();
    } catch (error) {
      if (error instanceof LtiFault) await this.#note(platform, error.sentence);
      throw error;
    }
  }

  /**
   * All pages of a container, one after the other: each names the next (RFC 8288, `rel="next"`), at the same place as the first one: a token
   * goes nowhere else.
   * @throws LtiFault; what came so far counts for nothing
   */
  async *pages(
    platform: LtiPlatform,
    scopes: readonly string[],
    first: string,
    accept: string,
  ): AsyncGenerator<unknown> {
    const seen = new Set<string>();
    let url: string | null = withLimit(first);
    while (url !== null) {
      seen.add(url);
      const { text, headers }: Answered = await this.ask(platform, { scopes, url, headers: { accept } });
      const page = await this.#noting(platform, () => parsed(platform, text));
      const next: string | null = nextIn(headers.get('link'), url);
      yield page;
      await this.#noting(platform, () => assertGoesOn(platform, next, first, seen));
      url = next;
    }
  }

  /** What a platform takes back or changes is known for as long as a token lasts. */
  forget(platformId: string): void {
    for (const key of this.#tokens.keys()) if (key.startsWith(`${platformId} `)) this.#tokens.delete(key);
  }

  async #withToken(platform: LtiPlatform, call: Call): Promise<Answered> {
    const first = await this.#send(platform, call, await this.#token(platform, call.scopes));
    // It may have ended on the way, or been taken back: once more with a new one.
    const answer = first.status === 401 ? await this.#renewed(platform, call) : first;
    if (answer.status >= 400) throw refusedWith(platform.name, answer.status, answer.text);
    return answer;
  }

  #renewed(platform: LtiPlatform, call: Call): Promise<Answered> {
    this.#tokens.delete(keyOf(platform, call.scopes));
    return this.#token(platform, call.scopes).then((token) => this.#send(platform, call, token));
  }

  #send(platform: LtiPlatform, { url, scopes: _, headers, ...asked }: Call, token: string): Promise<Answered> {
    return this.#out(platform, url, { ...asked, headers: { ...headers, authorization: `Bearer ${token}` } });
  }

  async #out(platform: LtiPlatform, url: string, asked: Asked): Promise<Answered> {
    try {
      return await this.outward.ask(url, asked);
    } catch (error) {
      if (error instanceof OutwardError) throw outwardFault(platform.name, error.host, error.fault);
      throw error;
    }
  }

  /** A statement signed by us in exchange for a token (OAuth 2.0, RFC 6749 section 4.4; RFC 7523 section 2.2). */
  async #token(platform: LtiPlatform, scopes: readonly string[]): Promise<string> {
    const key = keyOf(platform, scopes);
    const known = this.#tokens.get(key);
    if (known !== undefined && known.until > this.clock.real()) return known.value;
    const { clientId } = platform;
    const audience = platform.tokenAudience ?? platform.tokenUrl;
    const statement = await this.keys.sign({ iss: clientId, sub: clientId, aud: audience }, STATEMENT);
    const answer = await this.#out(platform, platform.tokenUrl, {
      method: 'POST',
      headers: { 'content-type': 'application/x-www-form-urlencoded', accept: 'application/json' },
      body: new URLSearchParams({
        grant_type: 'client_credentials',
        client_assertion_type: 'urn:ietf:params:oauth:client-assertion-type:jwt-bearer',
        client_assertion: statement,
        scope: scopes.join(' '),
      }).toString(),
    });
    if (answer.status >= 400) {
      const { kind, sentence } = refusedWith(platform.name, answer.status, answer.text);
      // Nothing was asked for yet, so nothing can have been done.
      throw new LtiFault(kind, sentence);
    }
    const body = parsed(platform, answer.text) as { access_token?: unknown; expires_in?: unknown } | null;
    const value = body?.access_token;
    if (typeof value !== 'string' || value === '')
      throw new LtiFault('odd', say('gaveNoToken', { name: platform.name }));
    const seconds = typeof body?.expires_in === 'number' ? body.expires_in : 0;
    this.#tokens.set(key, { value, until: this.clock.real() + Math.max(0, seconds - SPARE) * 1000 });
    return value;
  }

  async #note({ id }: LtiPlatform, fault: string | null): Promise<void> {
    const now = this.clock.real();
    if (fault === null && now - (this.#answeredAt.get(id) ?? 0) < ANSWERED_STEP) return;
    if (fault === null) this.#answeredAt.set(id, now);
    else this.#answeredAt.delete(id);
    const change = fault === null ? { answeredAt: now, fault: null, faultAt: null } : { fault, faultAt: now };
    const known = this.#recorded.get(id);
    const isNews = fault !== null && (known?.fault !== fault || now - known.at > RECORDED_STEP);
    if (isNews) this.#recorded.set(id, { fault, at: now });
    await this.database.write(async (manager, emit) => {
      await manager.update(LtiPlatform, { id }, change);
      if (isNews) emit({ action: 'platform-failed', actorId: null, details: { platform: id } });
    });
  }
}

/** How many at once we would like; a platform may give fewer (the standards call it a hint). */
function withLimit(address: string): string {
  if (!URL.canParse(address)) return address;
  const url = new URL(address);
  if (!url.searchParams.has('limit')) url.searchParams.set('limit', '200');
  return url.href;
}

/** @throws LtiFault where the next page is no next one */
function assertGoesOn(platform: LtiPlatform, next: string | null, first: string, seen: ReadonlySet<string>): void {
  if (next === null) return;
  if (new URL(next).origin !== new URL(first).origin) {
    throw new LtiFault('odd', say('listOfGoesOnAt', { name: platform.name }));
  }
  if (seen.has(next) || seen.size >= MOST_PAGES) {
    throw new LtiFault('odd', say('listOfDoesNotEnd', { name: platform.name }));
  }
}

function keyOf({ id }: LtiPlatform, scopes: readonly string[]): string {
  return `${id} ${[...scopes].sort().join(' ')}`;
}

function parsed(platform: LtiPlatform, text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    throw new LtiFault('odd', say('answeredWithSomethingThatIs', { name: platform.name }));
  }
}

/** @returns the address of the next page, or null for the last one */
function nextIn(link: string | null, base: string): string | null {
  for (const part of (link ?? '').split(/,(?=\s*<)/)) {
    const found = /^\s*<([^>]*)>(.*)$/.exec(part);
    if (found === null || !(found[2] ?? '').split(';').some(isNext)) continue;
    return URL.canParse(found[1] ?? '', base) ? new URL(found[1] ?? '', base).href : null;
  }
  return null;
}

/** Whether a parameter of a link is `rel`, and `next` is among its values. */
function isNext(parameter: string): boolean {
  const [name = '', value = ''] = parameter.split('=');
  return name.trim().toLowerCase() === 'rel' && value.replaceAll('"', '').toLowerCase().split(/\s/).includes('next');
}
