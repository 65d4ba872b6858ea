import { Injectable } from '@nestjs/common';
import { webAddress } from './web-address.js';

/** Whose pages may show ours inside of them. */
@Injectable()
export class Framing {
  #origins: readonly string[] = [];

  /**
   * Allows the origins of these addresses. An invalid one is left out: a header that cannot be built would take down every page.
   *
   * @param addresses such as `https://platform.example.org`
   */
  allow(addresses: readonly string[]): void {
    const origins = addresses.flatMap((one) => webAddress(one)?.origin ?? []);
    this.#origins = [...new Set(origins)].sort();
  }

  /** As the content policy says it (CSP 3, `frame-ancestors`). */
  get ancestors(): string {
    return this.#origins.length === 0 ? "'none'" : this.#origins.join(' ');
  }
}
