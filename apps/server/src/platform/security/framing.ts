import { Injectable } from '@nestjs/common';

/** Whose pages may show ours inside of them. */
@Injectable()
export class Framing {
  #origins: readonly string[] = [];

  /** @param origins such as `https://campus.example.org` */
  allow(origins: readonly string[]): void {
    this.#origins = [...new Set(origins)].sort();
  }

  /** As the content policy says it (CSP 3, `frame-ancestors`). */
  get ancestors(): string {
    return this.#origins.length === 0 ? "'none'" : this.#origins.join(' ');
  }
}
