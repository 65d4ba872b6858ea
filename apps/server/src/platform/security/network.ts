import ipaddr from 'ipaddr.js';

/**
 * Where a request comes from, for counting tries: an IPv4 address, or the /64 of an IPv6 address, of which one line has 2^64 (RFC 6177).
 * Returns the text itself when it is no address.
 */
export function networkOf(address: string | undefined): string {
  if (address === undefined || !ipaddr.isValid(address)) return address ?? '';
  const parsed = ipaddr.process(address);
  if (parsed.kind() === 'ipv4') return parsed.toString();
  const groups = (parsed as ipaddr.IPv6).parts.slice(0, 4).map((group) => group.toString(16));
  return `${groups.join(':')}::/64`;
}
