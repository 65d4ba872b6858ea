import { writeFile } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import sharp from 'sharp';
import { escapeHtml } from '../../html/escape.js';

/** More than any camera's picture; a picture that claims more is not decoded. */
export const MOST_PIXELS = 100_000_000;
/** Longest side of a picture in a text, in pixels. */
const LONGEST = 2_000;

/** Pictures of a document on their way into the file store: without metadata, in a format that browsers show. */
export class Pictures {
  readonly digests: string[] = [];

  constructor(private readonly folder: string) {}

  /** @returns the element to stand in the text; words instead when the picture cannot be shown */
  async take(bytes: Buffer, alt: string): Promise<string> {
    const clean = await cleanPicture(bytes);
    if (clean === null) return '<em>[A picture in a format that browsers do not show.]</em>';
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
    const fitted = image.resize({ width: LONGEST, height: LONGEST, fit: 'inside', withoutEnlargement: true });
    // Drawings are not taken: they may hold text and references.
    if (format === 'svg' || format === 'pdf') return null;
    if (format === 'jpeg') return await fitted.jpeg({ quality: 88 }).toBuffer();
    if (format === 'webp') return await fitted.webp({ quality: 88 }).toBuffer();
    return await fitted.png().toBuffer();
  } catch {
    return null;
  }
}
