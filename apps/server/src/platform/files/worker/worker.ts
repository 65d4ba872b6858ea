import type { MessagePort } from 'node:worker_threads';
import { findIdentities, type Identity, type IdentityFind, type SearchOptions } from '@salt-circle/core';
import type { Converted } from './converted.js';
import { inspect, type Inspected } from './inspect.js';
import { answered, type Answer } from '../../bytes/answered.js';
import { Refused } from '../../bytes/refused.js';
import { writeFile, readFile } from 'node:fs/promises';
import { say } from '../../../words/files.js';

export interface InspectTask {
  readonly path: string;
  readonly name: string;
}

export interface NamesTask {
  readonly texts: ReadonlyArray<{ readonly text: string; readonly as: SearchOptions['as'] }>;
  readonly people: readonly Identity[];
}

export interface ConvertTask {
  readonly path: string;
  readonly mime: string;
  /** An empty folder for what is made. */
  readonly folder: string;
  readonly port: MessagePort;
}

/** Runs in a thread: what a file is; or, as a value, why nobody could read it. */
export function inspectFile({ path, name }: InspectTask): Promise<Answer<Inspected>> {
  return answered(() => inspect(path, name));
}

/** Runs in a thread: makes the reading copy of a file that was let in. */
export function convertFile({ path, mime, folder, port }: ConvertTask): Promise<Answer<Converted>> {
  const tell = (share: number) => port.postMessage(share);
  return answered(async () => {
    try {
      return await convert(path, mime, folder, tell);
    } finally {
      port.close();
    }
  });
}

/** The finds of each text, in the order of the texts. */
export function findNames({ texts, people }: NamesTask): IdentityFind[][] {
  return texts.map(({ text, as }) => findIdentities(text, people, { as }));
}

/** A picture for a typed text: as it will be shown, at `to`. */
export function takePicture({ path, to }: { readonly path: string; readonly to: string }): Promise<Answer<null>> {
  return answered(async () => {
    const { cleanPicture } = await import('./pictures.js');
    const clean = await cleanPicture(await readFile(path));
    if (clean === null) throw new Refused(say('thisIsNoPictureThat'), say('usePngJpegOrWebp'));
    await writeFile(to, clean);
    return null;
  });
}

/** Each reader is loaded with its first file: a thread that looks at a text needs none of the others. */
async function convert(path: string, mime: string, folder: string, tell: (share: number) => void): Promise<Converted> {
  if (mime === 'application/pdf') return (await import('./pdf.js')).convertPdf(path, folder, tell);
  if (mime.startsWith('image/')) return (await import('./images.js')).convertImage(path, folder);
  if (mime.startsWith('video/') || mime.startsWith('audio/')) {
    return (await import('./media.js')).convertMedia(path, folder, mime, tell);
  }
  if (mime === 'text/vtt') return (await import('./captions.js')).convertCaptions(path, folder);
  const documents = await import('./documents.js');
  if (mime.includes('wordprocessingml')) return documents.convertDocx(path, folder);
  if (mime.includes('opendocument.text')) return documents.convertOdt(path, folder);
  return mime === 'text/markdown' ? documents.convertMarkdown(path) : documents.convertText(path);
}
