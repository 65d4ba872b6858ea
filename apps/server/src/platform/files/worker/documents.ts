import { readFile } from 'node:fs/promises';
import { countWords } from '@salt-circle/core';
import { zipSync } from 'fflate';
import mammoth from 'mammoth';
import MarkdownIt from 'markdown-it';
import footnotes from 'markdown-it-footnote';
import { cleanHtml } from '../../html/clean-html.js';
import { escapeHtml } from '../../html/escape.js';
import { htmlToText } from '../../html/html-to-text.js';
import type { FoundMetadata } from '../../../model/stored-file.js';
import { decodeText } from '../../bytes/decode-text.js';
import { withEquations, withoutEquations } from './math.js';
import { OdtReader } from './odt.js';
import { Pictures } from './pictures.js';
import { assertPlainXml, readDocument } from './zip.js';
import { scanXml, valuesIn } from '../../bytes/xml.js';
import type { Converted } from './converted.js';

/** The copy as HTML, cleaned like all rich text. */
function finished(html: string, made: Partial<Omit<Converted, 'facts' | 'copyHtml'>> = {}): Converted {
  const copyHtml = cleanHtml(html, { pictures: true, equations: true, numberedAnchors: true });
  return { copyHtml, metadata: [], ...made, facts: { words: countWords(htmlToText(copyHtml)) } };
}

const WITH_EQUATIONS = /^word\/(document|footnotes|endnotes)\.xml$/;

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
  const equations: string[] = [];
  const { value } = await mammoth.convertToHtml(await withMarks(path, members, equations), { convertImage });
  const html = value.replace(/<img[^>]*src="taken:(\d+)"[^>]*>/g, (_, index: string) => images[Number(index)] ?? '');
  return finished(withEquations(html, equations), {
    pictures: pictures.digests,
    metadata: docxMetadata(members),
    remarks: leftOut(members, DOCX_LEFT_OUT, pictures),
  });
}

/** The reader of documents passes by equations: it is given the document with marks in their places. */
async function withMarks(path: string, members: ReadonlyMap<string, Buffer>, equations: string[]) {
  const marked = new Map<string, Uint8Array>();
  for (const [name, bytes] of members) {
    if (WITH_EQUATIONS.test(name)) marked.set(name, Buffer.from(withoutEquations(bytes.toString('utf8'), equations)));
  }
  if (equations.length === 0) return { path };
  const all = await readDocument(path, () => true);
  const files = Object.fromEntries([...all].map(([name, bytes]) => [name, marked.get(name) ?? bytes]));
  return { buffer: Buffer.from(zipSync(files, { level: 0 })) };
}

/** OpenDocument at a path to cleaned HTML, with what tells of its maker beside. */
export async function convertOdt(path: string, folder: string): Promise<Converted> {
  const members = await readDocument(path, (name) => /\.xml$/.test(name) || name.startsWith('Pictures/'));
  assertPlainXml(members);
  const pictures = new Pictures(folder);
  const html = await new OdtReader(members, (bytes, alt) => pictures.take(bytes, alt)).html();
  return finished(html, {
    pictures: pictures.digests,
    metadata: odtMetadata(members),
    remarks: leftOut(members, ODT_LEFT_OUT, pictures),
  });
}

/** What stands in a document and not in its copy, by the element that holds it. */
type LeftOut = ReadonlyArray<readonly [member: RegExp, element: string, what: string]>;
const DOCX_BODY = /^word\/document\.xml$/;
const DOCX_LEFT_OUT: LeftOut = [
  [DOCX_BODY, 'c:chart', 'a chart'],
  [DOCX_BODY, 'dgm:relIds', 'a diagram'],
  [DOCX_BODY, 'wps:wsp', 'a drawing (the words in it are kept)'],
  [DOCX_BODY, 'o:OLEObject', 'an object of another program'],
  [DOCX_BODY, 'w:headerReference', 'the head of the pages'],
  [DOCX_BODY, 'w:footerReference', 'the foot of the pages'],
  [DOCX_BODY, 'w:commentReference', 'remarks beside the text'],
  [DOCX_BODY, 'w:del', 'text that a tracked change took out'],
];
const ODT_LEFT_OUT: LeftOut = [
  [/^content\.xml$/, 'draw:custom-shape', 'a drawing (the words in it are kept)'],
  [/^content\.xml$/, 'draw:path', 'a drawing'],
  [/^content\.xml$/, 'draw:plugin', 'an object of another program'],
  [/^Object [^/]*\/content\.xml$/, 'office:chart', 'a chart'],
  [/^Object [^/]*\/content\.xml$/, 'office:spreadsheet', 'a table of another program'],
  [/^styles\.xml$/, 'style:header', 'the head of the pages'],
  [/^styles\.xml$/, 'style:footer', 'the foot of the pages'],
  [/^content\.xml$/, 'office:annotation', 'remarks beside the text'],
  [/^content\.xml$/, 'text:deletion', 'text that a tracked change took out'],
];

function leftOut(members: ReadonlyMap<string, Buffer>, list: LeftOut, pictures: Pictures): string[] {
  const found = new Set<string>();
  for (const [name, bytes] of members) {
    const wanted = new Map(list.filter(([member]) => member.test(name)).map(([, element, what]) => [element, what]));
    if (wanted.size === 0) continue;
    scanXml(bytes, {
      onopentag: (element) => {
        const what = wanted.get(element);
        if (what !== undefined) found.add(what);
      },
    });
  }
  if (pictures.notShown > 0) found.add('a picture in a format that browsers do not show');
  return found.size === 0 ? [] : [`The copy for reviewers is without ${[...found].join(', ')}.`];
}

/** Markdown (CommonMark) to cleaned HTML. */
export async function convertMarkdown(path: string): Promise<Converted> {
  // The types of the plugin are written for the other module system.
  const markdown = new MarkdownIt({ html: false, linkify: true }).use(footnotes as never);
  return finished(markdown.render(decodeText(await readFile(path))));
}

/** Plain text to HTML, an empty line beginning a paragraph. */
export async function convertText(path: string): Promise<Converted> {
  const blocks = decodeText(await readFile(path))
    .split(/\r?\n\s*\r?\n/)
    .filter((block) => block.trim() !== '');
  return finished(blocks.map((block) => `<p>${escapeHtml(block).replace(/\r?\n/g, '<br>')}</p>`).join(''));
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
    ['name of a bookmark', attributes(members, DOCX_BODY, 'w:bookmarkStart', 'w:name')],
    ['own property of the document', inside('docProps/custom.xml', 'vt:lpwstr', 'vt:lpstr', 'vt:bstr')],
  ]);
}

/** Values of one attribute of one kind of element. */
function attributes(members: ReadonlyMap<string, Buffer>, member: RegExp, element: string, name: string): string[] {
  const values: string[] = [];
  for (const [called, bytes] of members) {
    if (!member.test(called)) continue;
    scanXml(bytes, {
      onopentag: (open, given) => {
        if (open === element && given[name] !== undefined) values.push(given[name]);
      },
    });
  }
  return values;
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
    ['name of a bookmark', attributes(members, /^content\.xml$/, 'text:bookmark-start', 'text:name')],
    ['name of a bookmark', attributes(members, /^content\.xml$/, 'text:bookmark', 'text:name')],
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
