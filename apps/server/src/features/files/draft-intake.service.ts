import { wordsBy } from '@salt-circle/core';
import { open } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import type { AttachRequest, PartView } from '@salt-circle/contracts';
import type { Deliverable } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Access, type ExchangeContext } from '../../permissions/access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { DraftPart, type Draft } from '../../model/draft.js';
import type { StoredFile } from '../../model/stored-file.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { safeFileName } from '../../platform/files/safe-file-name.js';
import type { Inspected } from '../../platform/files/worker/inspect.js';
import { OwnDrafts } from '../drafts/own-draft.service.js';
import { Copies } from '../reading/copies.service.js';
import { Readings } from '../reading/readings.service.js';
import { FileIntake } from './file-intake.service.js';
import { Uploads, type Upload } from './uploads.service.js';
import { UploadPolicy } from './upload-policy.service.js';
import { say } from '../../words/uploads.js';

/** A file that lies ready, from an upload or from the application itself. */
interface Taken extends Pick<Upload, 'path' | 'name' | 'deliverableId' | 'participantId'> {
  /** Of the upload. */
  readonly id: string | null;
}

/** A part as its author sees it, with its copy for reading. */
@Injectable()
export class PartReading {
  constructor(
    private readonly readings: Readings,
    private readonly copies: Copies,
  ) {}

  async view(manager: EntityManager, context: ExchangeContext, draft: Draft, part: DraftPart): Promise<PartView> {
    const [view] = await this.readings.parts(manager, context, draft, [part], 'author');
    return view as PartView;
  }

  /** Call it after the transaction in which the file came. */
  copy(digest: string, person: CurrentUser): void {
    this.copies.enqueue(digest, person.id);
  }
}

/** Brings what was uploaded into a draft: looked at, kept by its content, and only then part of it. */
@Injectable()
export class Intake {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly policy: UploadPolicy,
    private readonly intake: FileIntake,
    private readonly uploads: Uploads,
    private readonly drafts: OwnDrafts,
    private readonly reading: PartReading,
  ) {}

  /** Adds a finished upload to the draft. The same upload again gives what it gave before. */
  async attach(person: CurrentUser, exchangeId: string, { uploadId, captionsFor }: AttachRequest): Promise<PartView> {
    const known = await this.#attached(person, exchangeId, uploadId);
    if (known !== null) return known;
    const upload = await this.policy.finished(person, exchangeId, uploadId);
    const view =
      captionsFor === undefined
        ? await this.take(person, exchangeId, upload)
        : await this.#takeCaptions(person, exchangeId, upload, captionsFor);
    await this.uploads.forget(uploadId);
    return view;
  }

  /** Takes a file of ours into the draft: looked at, kept, and its reading copy on the way. */
  async take(person: CurrentUser, exchangeId: string, file: Taken): Promise<PartView> {
    const context = await this.policy.place(person, exchangeId, file.participantId);
    const deliverable = this.drafts.deliverable(context, file.deliverableId, ['file', 'recording']);
    const inspected = await this.#fitting(file, deliverable);
    const kept = await this.intake.keep(file.path);
    const view = await this.database.write(async (manager, emit) => {
      const now = await this.policy.place(person, exchangeId, file.participantId, manager);
      const draft = await this.drafts.ensure(manager, now);
      await this.intake.record(manager, kept, inspected);
      const part = await this.drafts.newPart(manager, draft, deliverable.id, {
        kind: deliverable.kind,
        digest: kept.digest,
        name: safeFileName(file.name),
        uploadId: file.id,
        savedAt: this.clock.now(),
      });
      await this.drafts.tell(manager, emit, now, draft);
      return this.reading.view(manager, now, draft, part);
    });
    this.reading.copy(kept.digest, person);
    return view;
  }

  async #takeCaptions(person: CurrentUser, exchangeId: string, upload: Upload, partId: string): Promise<PartView> {
    if (!(await isWebVtt(upload.path))) {
      throw await this.intake.refuse(upload.id, say('theseAreNoCaptionsIn'), say('chooseVtt'));
    }
    const kept = await this.intake.keep(upload.path);
    const view = await this.database.write(async (manager, emit) => {
      const context = await this.policy.place(person, exchangeId, null, manager);
      const draft = await this.drafts.ensure(manager, context);
      const part = await this.drafts.part(manager, draft, partId);
      await this.intake.record(manager, kept, { family: 'captions', mime: 'text/vtt', facts: {} });
      await manager.update(DraftPart, { id: part.id }, { captions: kept.digest });
      await this.drafts.tell(manager, emit, context, draft);
      return this.reading.view(manager, context, draft, { ...part, captions: kept.digest });
    });
    this.reading.copy(kept.digest, person);
    return view;
  }

  async #attached(person: CurrentUser, exchangeId: string, uploadId: string): Promise<PartView | null> {
    const manager = this.database.read;
    const context = await this.access.exchange(person, exchangeId);
    const draft = await this.access.ownDraft(context);
    const part = draft === null ? null : await manager.findOneBy(DraftPart, { uploadId, draftId: draft.id });
    return part === null || draft === null ? null : this.reading.view(manager, context, draft, part);
  }

  /** What the file is, if it is of a kind that the deliverable takes. */
  async #fitting(file: Taken, { families, kind, title }: Deliverable): Promise<Inspected> {
    const inspected = await this.intake.inspect(file, file.id);
    const taken = kind === 'recording' ? (['audio', 'video'] as const) : families;
    if ((taken as readonly string[]).includes(inspected.family)) return inspected;
    const allowed = taken.map((family) => FAMILIES[family]).join(', ');
    throw await this.intake.refuse(
      file.id,
      say('isWhichIsNotTaken', { name: safeFileName(file.name), families: FAMILIES[inspected.family], title }),
      say('handIn', { allowed }),
    );
  }
}

/** WebVTT, section 4: the signature, after an optional byte order mark. */
async function isWebVtt(path: string): Promise<boolean> {
  const file = await open(path);
  try {
    const head = await file.read(Buffer.alloc(16), 0, 16, 0);
    return /^(\u00ef\u00bb\u00bf)?WEBVTT(\s|$)/.test(head.buffer.subarray(0, head.bytesRead).toString('latin1'));
  } finally {
    await file.close();
  }
}

const FAMILIES: Readonly<Record<StoredFile['family'], string>> = wordsBy(say, {
  pdf: 'pdf',
  document: 'docxOrOdt',
  'plain-text': 'plainTextOrMarkdown',
  image: 'picture',
  audio: 'sound',
  video: 'video',
  captions: 'captions',
});
