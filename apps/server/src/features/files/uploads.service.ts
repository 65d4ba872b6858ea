import { AsyncLocalStorage } from 'node:async_hooks';
import { mkdirSync } from 'node:fs';
import { readdir, rm, stat } from 'node:fs/promises';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { join } from 'node:path';
import { Inject, Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import type { FileStore as TusStore } from '@tus/file-store';
import type { Server } from '@tus/server';
import type { CurrentUser } from '../../auth/view-as.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Ids } from '../../platform/ids/ids.js';
import { isFileRefused } from '../../platform/problems/file-refused.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refused } from './refused.js';
import { say } from '../../words/uploads.js';

const USES = ['part', 'picture', 'captions', 'attachment', 'remark', 'marked', 'archive'] as const;
export type UploadUse = (typeof USES)[number];

/** What an upload is for; said when it begins, checked before a byte is taken, and kept with it. */
export interface Purpose {
  readonly exchangeId: string;
  /** Of an attachment: `brief` or `guide`. Of a remark, and of a draft that was marked elsewhere: the review. */
  readonly deliverableId: string;
  readonly name: string;
  readonly use: UploadUse;
  /** For staff: the participant whose draft it goes into. */
  readonly participantId: string | null;
}

/** An upload that is in no draft yet, finished or not. */
export interface OpenUpload extends Purpose {
  readonly id: string;
  /** Bytes, as announced, and how many of them have come. */
  readonly size: number;
  readonly received: number;
}

export interface Upload extends Purpose {
  readonly id: string;
  readonly path: string;
  readonly size: number;
}

/** An upload that nobody went on with for so long is given up, in milliseconds. */
const KEPT = 48 * 3_600_000;
/** Uploads of a person that are in no draft yet: how many, and bytes as announced. */
const OPEN_UPLOADS = 20;
const OPEN_BYTES = 2_000_000_000;
const ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** Uploads that can be interrupted and taken up again, by the open protocol tus 1.0.0 and its own server. */
@Injectable()
export class Uploads implements OnApplicationShutdown {
  readonly #folder: string;
  readonly #logger = new Logger('uploads');
  /** Who asks for which upload, on the way through the protocol's server, which is not asked to find out by itself. */
  readonly #asking = new AsyncLocalStorage<{ readonly personId: string; readonly id: string | null }>();
  /** Whose uploads lie here: of each its announced size. Found out once, and kept up. */
  #known: Promise<Map<string, { readonly owner: string; readonly size: number }>> | null = null;
  #tus: Promise<{ server: Server; store: TusStore }> | null = null;

  constructor(
    @Inject(SETTINGS) settings: Settings,
    private readonly ids: Ids,
  ) {
    this.#folder = join(settings.dataFolder, 'uploads');
    mkdirSync(this.#folder, { recursive: true });
  }

  /**
   * Call it only for requests that have been checked: new ones against the plan, others with `owned`.
   * @param id of the upload, the same that was checked; null for a new one
   */
  async handle(
    person: CurrentUser,
    id: string | null,
    request: IncomingMessage,
    response: ServerResponse,
  ): Promise<void> {
    const { server } = await this.#ready();
    await this.#asking.run({ personId: person.id, id }, () => server.handle(request, response));
    if (id !== null && request.method === 'DELETE') (await this.#list()).delete(id);
  }

  onApplicationShutdown(): void {
    // As for the database's: Node would go on asking it.
    this.#asking.disable();
  }

  /** How many uploads of a person lie here, and how much they announced together, in bytes. */
  async sumOf(person: CurrentUser): Promise<{ readonly count: number; readonly bytes: number }> {
    const own = [...(await this.#list()).values()].filter(({ owner }) => owner === person.id);
    return { count: own.length, bytes: own.reduce((sum, { size }) => sum + size, 0) };
  }

  /** A person's uploads that are in no draft yet. */
  async openOf(person: CurrentUser): Promise<OpenUpload[]> {
    const ids = [...(await this.#list())].flatMap(([id, { owner }]) => (owner === person.id ? [id] : []));
    const open: OpenUpload[] = [];
    for (const id of ids) {
      const upload = await this.owned(person, id).catch((error: unknown) => {
        if (error instanceof ProblemError) return null;
        throw error;
      });
      if (upload === null) continue;
      const { path, finished: _, ...rest } = upload;
      open.push({ ...rest, received: (await stat(path)).size });
    }
    return open;
  }

  /** An upload of this person, finished or not. @throws ProblemError for any other */
  async owned(person: CurrentUser, id: string): Promise<Upload & { readonly finished: boolean }> {
    const { store } = await this.#ready();
    const upload = ID.test(id) ? await store.getUpload(id).catch(() => null) : null;
    const said = upload?.metadata ?? {};
    if (upload === null || said['owner'] !== person.id) {
      throw uploadUnknown();
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
    (await this.#list()).delete(id);
  }

  /** What is done with an upload. One that is refused is nothing to go on with, and forgotten. */
  async using<T>({ id }: Pick<Upload, 'id'>, work: () => Promise<T>): Promise<T> {
    try {
      return await work();
    } catch (error) {
      if (isFileRefused(error)) await this.forget(id);
      throw error;
    }
  }

  async removeOld(): Promise<void> {
    const { server } = await this.#ready();
    await server.cleanUpExpiredUploads();
    this.#known = null;
  }

  #list(): Promise<Map<string, { readonly owner: string; readonly size: number }>> {
    this.#known ??= this.#readList();
    return this.#known;
  }

  async #readList(): Promise<Map<string, { readonly owner: string; readonly size: number }>> {
    const { store } = await this.#ready();
    const list = new Map<string, { readonly owner: string; readonly size: number }>();
    for (const id of await readdir(this.#folder)) {
      const upload = ID.test(id) ? await store.getUpload(id).catch(() => null) : null;
      if (upload !== null) list.set(id, { owner: upload.metadata?.['owner'] ?? '', size: upload.size ?? 0 });
    }
    return list;
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
      getFileIdFromRequest: () => this.#asking.getStore()?.id ?? undefined,
      // Whatever the browser says of the owner: the session knows.
      onUploadCreate: async (_, upload) => {
        const owner = this.#asking.getStore()?.personId ?? '';
        const list = await this.#list();
        // Counted and noted without a pause between: of many that are begun at once, no more are taken than there is room for.
        assertRoomFor(
          [...list.values()].filter((one) => one.owner === owner),
          upload.size ?? 0,
        );
        list.set(upload.id, { owner, size: upload.size ?? 0 });
        return { metadata: { ...upload.metadata, owner } };
      },
      onResponseError: (_, error) => this.#answer(error),
    });
    return { server, store };
  }

  /** Refusals of the protocol are as they are; anything else says nothing of where things lie on this machine. */
  #answer(error: unknown): { status_code: number; body: string } | undefined {
    const {
      status_code: status,
      code,
      message = '',
    } = error as { status_code?: number; code?: string; message?: string };
    if (error instanceof ProblemError) return asAnswer(error);
    if (code === 'ENOSPC' || message.includes('ENOSPC')) return asAnswer(storeFull());
    if (status !== undefined && status < 500) return undefined;
    this.#logger.error(error instanceof Error ? (error.stack ?? message) : 'an upload failed');
    return asAnswer(uploadUnknown());
  }
}

/** @throws ProblemError when a person has as many uploads on the way as there may be */
function assertRoomFor(own: ReadonlyArray<{ readonly size: number }>, size: number): void {
  const bytes = own.reduce((sum, one) => sum + one.size, 0);
  if (own.length < OPEN_UPLOADS && bytes + size <= OPEN_BYTES) return;
  throw refused(
    say('youHaveFilesOnWay', { own: own.length, bytes: Math.round(bytes / 1_000_000) }),
    say('letThemFinishOrDrop'),
  );
}

function asAnswer({ status, problem }: ProblemError): { status_code: number; body: string } {
  return { status_code: status, body: JSON.stringify(problem) };
}

function uploadUnknown(): ProblemError {
  return new ProblemError({
    code: 'upload-unknown',
    sentence: say('thisUploadIsNotKnown'),
    whatToDo: say('chooseFileAgain'),
  });
}

function asUse(text: string | null | undefined): Purpose['use'] {
  return USES.find((use) => use === text) ?? 'part';
}

/** For a server whose room for files (bytes) is used up. */
export function storeFull(): ProblemError {
  return new ProblemError({
    code: 'store-full',
    sentence: say('serverHasNoRoomLeft'),
    whatToDo: say('tellYourInstructorAndTry'),
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
