import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { PartView } from '@salt-circle/contracts';
import request from 'supertest';
import { Copies } from '../features/reading/copies.service.js';
import { publishedExchange } from './acts.js';
import { AT } from './plan.js';
import { type World } from './world.js';

export const sample = (name: string): Buffer =>
  readFileSync(join(import.meta.dirname, '../platform/files/samples', name));

const base64 = (text: string) => Buffer.from(text).toString('base64');

export interface Sending {
  readonly exchangeId: string;
  readonly deliverableId: string;
  readonly name: string;
  readonly bytes: Buffer;
  readonly use?: 'part' | 'picture' | 'captions' | 'attachment' | 'remark' | 'marked' | 'archive';
  readonly participant?: string;
}

/** Begins an upload by the protocol. @returns the answer, and the id of the upload where it was welcome */
export async function begin(
  world: World,
  person: number,
  { exchangeId, deliverableId, name, bytes, use = 'part', participant }: Sending,
) {
  const pairs = {
    exchange: exchangeId,
    deliverable: deliverableId,
    name,
    use,
    ...(participant !== undefined && { participant }),
  };
  const response = await request(world.app.getHttpServer())
    .post('/api/uploads')
    .set('x-salt-circle', '1')
    .set('cookie', await world.cookieOf(person))
    .set('tus-resumable', '1.0.0')
    .set('upload-length', String(bytes.length))
    .set(
      'upload-metadata',
      Object.entries(pairs)
        .map(([key, value]) => `${key} ${base64(value)}`)
        .join(','),
    );
  return {
    response,
    id:
      String(response.headers['location'] ?? '')
        .split('/')
        .at(-1) ?? '',
  };
}

/** Sends bytes of an upload, from `offset` on. */
export async function send(world: World, person: number, id: string, bytes: Buffer, offset = 0) {
  return request(world.app.getHttpServer())
    .patch(`/api/uploads/${id}`)
    .set('x-salt-circle', '1')
    .set('cookie', await world.cookieOf(person))
    .set('tus-resumable', '1.0.0')
    .set('content-type', 'application/offset+octet-stream')
    .set('upload-offset', String(offset))
    .send(bytes);
}

/** Uploads a file and adds it to the draft; the answer to the adding, or the refusal before it. */
export async function attach(world: World, person: number, sending: Sending) {
  const { response, id } = await begin(world, person, sending);
  if (response.status >= 300) return { status: response.status, body: response.body };
  await send(world, person, id, sending.bytes);
  return world.as(person, 'post', `/exchanges/${sending.exchangeId}/draft/files`, { uploadId: id });
}

/** Like `attach`, for what must be taken; waits until its reading copy has been made. */
export async function attached(world: World, person: number, sending: Sending): Promise<PartView> {
  const { status, body } = await attach(world, person, sending);
  if (status >= 300) throw new Error(`${sending.name}: ${status} ${JSON.stringify(body)}`);
  await world.app.get(Copies).idle();
  return body as PartView;
}

const FAMILIES = ['pdf', 'document', 'plain-text', 'image', 'audio', 'video'] as const;
const file = { kind: 'file' as const, description: '', required: false, families: [...FAMILIES], maxMegabytes: 5 };
export const FILES = [
  {
    id: 'text',
    kind: 'text' as const,
    title: 'Report',
    description: '',
    required: true,
    families: [],
    maxMegabytes: 50,
  },
  { id: 'files', title: 'Files', ...file },
  { id: 'papers', title: 'Paper', ...file, families: ['pdf' as const, 'document' as const] },
  { ...file, id: 'talk', kind: 'recording' as const, title: 'Talk', families: [] },
  { ...file, id: 'map', kind: 'link' as const, title: 'Map', families: [] },
];

/** An exchange that takes every kind of thing, while drafts are open. */
export async function exchangeOfFiles(
  world: World,
  part: Parameters<typeof publishedExchange>[1] = {},
): Promise<string> {
  const id = await publishedExchange(world, { deliverables: FILES, ...part });
  world.clock.goTo(AT.drafting);
  return id;
}
