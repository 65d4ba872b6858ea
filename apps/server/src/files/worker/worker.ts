import type { MessagePort } from 'node:worker_threads';
import type { Converted } from './converted.js';
import { convertDocx, convertMarkdown, convertOdt, convertText } from './documents.js';
import { convertImage } from './images.js';
import { inspect, type Inspected } from './inspect.js';
import { convertMedia } from './media.js';
import { convertPdf } from './pdf.js';
import { cleanPicture } from './pictures.js';
import { Refused } from './refused.js';
import { writeFile, readFile } from 'node:fs/promises';

/** What a worker answers: what was asked for, or why the file cannot be taken. */
export type Answer<T> =
  { readonly done: T } | { readonly refused: { readonly sentence: string; readonly whatToDo: string } };

export interface InspectTask {
  readonly path: string;
  readonly name: string;
}

export interface ConvertTask {
  readonly path: string;
  readonly mime: string;
  /** An empty folder for what is made. */
  readonly folder: string;
  readonly port: MessagePort;
}

export function inspectFile({ path, name }: InspectTask): Promise<Answer<Inspected>> {
  return answered(() => inspect(path, name));
}

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

/** A picture for a typed text: as it will be shown, at `to`. */
export function takePicture({ path, to }: { readonly path: string; readonly to: string }): Promise<Answer<null>> {
  return answered(async () => {
    const clean = await cleanPicture(await readFile(path));
    if (clean === null) throw new Refused('This is no picture that browsers show.', 'Use PNG, JPEG or WebP.');
    await writeFile(to, clean);
    return null;
  });
}

function convert(path: string, mime: string, folder: string, tell: (share: number) => void): Promise<Converted> {
  if (mime === 'application/pdf') return convertPdf(path, folder, tell);
  if (mime.includes('wordprocessingml')) return convertDocx(path, folder);
  if (mime.includes('opendocument.text')) return convertOdt(path, folder);
  if (mime === 'text/markdown') return convertMarkdown(path);
  if (mime === 'text/plain') return convertText(path);
  if (mime.startsWith('image/')) return convertImage(path, folder);
  return convertMedia(path, folder, mime);
}

async function answered<T>(work: () => Promise<T>): Promise<Answer<T>> {
  try {
    return { done: await work() };
  } catch (error) {
    if (error instanceof Refused) return { refused: { sentence: error.sentence, whatToDo: error.whatToDo } };
    throw error;
  }
}
