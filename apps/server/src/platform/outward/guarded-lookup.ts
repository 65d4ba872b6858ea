import { lookup, type LookupAddress } from 'node:dns';
import { isIP, type LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';

/** Thrown for an address that is not asked, whatever name led to it. */
export class AddressRefused extends Error {
  override readonly name = 'AddressRefused';

  constructor(readonly host: string) {
    super(`${host} is in a network that is not asked`);
  }
}

/** Which addresses of the network may be asked: all of the open one, and of others those in these ranges. */
export class Networks {
  readonly #ranges: ReadonlyArray<[ipaddr.IPv4 | ipaddr.IPv6, number]>;

  constructor(ranges: readonly string[]) {
    this.#ranges = ranges.map((range) => ipaddr.parseCIDR(range));
  }

  /** @param address of IPv4 or IPv6, also one of IPv4 within IPv6 */
  standing(address: string): 'open' | 'allowed' | 'closed' {
    const parsed = ipaddr.process(address);
    const allowed = this.#ranges.some(([range, bits]) => range.kind() === parsed.kind() && parsed.match(range, bits));
    if (allowed) return 'allowed';
    // Only what the registries list as ordinary: no private, local, shared, documented or reserved one, and no way round by a tunnel.
    return parsed.range() === 'unicast' ? 'open' : 'closed';
  }

  /**
   * Like the lookup of the system, but that no closed address comes out of it: what is asked is what was looked at, so a name that leads
   * elsewhere the next moment gains nothing.
   */
  readonly lookup: LookupFunction = (host, options, done) => {
    lookup(host, { ...options, all: true }, (error, found: LookupAddress[]) => {
      if (error !== null) return done(error, []);
      const may = found.filter(({ address }) => this.standing(address) !== 'closed');
      const [first] = may;
      if (first === undefined) return done(new AddressRefused(host), []);
      return options.all === true ? done(null, may) : done(null, first.address, first.family);
    });
  };

  /** For hosts that are addresses already: those are not looked up. @throws AddressRefused */
  assertOpen(host: string): void {
    const bare = host.replace(/^\[(.*)\]$/, '$1');
    if (isIP(bare) !== 0 && this.standing(bare) === 'closed') throw new AddressRefused(host);
  }
}
