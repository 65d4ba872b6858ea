import { wordsBy } from '@salt-circle/core';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import ExifReader from 'exifreader';
import sharp from 'sharp';
import type { FoundMetadata } from '../../../model/stored-file.js';
import type { Converted } from './converted.js';
import { cleanPicture, MOST_PIXELS } from './pictures.js';
import { Refused } from '../../bytes/refused.js';
import { say } from '../../../words/files.js';

/** What a tag tells, for people; of other tags only that they are in the picture's data. */
const WHERE: Readonly<Record<string, string>> = wordsBy(say, {
  Artist: 'photographerInPicturesData',
  Byline: 'photographerInPicturesData',
  'By-line': 'photographerInPicturesData',
  creator: 'creatorInPicturesData',
  Copyright: 'copyrightInPicturesData',
  XPAuthor: 'authorInPicturesData',
  OwnerName: 'ownerOfCameraInPictures',
  CameraOwnerName: 'ownerOfCameraInPictures',
  ImageDescription: 'descriptionInPicturesData',
  UserComment: 'commentInPicturesData',
});
/** Words of one tag; UTF-16 code units. */
const LONGEST = 2_000;

/** @throws Refused for what cannot be decoded, or claims to be larger than any camera's picture */
export async function inspectImage(path: string): Promise<{ width: number; height: number }> {
  try {
    const image = sharp(path, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
    const { width, height } = (await image.metadata()).autoOrient;
    await image.stats();
    return { width, height };
  } catch (error) {
    if (/pixel limit/i.test((error as Error).message)) {
      throw new Refused(say('thisPictureIsLargerThan'), say('makeItSmallerThenHand'));
    }
    throw new Refused(say('thisPictureIsDamagedSo'), say('saveItAgainThenHand'));
  }
}

/** The same picture without its metadata, turned as it is to be seen. @throws Refused where none can be made */
export async function convertImage(path: string, folder: string): Promise<Converted> {
  const bytes = await readFile(path);
  const clean = await cleanPicture(bytes);
  if (clean === null) throw new Refused(say('copyWithoutItsDataCould'), say('saveItAgainAsPng'));
  await writeFile(join(folder, 'copy'), clean);
  return { facts: await inspectImage(join(folder, 'copy')), copyFile: 'copy', metadata: metadataOf(bytes) };
}

/** Everything in words that the picture says of itself, by tags that are known or not. */
function metadataOf(bytes: Buffer): FoundMetadata[] {
  const groups = groupsOf(bytes);
  const found = new Map<string, FoundMetadata>();
  for (const [group, tags] of Object.entries(groups)) {
    if (group === 'file' || group === 'Thumbnail' || tags === undefined) continue;
    for (const [key, tag] of Object.entries(tags as Record<string, { description?: unknown } | undefined>)) {
      const words = typeof tag?.description === 'string' ? tag.description.trim().slice(0, LONGEST) : '';
      const where = WHERE[key] ?? say('dataOfPicture');
      if (/\p{L}{2}/u.test(words)) found.set(`${where}\n${words}`, { where, value: words });
    }
  }
  const placed = groups['gps'] !== undefined;
  return [...found.values(), ...(placed ? [{ where: say('placeInPicture'), value: say('coordinates') }] : [])];
}

function groupsOf(bytes: Buffer): Record<string, unknown> {
  try {
    return ExifReader.load(bytes, { expanded: true }) as unknown as Record<string, unknown>;
  } catch {
    // A picture without any, or with some that cannot be read: the copy has none in either case.
    return {};
  }
}
