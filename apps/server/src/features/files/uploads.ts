import { AsyncLocalStorage } from 'node:async_hooks';
import { mkdirSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { join } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import type { FileStore as TusStore } from '@tus/file-store';
import type { Server } from '@tus/server';
import type { Asker } from '../../access/seeing.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';

/** What an upload is for; said when it begins, checked before a byte is taken, and kept with it. */
export interface Purpose {
  readonly exchangeId: string;
  readonly deliverableId: string;
  readonly name: string;
  readonly use: 'part' | 'picture' | 'captions';
  /** For staff: the participant whose draft it goes into. */
  readonly participantId: string | null;
}

export interface Upload extends Purpose {
  readonly id: string;
  readonly path: string;
  readonly size: number;
}

/** An upload that nobody went on with for so long is given up, in milliseconds. */
const KEPT = 48 * 3_600_000;
const ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** Uploads that can be interrupted and taken up again, by the open protocol tus 1.0.0 and its own server. */
@Injectable()
export class Uploads {
  readonly #folder: string;
  /** Who asks, on the way through the protocol's server. */
  readonly #owner = new AsyncLocalStorage<string>();
  #tus: Promise<{ server: Server; store: TusStore }> | null = null;

  constructor(
    @Inject(SETTINGS) settings: Settings,
    private readonly ids: Ids,
  ) {
    this.#folder = join(settings.dataFolder, 'uploads');
    mkdirSync(this.#folder, { recursive: true });
  }

  /** Call it only for requests that have been checked: new ones against the plan, others with `owned`. */
  async handle(person: Asker, request: IncomingMessage, response: ServerResponse): Promise<void> {
    const { server } = await this.#ready();
    await this.#owner.run(person.id, () => server.handle(request, response));
  }

  /** An upload of this person, finished or not. @throws ProblemError for any other */
  async owned(person: Asker, id: string): Promise<Upload & { readonly finished: boolean }> {
    const { store } = await this.#ready();
    const upload = ID.test(id) ? await store.getUpload(id).catch(() => null) : null;
    const said = upload?.metadata ?? {};
    if (upload === null || said['owner'] !== person.id) {
      throw new ProblemError({
        code: 'upload-unknown',
        sentence: 'This upload is not known any more, perhaps because it was given up long ago.',
        whatToDo: 'Choose the file again.',
      });
    }
    return {
      id,
      path: join(this.#folder, id),
      size: upload.size ?? 0,
      finished: upload.size !== undefined && upload.offset === upload.size,
      exchangeId: said['exchange'] ?? '',
      deliverableId: said['deliverable'] ?? '',
      name: said['name'] ?? '',
      use: asUse(said['use']),
      participantId: said['participant'] ?? null,
    };
  }

  async forget(id: string): Promise<void> {
    await Promise.all(
      [join(this.#folder, id), join(this.#folder, `${id}.json`)].map((path) => rm(path, { force: true })),
    );
  }

  async removeOld(): Promise<void> {
    const { server } = await this.#ready();
    await server.cleanUpExpiredUploads();
  }

  #ready(): Promise<{ server: Server; store: TusStore }> {
    this.#tus ??= this.#start();
    return this.#tus;
  }

  async #start(): Promise<{ server: Server; store: TusStore }> {
    const { Server: TusServer } = await import('@tus/server');
    const { FileStore: TusFiles } = await import('@tus/file-store');
    const store = new TusFiles({ directory: this.#folder, expirationPeriodInMilliseconds: KEPT });
    const server = new TusServer({
      path: '/api/uploads',
      datastore: store,
      relativeLocation: true,
      allowedOrigins: () => false,
      namingFunction: () => this.ids.uuid(),
      // Whatever the browser says of the owner: the session knows.
      onUploadCreate: (_, upload) =>
        Promise.resolve({ metadata: { ...upload.metadata, owner: this.#owner.getStore() ?? '' } }),
      onResponseError: (_, error) => {
        const full = (error as { code?: string }).code === 'ENOSPC' || /ENOSPC/.test((error as Error).message ?? '');
        return full ? { status_code: 507, body: JSON.stringify(storeFull().problem) } : undefined;
      },
    });
    return { server, store };
  }
}

function asUse(text: string | null | undefined): Purpose['use'] {
  return text === 'picture' || text === 'captions' ? text : 'part';
}

/** For a server whose room for files (bytes) is used up. */
export function storeFull(): ProblemError {
  return new ProblemError({
    code: 'store-full',
    sentence: 'The server has no room left for files, so this one was not taken. Your hand-in has not changed.',
    whatToDo: 'Tell your instructor, and try again later. What was uploaded so far is kept.',
  });
}

/** The metadata of the protocol: pairs of a key and a value in base64, with commas between. */
export function purposeFrom(header: string): Purpose {
  const pairs = new Map(
    header.split(',').map((pair) => {
      const [key = '', value = ''] = pair.trim().split(/\s+/);
      return [key, Buffer.from(value, 'base64').toString('utf8')] as const;
    }),
  );
  return {
    exchangeId: pairs.get('exchange') ?? '',
    deliverableId: pairs.get('deliverable') ?? '',
    name: pairs.get('name') ?? '',
    use: asUse(pairs.get('use')),
    participantId: pairs.get('participant') ?? null,
  };
}
