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
import { say } from '../../../words/files.js';

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
  // regex: over HTML that the converter has made, in which each tag is closed and signs in attributes are escaped
  const html = value.replace(/<img[^>]*src="taken:(\d+)"[^>]*>/g, (_, index: string) => images[Number(index)] ?? '');
  return finished(withEquations(html, equations), {
    pictures: pictures.digests,
    metadata: docxMetadata(members),
    remarks: leftOut(members, docxLeftOut(), pictures),
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
    remarks: leftOut(members, odtLeftOut(), pictures),
  });
}

/** What stands in a document and not in its copy, by the element that holds it. */
type LeftOut = ReadonlyArray<readonly [member: RegExp, element: string, what: string]>;
const DOCX_BODY = /^word\/document\.xml$/;
const docxLeftOut = (): LeftOut => [
  [DOCX_BODY, 'c:chart', say('chart')],
  [DOCX_BODY, 'dgm:relIds', say('diagram')],
  [DOCX_BODY, 'wps:wsp', say('drawingWordsInItAre')],
  [DOCX_BODY, 'o:OLEObject', say('objectOfAnotherProgram')],
  [DOCX_BODY, 'w:headerReference', say('headOfPages')],
  [DOCX_BODY, 'w:footerReference', say('footOfPages')],
  [DOCX_BODY, 'w:commentReference', say('remarksBesideText')],
  [DOCX_BODY, 'w:del', say('textThatTrackedChangeTook')],
];
const odtLeftOut = (): LeftOut => [
  [/^content\.xml$/, 'draw:custom-shape', say('drawingWordsInItAre')],
  [/^content\.xml$/, 'draw:path', say('drawing')],
  [/^content\.xml$/, 'draw:plugin', say('objectOfAnotherProgram')],
  [/^Object [^/]*\/content\.xml$/, 'office:chart', say('chart')],
  [/^Object [^/]*\/content\.xml$/, 'office:spreadsheet', say('tableOfAnotherProgram')],
  [/^styles\.xml$/, 'style:header', say('headOfPages')],
  [/^styles\.xml$/, 'style:footer', say('footOfPages')],
  [/^content\.xml$/, 'office:annotation', say('remarksBesideText')],
  [/^content\.xml$/, 'text:deletion', say('textThatTrackedChangeTook')],
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
  if (pictures.notShown > 0) found.add(say('pictureInFormatThatBrowsers'));
  return found.size === 0 ? [] : [say('copyForReviewersIsWithout', { what: [...found].join(', ') })];
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
    [say('authorInDocumentsProperties'), inside('docProps/core.xml', 'dc:creator')],
    [say('lastChangeInDocumentsProperties'), inside('docProps/core.xml', 'cp:lastModifiedBy')],
    [say('titleInDocumentsProperties'), inside('docProps/core.xml', 'dc:title')],
    [say('organisationInDocumentsProperties'), inside('docProps/app.xml', 'Company', 'Manager')],
    [say('authorOfRemarkOrTracked'), authors],
    [say('nameOfBookmark'), attributes(members, DOCX_BODY, 'w:bookmarkStart', 'w:name')],
    [say('ownProperty'), inside('docProps/custom.xml', 'vt:lpwstr', 'vt:lpstr', 'vt:bstr')],
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
    [say('authorInDocumentsProperties'), inside('meta.xml', 'meta:initial-creator', 'dc:creator', 'meta:printed-by')],
    [
      say('titleInDocumentsProperties'),
      inside('meta.xml', 'dc:title', 'dc:subject', 'meta:keyword', 'meta:user-defined'),
    ],
    [say('authorOfRemarkOrTracked'), inside('content.xml', 'dc:creator')],
    [say('nameOfBookmark'), attributes(members, /^content\.xml$/, 'text:bookmark-start', 'text:name')],
    [say('nameOfBookmark'), attributes(members, /^content\.xml$/, 'text:bookmark', 'text:name')],
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
