import contentDisposition from 'content-disposition';
import type { Response } from 'express';
import type { FileStore } from '../../platform/files/file-store.js';
import { refusal } from '../../platform/problems/sentences.js';

/** Whatever a file holds: it runs nothing, loads nothing, and is taken for what we say it is. */
const HARMLESS = "sandbox; default-src 'none'; style-src 'none'; media-src 'self'; img-src 'self'";

export interface Sent {
  readonly digest: string;
  readonly mime: string;
  readonly name: string;
  /** To be kept, not shown. */
  readonly attachment: boolean;
}

/** SHA-256 in hexadecimal. */
export function isDigest(text: string): boolean {
  return /^[0-9a-f]{64}$/.test(text);
}

/** Answers with a file of the store; whether the one who asks may have it has been decided. @throws ProblemError for one that is not there */
export function sendFile(store: FileStore, response: Response, file: Sent): void {
  if (!store.has(file.digest)) throw refusal('unknown');
  response.setHeader('Content-Type', file.mime);
  response.setHeader('Content-Security-Policy', HARMLESS);
  response.setHeader('X-Content-Type-Options', 'nosniff');
  response.setHeader(
    'Content-Disposition',
    contentDisposition(file.name, { type: file.attachment ? 'attachment' : 'inline' }),
  );
  // The same content for good, but whether one may see it is asked again each time; packing it would break its ranges.
  response.setHeader('ETag', `"${file.digest}"`);
  response.setHeader('Cache-Control', 'private, no-cache, no-transform');
  // Ranges and conditional requests are answered by the sender of Express.
  response.sendFile(
    store.path(file.digest),
    { cacheControl: false, lastModified: false, dotfiles: 'allow' },
    (error) => {
      if (error !== undefined && !response.headersSent) response.status(404).end();
    },
  );
}

/** The same for a picture in a text. */
export async function sendPicture(store: FileStore, response: Response, digest: string): Promise<void> {
  const { fileTypeFromFile } = await import('file-type');
  const mime = (await fileTypeFromFile(store.path(digest)))?.mime ?? 'application/octet-stream';
  sendFile(store, response, { digest, mime, name: 'picture', attachment: false });
}
