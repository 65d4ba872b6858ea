import { open, stat } from 'node:fs/promises';
import type { FileFacts } from '@salt-circle/contracts';
import type { FileFamily } from '@salt-circle/core';
import { markedUtf16 } from '../../bytes/decode-text.js';
import { Refused } from '../../bytes/refused.js';
import { QUICKTIME } from '../../bytes/endings.js';
import { assertPlainXml, readDocument } from './zip.js';

export interface Inspected {
  readonly family: FileFamily;
  readonly mime: string;
  readonly facts: FileFacts;
}

const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
const ODT = 'application/vnd.oasis.opendocument.text';

/** What somebody may hand in by mistake, with the way out. */
const OTHERS: ReadonlyArray<readonly [mime: RegExp, sentence: string, whatToDo: string]> = [
  [/presentation|powerpoint/, 'This is a set of slides.', 'Export it as PDF, then hand in that.'],
  [/spreadsheet|excel/, 'This is a spreadsheet.', 'Export it as PDF, then hand in that.'],
  [/^image\//, 'This kind of picture cannot be shown in every browser.', 'Save it as PNG, JPEG or WebP.'],
  [/^video\//, 'This kind of film cannot be played in every browser.', 'Export it as MP4 or WebM.'],
  [/^audio\//, 'This kind of sound cannot be played in every browser.', 'Export it as MP3, OGG or WAV.'],
  [/zip|rar|7z|tar|gzip/, 'This is an archive.', 'Unpack it, and hand in the files one by one.'],
];

/**
 * Says what a file is, by its content, and whether it can be read.
 *
 * @param name only tells Markdown from other plain text
 * @throws Refused with the reason, for what is empty, broken, protected, or of no kind that is taken
 */
export async function inspect(path: string, name: string): Promise<Inspected> {
  if ((await stat(path)).size === 0) throw new Refused('This file is empty.', 'Choose another file.');
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
      const other = OTHERS.find(([mime]) => mime.test(type?.mime ?? ''));
      throw other === undefined
        ? new Refused('This kind of file cannot be reviewed here.', 'Export it as PDF, then hand in that.')
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
    throw new Refused(
      'This document is damaged inside, so it cannot be read.',
      'Open it in your word processor, save it again, and hand in that.',
    );
  }
}

function protectedDocument(): Refused {
  return new Refused(
    'This document is protected by a password, so nobody could read it.',
    'Save it without a password, then hand in that.',
  );
}

/** A protected DOCX is wrapped into the old compound format, in which documents of old programs are as well. */
async function compoundFile(path: string): Promise<Refused> {
  const head = await firstBytes(path, 1 << 20);
  return head.includes(Buffer.from('EncryptedPackage', 'utf16le'))
    ? protectedDocument()
    : new Refused('This is in a format of old office programs.', 'Save it as DOCX, ODT or PDF, then hand in that.');
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
  if (head.length > LONGEST_TEXT)
    throw new Refused('This text is longer than 2 MB.', 'Hand in the part that is to be reviewed.');
  const marked = (head[0] === 0xff && head[1] === 0xfe) || (head[0] === 0xfe && head[1] === 0xff);
  const binary = !marked && head.some(isNoText);
  if (binary) {
    throw new Refused(
      'This file is damaged, or of a kind that cannot be reviewed here.',
      'Export it as PDF, then hand in that.',
    );
  }
  const begin = head.toString('utf8').trimStart().slice(0, 400);
  if (/^(<\?xml|<!doctype|<html|<svg)/i.test(begin)) {
    throw new Refused(
      /<svg/i.test(begin)
        ? 'Drawings in SVG may hold scripts, so they are not taken.'
        : 'This is a web page or data, not a text to read.',
      'Export it as PDF or PNG, then hand in that.',
    );
  }
  if (begin === '') throw new Refused('There is no text in this file.', 'Choose another file.');
  const markdown = /\.(md|markdown)$/i.test(name);
  return { family: 'plain-text', mime: markdown ? 'text/markdown' : 'text/plain', facts: {} };
}
