/** A domain that never leads anywhere (RFC 6761, section 6.4). */
const NOWHERE = '@no-address.invalid';

/** Stands in the place of an address that a platform does not pass on: every place of a course has one of its own. */
export function noAddress(own: string): string {
  return `${own}${NOWHERE}`;
}

/** As it is shown: blank for none. */
export function shownAddress(email: string): string {
  return isAddress(email) ? email : '';
}

/** Whether mail can be sent there at all. */
export function isAddress(email: string): boolean {
  return !email.endsWith(NOWHERE);
}
