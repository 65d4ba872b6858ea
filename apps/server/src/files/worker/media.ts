import { closeSync, copyFileSync, fstatSync, fsyncSync, openSync, readSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { mediaPatches, type ByteSource, type MediaContainer } from '@salt-circle/core';
import type { FoundMetadata } from '../entities.js';
import type { Converted } from './converted.js';
import { Refused } from './refused.js';

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

/** @throws Refused for what cannot be read, or has neither sound nor picture */
export async function inspectMedia(path: string): Promise<MediaFacts> {
  const { format } = await parsed(path).catch(() => {
    throw new Refused('This recording is damaged, so it cannot be played.', 'Export it again, then hand in that.');
  });
  // A live recording does not say how long it is; the player finds out.
  const seconds =
    format.duration !== undefined && Number.isFinite(format.duration) && format.duration > 0
      ? format.duration
      : undefined;
  const hasVideo = format.hasVideo === true || (format.trackInfo ?? []).some((track) => track.video !== undefined);
  if (seconds === undefined && format.codec === undefined && (format.trackInfo ?? []).length === 0) {
    throw new Refused('There is nothing to play in this file.', 'Record or export it again, then hand in that.');
  }
  return { hasVideo, ...(seconds !== undefined && { seconds }) };
}

export async function convertMedia(path: string, folder: string, mime: string): Promise<Converted> {
  const { common, format } = await parsed(path);
  const container = CONTAINERS[mime];
  if (container === undefined) throw new Error(`no container is known for ${mime}`);
  const copy = join(folder, 'copy');
  copyFileSync(path, copy);
  const file = openSync(copy, 'r+');
  try {
    const source: ByteSource = {
      size: fstatSync(file).size,
      read: (at, length) => {
        const buffer = Buffer.alloc(Math.max(0, length));
        return at < 0 ? buffer.subarray(0, 0) : buffer.subarray(0, readSync(file, buffer, 0, buffer.length, at));
      },
    };
    for (const { at, bytes } of mediaPatches(container, source)) writeSync(file, bytes, 0, bytes.length, at);
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
  const named = (where: string, value: string | undefined): FoundMetadata[] =>
    value === undefined || value.trim() === '' ? [] : [{ where, value: value.trim() }];
  const seconds = format.duration;
  return {
    facts: seconds !== undefined && Number.isFinite(seconds) && seconds > 0 ? { seconds } : {},
    copyFile: 'copy',
    metadata: [
      ...named('title of the recording', common.title),
      ...named('artist of the recording', common.artist),
      ...(common.comment ?? []).flatMap((one) => named('comment of the recording', one.text)),
    ],
  };
}
