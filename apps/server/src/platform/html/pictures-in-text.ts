const STORED = /src="picture:([0-9a-f]{64})"/g;
const ADDRESS = /src="[^"]{0,300}\/pictures\/([0-9a-f]{64})"/g;

/** Digests of the pictures that a stored text has. */
export function picturesIn(html: string): string[] {
  return [...new Set([...html.matchAll(STORED)].map(([, digest = '']) => digest))];
}

/**
 * A stored text names pictures by digest; on a page they need an address.
 * @param whose path of the draft or attachment that has the text, e.g. `exchanges/…/drafts/…`
 */
export function withAddresses(html: string, whose: string): string {
  return html.replace(STORED, `src="/api/${whose}/pictures/$1"`);
}

/** The way back, for what comes from a page. */
export function withoutAddresses(html: string): string {
  return html.replace(ADDRESS, 'src="picture:$1"');
}

/** For a page outside of the application: pictures as files beside it. */
export function withPictureFiles(html: string, fileOf: (digest: string) => string): string {
  return html.replace(STORED, (_, digest: string) => `src="${fileOf(digest)}"`);
}
