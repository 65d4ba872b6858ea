import { closeSync, copyFileSync, fstatSync, fsyncSync, openSync, readSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { mediaPatches, webmFacts, type ByteSource, type MediaContainer } from '@salt-circle/core';
import type { FoundMetadata } from '../../../model/stored-file.js';
import type { Converted } from './converted.js';
import { Refused } from '../../bytes/refused.js';

export interface MediaFacts {
  readonly seconds?: number;
  readonly hasVideo: boolean;
}

const CONTAINERS: Readonly<Record<string, MediaContainer>> = {
  'video/mp4': 'mp4',
  'audio/mp4': 'mp4',
  'video/webm': 'webm',
  'audio/webm': 'webm',
  'audio/mpeg': 'mp3',
  'audio/ogg': 'ogg',
  'audio/wav': 'wav',
};

async function parsed(path: string) {
  const { parseFile } = await import('music-metadata');
  return parseFile(path, { duration: true, skipCovers: true });
}

const NOTHING_TO_PLAY = [
  'There is nothing to play in this file.',
  'Record or export it again, then hand in that.',
] as const;

/** @throws Refused for what cannot be read, or has neither sound nor picture */
export async function inspectMedia(path: string): Promise<MediaFacts> {
  const { format } = await parsed(path).catch(() => {
    throw new Refused('This recording is damaged, so it cannot be played.', 'Export it again, then hand in that.');
  });
  const { duration } = format;
  const hasVideo = format.hasVideo === true || (format.trackInfo ?? []).some((track) => track.video !== undefined);
  if (format.codec === undefined && !hasVideo) throw new Refused(...NOTHING_TO_PLAY);
  const known = duration !== undefined && Number.isFinite(duration) && duration > 0;
  return { hasVideo, ...(known && { seconds: duration }) };
}

/** The general reader does not know live recordings, which do not say how long their parts are; our own does. */
export function inspectWebm(path: string): MediaFacts {
  const { hasVideo, hasSound, seconds } = reading(path, 'r', webmFacts);
  if (!hasVideo && !hasSound) throw new Refused(...NOTHING_TO_PLAY);
  return { hasVideo, ...(seconds !== null && seconds > 0 && { seconds }) };
}

/** Works on a file piece by piece. */
function reading<T>(path: string, mode: 'r' | 'r+', work: (source: ByteSource, file: number) => T): T {
  const file = openSync(path, mode);
  try {
    const read = (at: number, length: number) => {
      const buffer = Buffer.alloc(Math.max(0, length));
      return at < 0 ? buffer.subarray(0, 0) : buffer.subarray(0, readSync(file, buffer, 0, buffer.length, at));
    };
    return work({ size: fstatSync(file).size, read }, file);
  } finally {
    closeSync(file);
  }
}

/** The same recording without tags that tell of its maker. */
export async function convertMedia(path: string, folder: string, mime: string): Promise<Converted> {
  const container = CONTAINERS[mime];
  if (container === undefined) throw new Error(`no container is known for ${mime}`);
  const copy = join(folder, 'copy');
  copyFileSync(path, copy);
  reading(copy, 'r+', (source, file) => {
    for (const { at, bytes } of mediaPatches(container, source)) writeSync(file, bytes, 0, bytes.length, at);
    fsyncSync(file);
  });
  const live = container === 'webm' ? inspectWebm(path) : null;
  const told = await parsed(path).catch(() => null);
  const common = told?.common;
  const named = (where: string, value: string | undefined): FoundMetadata[] =>
    value === undefined || value.trim() === '' ? [] : [{ where, value: value.trim() }];
  const seconds = live === null ? told?.format.duration : live.seconds;
  return {
    facts: seconds !== undefined && Number.isFinite(seconds) && seconds > 0 ? { seconds } : {},
    copyFile: 'copy',
    metadata: [
      ...named('title of the recording', common?.title),
      ...named('artist of the recording', common?.artist),
      ...(common?.comment ?? []).flatMap((one) => named('comment of the recording', one.text)),
    ],
  };
}
