import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';

/**
 * What becomes of a link when its letter leaves late: `valid` as it is, `over` for good (the letter is not sent), or the token of a new
 * link in its place.
 */
export type Renewed = 'valid' | 'over' | { readonly token: string };

type Renew = (manager: EntityManager, token: string) => Promise<Renewed>;

/** Links in letters run out; a letter that waited for its mail server must not arrive with one that has. */
@Injectable()
export class LinkRenewal {
  readonly #ways = new Map<string, Renew>();

  /** @param path first part of the links' path: `join` of `/join/TOKEN` */
  add(path: string, renew: Renew): void {
    this.#ways.set(path, renew);
  }

  /** @param link whole address @returns the link to send, or null where there is nothing to send any more */
  async renewed(manager: EntityManager, link: string): Promise<string | null> {
    const [, path = '', token = ''] = /\/([\w-]+)\/([\w-]+)$/.exec(link) ?? [];
    const renew = this.#ways.get(path);
    if (renew === undefined) return link;
    const now = await renew(manager, token);
    if (now === 'valid') return link;
    return now === 'over' ? null : link.slice(0, -token.length) + now.token;
  }
}
