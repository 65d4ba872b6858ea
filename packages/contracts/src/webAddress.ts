/**
 * An address of the web (http or https) that may stand in a header: a host of letters, digits, dots and hyphens or an IPv6 address, no
 * name or password before it, and no blank, control character, semicolon or comma anywhere.
 */
export const WEB_ADDRESS = /^https?:\/\/(\[[\da-f:.]+\]|[a-z\d_](?:[a-z\d._-]*))(:\d{1,5})?([/?#][^\s;,\p{C}]*)?$/iu;
