import { readFile } from 'node:fs/promises';
import { countWords } from '@salt-circle/core';
import mammoth from 'mammoth';
import MarkdownIt from 'markdown-it';
import footnotes from 'markdown-it-footnote';
import { cleanHtml } from '../../html/clean-html.js';
import { escapeHtml } from '../../html/escape.js';
import { htmlToText } from '../../html/html-to-text.js';
import type { FoundMetadata } from '../../../model/stored-file.js';
import { decodeText } from '../../bytes/decode-text.js';
import { OdtReader } from './odt.js';
import { Pictures } from './pictures.js';
import { assertPlainXml, readDocument } from './zip.js';
import { valuesIn } from './xml.js';
import type { Converted } from './converted.js';

/** The copy as HTML, cleaned like all rich text; anchors of footnotes become marks that clash with nothing on a page. */
function finished(html: string, pictures: string[], metadata: FoundMetadata[]): Converted {
  const anchored = html.replace(/ id="([\w-]{1,64})"/g, ' data-anchor="$1"');
  const copyHtml = cleanHtml(anchored, { pictures: true });
  return { copyHtml, pictures, metadata, facts: { words: countWords(htmlToText(copyHtml)) } };
}

/** Office Open XML at a path to cleaned HTML, with what tells of its maker beside. */
export async function convertDocx(path: string, folder: string): Promise<Converted> {
  const members = await readDocument(path, (name) => /\.(xml|rels)$/.test(name));
  assertPlainXml(members);
  const pictures = new Pictures(folder);
  const images: string[] = [];
  const convertImage = mammoth.images.imgElement(async (image) => {
    const { altText = '' } = image as unknown as { altText?: string };
    const element = await pictures.take(await image.readAsBuffer(), altText);
    images.push(element);
    // The element is put in its place afterwards: it may be words instead of a picture.
    return { src: `taken:${images.length - 1}` };
  });
  const { value } = await mammoth.convertToHtml({ path }, { convertImage });
  const html = value.replace(/<img[^>]*src="taken:(\d+)"[^>]*>/g, (_, index: string) => images[Number(index)] ?? '');
  return finished(html, pictures.digests, docxMetadata(members));
}

/** OpenDocument at a path to cleaned HTML, with what tells of its maker beside. */
export async function convertOdt(path: string, folder: string): Promise<Converted> {
  const members = await readDocument(path, (name) => /\.xml$/.test(name) || name.startsWith('Pictures/'));
  assertPlainXml(members);
  const pictures = new Pictures(folder);
  const html = await new OdtReader(members, (bytes, alt) => pictures.take(bytes, alt)).html();
  return finished(html, pictures.digests, odtMetadata(members));
}

/** Markdown (CommonMark) to cleaned HTML. */
export async function convertMarkdown(path: string): Promise<Converted> {
  // The types of the plugin are written for the other module system.
  const markdown = new MarkdownIt({ html: false, linkify: true }).use(footnotes as never);
  return finished(markdown.render(decodeText(await readFile(path))), [], []);
}

/** Plain text to HTML, an empty line beginning a paragraph. */
export async function convertText(path: string): Promise<Converted> {
  const blocks = decodeText(await readFile(path))
    .split(/\r?\n\s*\r?\n/)
    .filter((block) => block.trim() !== '');
  return finished(blocks.map((block) => `<p>${escapeHtml(block).replace(/\r?\n/g, '<br>')}</p>`).join(''), [], []);
}

const NOTHING = Buffer.alloc(0);

/** Elements and attributes that name people (ECMA-376 part 1, clauses 15.2.12 and 17.13). */
function docxMetadata(members: ReadonlyMap<string, Buffer>): FoundMetadata[] {
  const inside = (member: string, ...elements: string[]) => valuesIn(members.get(member) ?? NOTHING, { elements });
  const words = [...members.keys()].filter((name) => /^word\/(document|comments|people|footnotes)\.xml$/.test(name));
  const authors = words.flatMap((name) => valuesIn(members.get(name) ?? NOTHING, { attribute: /^w\d*:author$/ }));
  return found([
    ['author in the document’s properties', inside('docProps/core.xml', 'dc:creator')],
    ['last change in the document’s properties', inside('docProps/core.xml', 'cp:lastModifiedBy')],
    ['title in the document’s properties', inside('docProps/core.xml', 'dc:title')],
    ['organisation in the document’s properties', inside('docProps/app.xml', 'Company', 'Manager')],
    ['author of a remark or a tracked change', authors],
  ]);
}

function odtMetadata(members: ReadonlyMap<string, Buffer>): FoundMetadata[] {
  const inside = (member: string, ...elements: string[]) => valuesIn(members.get(member) ?? NOTHING, { elements });
  return found([
    [
      'author in the document’s properties',
      inside('meta.xml', 'meta:initial-creator', 'dc:creator', 'meta:printed-by'),
    ],
    [
      'title in the document’s properties',
      inside('meta.xml', 'dc:title', 'dc:subject', 'meta:keyword', 'meta:user-defined'),
    ],
    ['author of a remark or a tracked change', inside('content.xml', 'dc:creator')],
  ]);
}

function found(lists: ReadonlyArray<readonly [where: string, values: readonly string[]]>): FoundMetadata[] {
  return lists.flatMap(([where, values]) =>
    [...new Set(values.map((value) => value.trim()).filter((value) => value !== ''))].map((value) => ({
      where,
      value,
    })),
  );
}
