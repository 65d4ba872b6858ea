import { open, stat } from 'node:fs/promises';
import type { FileFacts } from '@salt-circle/contracts';
import type { FileFamily } from '@salt-circle/core';
import { markedUtf16 } from '../../bytes/decode-text.js';
import { Refused } from '../../bytes/refused.js';
import { QUICKTIME } from '../../bytes/endings.js';
import { assertPlainXml, readDocument } from './zip.js';
import { say } from '../../../words/files.js';

export interface Inspected {
  readonly family: FileFamily;
  readonly mime: string;
  readonly facts: FileFacts;
}

const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
const ODT = 'application/vnd.oasis.opendocument.text';

/** What somebody may hand in by mistake, with the way out. */
const otherKinds = (): ReadonlyArray<readonly [mime: RegExp, sentence: string, whatToDo: string]> => [
  [/presentation|powerpoint/, say('thisIsSetOfSlides'), say('exportItAsPdfThen')],
  [/spreadsheet|excel/, say('thisIsSpreadsheet'), say('exportItAsPdfThen')],
  [/^image\//, say('thisKindOfPictureCannot'), say('saveItAsPngJpeg')],
  [/^video\//, say('thisKindOfFilmCannot'), say('exportItAsMp4Or')],
  [/^audio\//, say('thisKindOfSoundCannot'), say('exportItAsMp3Ogg')],
  [/zip|rar|7z|tar|gzip/, say('thisIsArchive'), say('unpackItAndHandIn')],
];

/**
 * Says what a file is, by its content, and whether it can be read.
 *
 * @param name only tells Markdown from other plain text
 * @throws Refused with the reason, for what is empty, broken, protected, or of no kind that is taken
 */
export async function inspect(path: string, name: string): Promise<Inspected> {
  if ((await stat(path)).size === 0) throw new Refused(say('thisFileIsEmpty'), say('chooseAnotherFile'));
  // Before its bytes are taken for those of a sound, which may begin alike.
  if (isMarkedText(await firstBytes(path, 4_096))) return plainText(path, name);
  const { fileTypeFromFile } = await import('file-type');
  const type = await fileTypeFromFile(path);
  switch (type?.mime) {
    case 'application/pdf':
      return { family: 'pdf', mime: 'application/pdf', facts: await (await import('./pdf.js')).inspectPdf(path) };
    case DOCX:
      await assertDocument(path, 'word/document.xml');
      return { family: 'document', mime: DOCX, facts: {} };
    case ODT:
      await assertDocument(path, 'content.xml');
      return { family: 'document', mime: ODT, facts: {} };
    case 'application/x-cfb':
      throw await compoundFile(path);
    case 'image/png':
    case 'image/jpeg':
    case 'image/webp':
      return {
        family: 'image',
        mime: type?.mime,
        facts: await (await import('./images.js')).inspectImage(path),
      };
    case 'video/mp4':
    case 'video/x-m4v':
    case 'audio/mp4':
    case 'audio/x-m4a':
      return media(path, 'mp4');
    case QUICKTIME:
      return media(path, 'quicktime');
    case 'video/webm':
      return media(path, 'webm');
    case 'audio/mpeg':
      return sound(path, 'audio/mpeg');
    case 'audio/ogg':
    case 'audio/opus':
    case 'audio/ogg; codecs=opus':
      return sound(path, 'audio/ogg');
    case 'audio/wav':
    case 'audio/vnd.wave':
      return sound(path, 'audio/wav');
    case undefined:
    case 'application/xml':
      return plainText(path, name);
    default: {
      const other = otherKinds().find(([mime]) => mime.test(type?.mime ?? ''));
      throw other === undefined
        ? new Refused(say('thisKindOfFileCannot'), say('exportItAsPdfThen'))
        : new Refused(other[1], other[2]);
    }
  }
}

async function assertDocument(path: string, body: string): Promise<void> {
  const members = await readDocument(path, (name) => /\.(xml|rels)$/.test(name));
  assertPlainXml(members);
  const manifest = members.get('META-INF/manifest.xml')?.toString('utf8') ?? '';
  if (manifest.includes('encryption-data')) throw protectedDocument();
  if (!members.has(body)) {
    throw new Refused(say('thisDocumentIsDamagedInside'), say('openItInYourWord'));
  }
}

function protectedDocument(): Refused {
  return new Refused(say('thisDocumentIsProtectedBy'), say('saveItWithoutPasswordThen'));
}

/** A protected DOCX is wrapped into the old compound format, in which documents of old programs are as well. */
async function compoundFile(path: string): Promise<Refused> {
  const head = await firstBytes(path, 1 << 20);
  return head.includes(Buffer.from('EncryptedPackage', 'utf16le'))
    ? protectedDocument()
    : new Refused(say('thisIsInFormatOf'), say('saveItAsDocxOdt'));
}

async function sound(path: string, mime: string): Promise<Inspected> {
  const { inspectMedia } = await import('./media.js');
  const { seconds } = await inspectMedia(path);
  return { family: 'audio', mime, facts: seconds === undefined ? {} : { seconds } };
}

async function media(path: string, container: 'mp4' | 'webm' | 'quicktime'): Promise<Inspected> {
  const { hasVideo, ...facts } = await (await import('./media.js')).inspectMedia(path);
  const family = hasVideo ? 'video' : 'audio';
  return { family, mime: container === 'quicktime' ? QUICKTIME : `${family}/${container}`, facts };
}

async function firstBytes(path: string, length: number): Promise<Buffer> {
  const file = await open(path);
  try {
    const { bytesRead, buffer } = await file.read(Buffer.alloc(length), 0, length, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}

/** Text longer than this is no draft. Bytes. */
const LONGEST_TEXT = 2_000_000;

/** Control codes that stand in no text: all but tabs, line and page ends, the old end mark, and escape. */
function isNoText(byte: number): boolean {
  return byte < 0x09 || (byte > 0x0d && byte < 0x20 && byte !== 0x1a && byte !== 0x1b);
}

/** UTF-16 with its mark, and signs that stand in texts. */
function isMarkedText(head: Buffer): boolean {
  const encoding = markedUtf16(head);
  if (encoding === null) return false;
  const text = new TextDecoder(encoding).decode(head.subarray(0, head.length - (head.length % 2)));
  return ![...text].some((sign) => isNoText(sign.charCodeAt(0)) || sign === '\uFFFD');
}

async function plainText(path: string, name: string): Promise<Inspected> {
  const head = await firstBytes(path, LONGEST_TEXT + 1);
  if (head.length > LONGEST_TEXT) throw new Refused(say('thisTextIsLongerThan'), say('handInPartThatIs'));
  const marked = (head[0] === 0xff && head[1] === 0xfe) || (head[0] === 0xfe && head[1] === 0xff);
  const binary = !marked && head.some(isNoText);
  if (binary) {
    throw new Refused(say('thisFileIsDamagedOr'), say('exportItAsPdfThen'));
  }
  const begin = head.toString('utf8').trimStart().slice(0, 400);
  if (/^(<\?xml|<!doctype|<html|<svg)/i.test(begin)) {
    throw new Refused(
      /<svg/i.test(begin) ? say('drawingsInSvgMayHold') : say('thisIsWebPageOr'),
      say('exportItAsPdfOr'),
    );
  }
  if (begin === '') throw new Refused(say('thereIsNoTextIn'), say('chooseAnotherFile'));
  const markdown = /\.(md|markdown)$/i.test(name);
  return { family: 'plain-text', mime: markdown ? 'text/markdown' : 'text/plain', facts: {} };
}
