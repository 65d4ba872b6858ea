import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import exifr from 'exifr';
import sharp from 'sharp';
import type { FoundMetadata } from '../../../model/stored-file.js';
import type { Converted } from './converted.js';
import { cleanPicture, MOST_PIXELS } from './pictures.js';
import { Refused } from '../../bytes/refused.js';

const WORDS: Readonly<Record<string, string>> = {
  Artist: 'photographer in the picture’s data',
  Copyright: 'copyright in the picture’s data',
  XPAuthor: 'author in the picture’s data',
  CameraOwnerName: 'owner of the camera in the picture’s data',
  OwnerName: 'owner of the camera in the picture’s data',
  ImageDescription: 'description in the picture’s data',
  UserComment: 'comment in the picture’s data',
  byline: 'photographer in the picture’s data',
  creator: 'creator in the picture’s data',
};

/** @throws Refused for what cannot be decoded, or claims to be larger than any camera's picture */
export async function inspectImage(path: string): Promise<{ width: number; height: number }> {
  try {
    const image = sharp(path, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
    const { width, height } = (await image.metadata()).autoOrient;
    await image.stats();
    return { width, height };
  } catch (error) {
    if (/pixel limit/i.test((error as Error).message)) {
      throw new Refused('This picture is larger than 100 million pixels.', 'Make it smaller, then hand it in.');
    }
    throw new Refused('This picture is damaged, so it cannot be shown.', 'Save it again, then hand in that.');
  }
}

/** The same picture without its metadata, turned as it is to be seen. @throws Refused where none can be made */
export async function convertImage(path: string, folder: string): Promise<Converted> {
  const bytes = await readFile(path);
  const clean = await cleanPicture(bytes);
  if (clean === null)
    throw new Refused('A copy without its data could not be made of this picture.', 'Save it again as PNG or JPEG.');
  await writeFile(join(folder, 'copy'), clean);
  return { facts: await inspectImage(join(folder, 'copy')), copyFile: 'copy', metadata: await metadataOf(bytes) };
}

/** The reader of picture data knows no WebP: there it gets the Exif part alone, which is a TIFF of its own. */
async function readable(bytes: Buffer): Promise<Buffer> {
  const { format, exif } = await sharp(bytes).metadata();
  if (format !== 'webp' || exif === undefined) return bytes;
  return exif.subarray(0, 4).toString('latin1') === 'Exif' ? exif.subarray(6) : exif;
}

async function metadataOf(bytes: Buffer): Promise<FoundMetadata[]> {
  const options = { iptc: true, xmp: true, tiff: true, exif: true, gps: true };
  const data = (await exifr.parse(await readable(bytes), options).catch(() => undefined)) as
    Readonly<Record<string, unknown>> | undefined;
  const found = Object.entries(data ?? {}).flatMap(([key, value]): FoundMetadata[] => {
    const where = WORDS[key];
    const text = Array.isArray(value) ? value.join(', ') : value;
    return where !== undefined && typeof text === 'string' && text.trim() !== '' ? [{ where, value: text.trim() }] : [];
  });
  const placed = data?.['latitude'] !== undefined;
  return placed ? [...found, { where: 'place in the picture’s data', value: 'coordinates' }] : found;
}
