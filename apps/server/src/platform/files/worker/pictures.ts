import { writeFile } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import sharp from 'sharp';
import { escapeHtml } from '../../html/escape.js';
import { say } from '../../../words/files.js';

/** More than any camera's picture; a picture that claims more is not decoded. */
export const MOST_PIXELS = 100_000_000;

/** Pictures of a document on their way into the file store: without metadata, in a format that browsers show. */
export class Pictures {
  readonly digests: string[] = [];
  /** How many there were that browsers do not show. */
  notShown = 0;

  constructor(private readonly folder: string) {}

  /** @returns the element to stand in the text; words instead when the picture cannot be shown */
  async take(bytes: Buffer, alt: string): Promise<string> {
    const clean = await cleanPicture(bytes);
    if (clean === null) {
      this.notShown += 1;
      return `<em>${escapeHtml(say('pictureNotShown'))}</em>`;
    }
    const digest = createHash('sha256').update(clean).digest('hex');
    await writeFile(join(this.folder, digest), clean);
    if (!this.digests.includes(digest)) this.digests.push(digest);
    return `<img src="picture:${digest}" alt="${escapeHtml(alt.trim())}">`;
  }
}

/** The same picture as PNG, JPEG or WebP without anything but its pixels; null for what is none. */
export async function cleanPicture(bytes: Buffer): Promise<Buffer | null> {
  try {
    const image = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' }).autoOrient();
    const { format } = await image.metadata();
    // Drawings are not taken: they may hold text and references.
    if (format === 'svg' || format === 'pdf') return null;
    if (format === 'jpeg') return await image.jpeg({ quality: 92 }).toBuffer();
    if (format === 'webp') return await image.webp({ quality: 92 }).toBuffer();
    return await image.png().toBuffer();
  } catch {
    return null;
  }
}
