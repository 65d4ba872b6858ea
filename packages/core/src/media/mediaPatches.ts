import type { ByteSource, Patch } from './bytes.js';
import { mp3Patches } from './mp3.js';
import { mp4Patches } from './mp4.js';
import { oggPatches } from './ogg.js';
import { wavPatches } from './wav.js';
import { webmPatches } from './webm.js';

export type MediaContainer = 'mp4' | 'webm' | 'mp3' | 'ogg' | 'wav';

const BY_CONTAINER: Readonly<Record<MediaContainer, (source: ByteSource) => Patch[]>> = {
  mp4: mp4Patches,
  webm: webmPatches,
  mp3: mp3Patches,
  ogg: oggPatches,
  wav: wavPatches,
};

/**
 * What to write over a sound or a film so that it says nothing of who made it, where and when. Sound and picture are not
 * touched and the length stays. A file that is broken is walked as far as it makes sense.
 */
export function mediaPatches(container: MediaContainer, source: ByteSource): Patch[] {
  return BY_CONTAINER[container](source);
}
