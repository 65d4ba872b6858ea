import { readZip, type Words } from '../../bytes/read-zip.js';
import { Refused } from '../../bytes/refused.js';
import { assertShallow } from '../../bytes/xml.js';
import { say } from '../../../words/files.js';

const broken = (): Words => [say('thisDocumentIsDamagedInside'), say('openItInYourWord')];
const tooMuch = (): Words => [say('thisDocumentUnpacksToFar'), say('handInSmallerOneOr')];
/** A long report with many pictures stays well below. */
const DOCUMENT = { most: 300_000_000, members: 5_000 } as const;
/** The text of a thousand pages is half of it; what a document says of itself is a few lines. */
const MOST_XML = 40_000_000;
const MOST_PROPERTIES = 1_000_000;
const PROPERTIES = /^(docProps\/|meta\.xml$|META-INF\/|customXml\/)/;

/** The wanted members of a document in DOCX or ODT. */
export function readDocument(path: string, wanted: (name: string) => boolean): Promise<Map<string, Buffer>> {
  const { members, most } = DOCUMENT;
  const mostOf = (name: string) =>
    PROPERTIES.test(name) ? MOST_PROPERTIES : /\.(xml|rels)$/.test(name) ? MOST_XML : most;
  return readZip(path, { wanted, most, mostOf, members, broken: broken(), tooMuch: tooMuch() });
}

/** Definitions inside of XML can be made to grow without end; documents have none, and no nesting without end either. */
export function assertPlainXml(members: ReadonlyMap<string, Buffer>): void {
  for (const [name, bytes] of members) {
    if (!/\.(xml|rels)$/.test(name)) continue;
    if (/<!(DOCTYPE|ENTITY)/i.test(bytes.toString('latin1'))) throw new Refused(...broken());
    assertShallow(bytes);
  }
}
