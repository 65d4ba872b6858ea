import { Injectable } from '@nestjs/common';
import { Campus } from '../../../model/campus.js';
import { Clock } from '../../../platform/clock/clock.js';
import { Database } from '../../../platform/database/database.js';
import { Outward, OutwardError, type Answered, type Asked } from '../../../platform/outward/outward.js';
import { CampusFault, outwardFault, refusedWith } from './campus-fault.js';
import { CampusKeys } from './keys.service.js';
import { say } from '../../../words/campus.js';

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

/** Asks campuses in our name: a token for what is wanted, then the service itself. */
@Injectable()
export class CampusClient {
  readonly #tokens = new Map<string, Token>();
  readonly #answeredAt = new Map<string, number>();
  /** What was put on record last: what goes on is no news, page by page and try by try. */
  readonly #recorded = new Map<string, { readonly fault: string; readonly at: number }>();

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly outward: Outward,
    private readonly keys: CampusKeys,
  ) {}

  /** @throws CampusFault, which is noted with the campus too */
  async ask(campus: Campus, call: Call): Promise<Answered> {
    return this.#noting(campus, async () => {
      const answer = await this.#withToken(campus, call);
      await this.#note(campus, null);
      return answer;
    });
  }

  /** Like {@link ask}, for JSON. */
  async json(campus: Campus, call: Call): Promise<unknown> {
    const { text } = await this.ask(campus, call);
    return this.#noting(campus, () => parsed(campus, text));
  }

  async #noting<T>(campus: Campus, work: () => T | Promise<T>): Promise<T> {
    try {
      return await work();
    } catch (error) {
      if (error instanceof CampusFault) await this.#note(campus, error.sentence);
      throw error;
    }
  }

  /**
   * All pages of a container, one after the other: each names the next (RFC 8288, `rel="next"`), at the same place as the first one: a token
   * goes nowhere else.
   * @throws CampusFault; what came so far counts for nothing
   */
  async *pages(campus: Campus, scopes: readonly string[], first: string, accept: string): AsyncGenerator<unknown> {
    const seen = new Set<string>();
    let url: string | null = withLimit(first);
    while (url !== null) {
      seen.add(url);
      const { text, headers }: Answered = await this.ask(campus, { scopes, url, headers: { accept } });
      const page = await this.#noting(campus, () => parsed(campus, text));
      const next: string | null = nextIn(headers.get('link'), url);
      yield page;
      await this.#noting(campus, () => assertGoesOn(campus, next, first, seen));
      url = next;
    }
  }

  /** What a campus takes back or changes is known for as long as a token lasts. */
  forget(campusId: string): void {
    for (const key of this.#tokens.keys()) if (key.startsWith(`${campusId} `)) this.#tokens.delete(key);
  }

  async #withToken(campus: Campus, call: Call): Promise<Answered> {
    const first = await this.#send(campus, call, await this.#token(campus, call.scopes));
    // It may have ended on the way, or been taken back: once more with a new one.
    const answer = first.status === 401 ? await this.#renewed(campus, call) : first;
    if (answer.status >= 400) throw refusedWith(campus.name, answer.status, answer.text);
    return answer;
  }

  #renewed(campus: Campus, call: Call): Promise<Answered> {
    this.#tokens.delete(keyOf(campus, call.scopes));
    return this.#token(campus, call.scopes).then((token) => this.#send(campus, call, token));
  }

  #send(campus: Campus, { url, scopes: _, headers, ...asked }: Call, token: string): Promise<Answered> {
    return this.#out(campus, url, { ...asked, headers: { ...headers, authorization: `Bearer ${token}` } });
  }

  async #out(campus: Campus, url: string, asked: Asked): Promise<Answered> {
    try {
      return await this.outward.ask(url, asked);
    } catch (error) {
      if (error instanceof OutwardError) throw outwardFault(campus.name, error.host, error.fault);
      throw error;
    }
  }

  /** A statement signed by us in exchange for a token (OAuth 2.0, RFC 6749 section 4.4; RFC 7523 section 2.2). */
  async #token(campus: Campus, scopes: readonly string[]): Promise<string> {
    const key = keyOf(campus, scopes);
    const known = this.#tokens.get(key);
    if (known !== undefined && known.until > this.clock.real()) return known.value;
    const { clientId } = campus;
    const audience = campus.tokenAudience ?? campus.tokenUrl;
    const statement = await this.keys.sign({ iss: clientId, sub: clientId, aud: audience }, STATEMENT);
    const answer = await this.#out(campus, campus.tokenUrl, {
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
      const { kind, sentence } = refusedWith(campus.name, answer.status, answer.text);
      // Nothing was asked for yet, so nothing can have been done.
      throw new CampusFault(kind, sentence);
    }
    const body = parsed(campus, answer.text) as { access_token?: unknown; expires_in?: unknown } | null;
    const value = body?.access_token;
    if (typeof value !== 'string' || value === '')
      throw new CampusFault('odd', say('gaveNoToken', { name: campus.name }));
    const seconds = typeof body?.expires_in === 'number' ? body.expires_in : 0;
    this.#tokens.set(key, { value, until: this.clock.real() + Math.max(0, seconds - SPARE) * 1000 });
    return value;
  }

  async #note({ id }: Campus, fault: string | null): Promise<void> {
    const now = this.clock.real();
    if (fault === null && now - (this.#answeredAt.get(id) ?? 0) < ANSWERED_STEP) return;
    if (fault === null) this.#answeredAt.set(id, now);
    else this.#answeredAt.delete(id);
    const change = fault === null ? { answeredAt: now, fault: null, faultAt: null } : { fault, faultAt: now };
    const known = this.#recorded.get(id);
    const isNews = fault !== null && (known?.fault !== fault || now - known.at > RECORDED_STEP);
    if (isNews) this.#recorded.set(id, { fault, at: now });
    await this.database.write(async (manager, emit) => {
      await manager.update(Campus, { id }, change);
      if (isNews) emit({ action: 'campus-failed', actorId: null, details: { campus: id } });
    });
  }
}

/** How many at once we would like; a campus may give fewer (the standards call it a hint). */
function withLimit(address: string): string {
  if (!URL.canParse(address)) return address;
  const url = new URL(address);
  if (!url.searchParams.has('limit')) url.searchParams.set('limit', '200');
  return url.href;
}

/** @throws CampusFault where the next page is no next one */
function assertGoesOn(campus: Campus, next: string | null, first: string, seen: ReadonlySet<string>): void {
  if (next === null) return;
  if (new URL(next).origin !== new URL(first).origin) {
    throw new CampusFault('odd', say('listOfGoesOnAt', { name: campus.name }));
  }
  if (seen.has(next) || seen.size >= MOST_PAGES) {
    throw new CampusFault('odd', say('listOfDoesNotEnd', { name: campus.name }));
  }
}

function keyOf({ id }: Campus, scopes: readonly string[]): string {
  return `${id} ${[...scopes].sort().join(' ')}`;
}

function parsed(campus: Campus, text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    throw new CampusFault('odd', say('answeredWithSomethingThatIs', { name: campus.name }));
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
