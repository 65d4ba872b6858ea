import { lookup } from 'node:dns/promises';
import { isIP } from 'node:net';
import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { Agent, fetch, type Response } from 'undici';
import type { Settings } from '../config/settings.js';
import { SETTINGS } from '../config/settings.token.js';
import { AddressRefused, Networks } from './guarded-lookup.js';

/** Milliseconds until an answer is given up, and the most bytes of one that are read. */
const PATIENCE = 15_000;
const MOST_BYTES = 5_000_000;

/** `closed`: never asked. `none`: no connection, or it ended. `slow`, `large`, `moved`: an answer that is not taken. */
export type OutwardFault = 'closed' | 'none' | 'slow' | 'large' | 'moved';

/** A system outside did not answer in a way that can be used; nothing is known of what it did. */
export class OutwardError extends Error {
  override readonly name = 'OutwardError';

  constructor(
    readonly fault: OutwardFault,
    readonly host: string,
  ) {
    super(`${host}: ${fault}`);
  }
}

export interface Asked {
  readonly method?: 'GET' | 'POST' | 'PUT' | 'DELETE';
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: string;
}

export interface Answered {
  readonly status: number;
  readonly headers: Headers;
  readonly text: string;
}

/**
 * Asks systems outside by HTTP. Addresses come from others, so: TLS, but within networks that the one who runs the server has allowed; no
 * address of the server's own network but those; no redirects, which could lead there; and no more time or bytes than there is use for.
 */
@Injectable()
export class Outward implements OnApplicationShutdown {
  readonly #networks: Networks;
  readonly #agent: Agent;

  constructor(@Inject(SETTINGS) { platformNetworks }: Settings) {
    this.#networks = new Networks(platformNetworks);
    this.#agent = new Agent({ connect: { lookup: this.#networks.lookup, timeout: PATIENCE }, keepAliveTimeout: 2_000 });
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#agent.destroy();
  }

  /** @throws OutwardError */
  async ask(address: string, { method = 'GET', headers = {}, body }: Asked = {}): Promise<Answered> {
    const url = URL.canParse(address) ? new URL(address) : null;
    if (url === null || !(await this.#mayAsk(url)))
      throw new OutwardError('closed', url?.host ?? address.slice(0, 100));
    try {
      const response = await fetch(url, {
        ...{ method, headers: { ...headers }, redirect: 'manual', dispatcher: this.#agent },
        ...(body !== undefined && { body }),
        signal: AbortSignal.timeout(PATIENCE),
      });
      if (response.status >= 300 && response.status < 400) throw new OutwardError('moved', url.host);
      return {
        status: response.status,
        headers: response.headers as unknown as Headers,
        text: await bounded(response, url),
      };
    } catch (error) {
      throw asOutward(error, url.host);
    }
  }

  /** Without TLS only where every address that the name leads to has been allowed by name. */
  async #mayAsk(url: URL): Promise<boolean> {
    if (!['https:', 'http:'].includes(url.protocol) || url.username !== '' || url.password !== '') return false;
    if (url.protocol === 'https:') {
      try {
        this.#networks.assertOpen(url.hostname);
        return true;
      } catch {
        return false;
      }
    }
    const bare = url.hostname.replace(/^\[(.*)\]$/, '$1');
    const found = isIP(bare) === 0 ? await lookup(bare, { all: true }).catch(() => []) : [{ address: bare }];
    return found.some(({ address }) => this.#networks.standing(address) === 'allowed');
  }
}

async function bounded(response: Response, { host }: URL): Promise<string> {
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of response.body ?? []) {
    size += (part as Uint8Array).byteLength;
    if (size > MOST_BYTES) throw new OutwardError('large', host);
    parts.push(part as Uint8Array);
  }
  return Buffer.concat(parts).toString('utf8');
}

function asOutward(error: unknown, host: string): Error {
  if (error instanceof OutwardError) return error;
  if (!(error instanceof Error)) return new OutwardError('none', host);
  if (error.name === 'TimeoutError') return new OutwardError('slow', host);
  // `fetch` fails with a TypeError that holds what happened to the connection.
  const { cause } = error;
  if (cause instanceof AddressRefused) return new OutwardError('closed', host);
  if (error instanceof TypeError || 'code' in error) return new OutwardError('none', host);
  return error;
}
