import { join } from 'node:path';
import { open, rm } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import type { AttachRequest, PartView } from '@salt-circle/contracts';
import type { Deliverable } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { Person } from '../accounts/entities.js';
import { Clock } from '../clock/clock.js';
import { Database } from '../database/database.js';
import { emptyPart, nextPosition } from '../drafts/drafts.service.js';
import { DraftPart, DraftPicture, type Draft } from '../drafts/entities.js';
import { deliverableOf, ensureDraft, ownPart } from '../drafts/own-draft.js';
import { Readings } from '../drafts/readings.js';
import { Access, act, type Place } from '../exchanges/access.js';
import { Ids } from '../ids/ids.js';
import { ProblemError } from '../problems/problem-error.js';
import { Copies } from './copies.service.js';
import { StoredFile } from './entities.js';
import { tamed } from './file-names.js';
import { FileStore, type Kept } from './file-store.js';
import { FileWorkers, WorkStopped } from './file-workers.js';
import { storeFull, Uploads, type Purpose, type Upload } from './uploads.js';
import type { Answer } from './worker/worker.js';
import type { Inspected } from './worker/inspect.js';

/** Bytes of a picture in a text, and of captions. */
const PICTURE_BYTES = 20_000_000;
const CAPTION_BYTES = 1_000_000;
const MEGA = 1_000_000;

/** A file that lies ready, from an upload or from the application itself. */
interface Taken extends Pick<Upload, 'path' | 'name' | 'deliverableId' | 'participantId'> {
  /** Of the upload. */
  readonly id: string | null;
}

/** Brings what was uploaded into a draft: looked at, kept by its content, and only then part of it. */
@Injectable()
export class Intake {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly uploads: Uploads,
    private readonly store: FileStore,
    private readonly workers: FileWorkers,
    private readonly copies: Copies,
    private readonly readings: Readings,
  ) {}

  /** Before a byte is taken: whether there is a place for it. @param size bytes, as announced */
  async assertWelcome(person: Person, purpose: Purpose, size: number): Promise<void> {
    const { deliverableId, use } = purpose;
    const place = await this.#place(person, purpose.exchangeId, purpose.participantId);
    const kinds = use === 'picture' ? (['text'] as const) : (['file', 'recording'] as const);
    const deliverable = deliverableOf(place, deliverableId, kinds);
    const most = { picture: PICTURE_BYTES, captions: CAPTION_BYTES, part: deliverable.maxMegabytes * MEGA }[use];
    if (!Number.isFinite(size) || size > most) {
      const given = (size / MEGA).toFixed(1);
      throw refused(
        `This file has ${given} MB; up to ${most / MEGA} MB are taken here.`,
        'Make it smaller, then try again.',
      );
    }
    if (size === 0) throw refused('This file is empty.', 'Choose another file.');
  }

  /** Adds a finished upload to the draft. The same upload again gives what it gave before. */
  async attach(person: Person, exchangeId: string, { uploadId, captionsFor }: AttachRequest): Promise<PartView> {
    const known = await this.#attached(person, exchangeId, uploadId);
    if (known !== null) return known;
    const upload = await this.#finished(person, exchangeId, uploadId);
    if (captionsFor !== undefined) return this.#attachCaptions(person, exchangeId, upload, captionsFor);
    const view = await this.take(person, exchangeId, upload);
    await this.uploads.forget(uploadId);
    return view;
  }

  /** Takes a file of ours into the draft: looked at, kept, and its reading copy on the way. */
  async take(person: Person, exchangeId: string, file: Taken): Promise<PartView> {
    const place = await this.#place(person, exchangeId, file.participantId);
    const deliverable = deliverableOf(place, file.deliverableId, ['file', 'recording']);
    const inspected = await this.#inspected(file, deliverable);
    const kept = await this.#kept(file.path);
    const view = await this.database.write(async (manager) => {
      const now = await this.#place(person, exchangeId, file.participantId, manager);
      const draft = await ensureDraft(manager, now, this.ids);
      await this.#store(manager, kept, inspected);
      const position = await nextPosition(manager, draft.id, deliverable.id);
      const part = manager.create(DraftPart, {
        ...emptyPart(this.ids.uuid(), draft.id, deliverable.id, position),
        kind: deliverable.kind,
        digest: kept.digest,
        name: tamed(file.name),
        uploadId: file.id,
        savedAt: this.clock.now(),
      });
      await manager.insert(DraftPart, part);
      return this.#view(manager, now, draft, part);
    });
    this.copies.enqueue(kept.digest);
    return view;
  }

  /** A picture for a typed text. @returns its digest, by which the text names it */
  async picture(person: Person, exchangeId: string, uploadId: string): Promise<{ digest: string; draftId: string }> {
    const upload = await this.#finished(person, exchangeId, uploadId);
    const folder = await this.store.workFolder();
    try {
      const to = join(folder, 'picture');
      await this.#done(this.workers.takePicture({ path: upload.path, to }));
      const { digest } = await this.#kept(to);
      const draftId = await this.database.write(async (manager) => {
        const place = await this.access.exchange(person, exchangeId, manager);
        act(place, { kind: 'save-draft' });
        const draft = await ensureDraft(manager, place, this.ids);
        await manager.save(DraftPicture, { draftId: draft.id, digest });
        return draft.id;
      });
      await this.uploads.forget(uploadId);
      return { digest, draftId };
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  }

  async #attachCaptions(person: Person, exchangeId: string, upload: Upload, partId: string): Promise<PartView> {
    const file = await open(upload.path);
    const head = await file.read(Buffer.alloc(16), 0, 16, 0).finally(() => file.close());
    // WebVTT, section 4: the signature, after an optional byte order mark.
    if (!/^(\u00ef\u00bb\u00bf)?WEBVTT(\s|$)/.test(head.buffer.subarray(0, head.bytesRead).toString('latin1'))) {
      throw await this.#refuse(
        upload.id,
        'These are no captions in WebVTT.',
        'Choose a .vtt file: it begins with WEBVTT.',
      );
    }
    const kept = await this.#kept(upload.path);
    const view = await this.database.write(async (manager) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'save-draft' });
      const draft = await ensureDraft(manager, place, this.ids);
      const part = await ownPart(manager, draft, partId);
      await this.#store(manager, kept, { family: 'captions', mime: 'text/vtt', facts: {} });
      await manager.update(DraftPart, { id: part.id }, { captions: kept.digest });
      return this.#view(manager, place, draft, { ...part, captions: kept.digest });
    });
    await this.uploads.forget(upload.id);
    return view;
  }

  /** Where the file goes: into the draft of the one who asks, or, for staff, of the participant it is for. */
  async #place(
    person: Person,
    exchangeId: string,
    participantId: string | null,
    manager: EntityManager = this.database.read,
  ): Promise<Place> {
    const place = await this.access.exchange(person, exchangeId, manager);
    if (participantId !== null) return this.access.actingFor(place, participantId, manager);
    act(place, { kind: 'save-draft' });
    return place;
  }

  async #attached(person: Person, exchangeId: string, uploadId: string): Promise<PartView | null> {
    const manager = this.database.read;
    const place = await this.access.exchange(person, exchangeId);
    const draft = await this.access.ownDraft(place);
    const part = draft === null ? null : await manager.findOneBy(DraftPart, { uploadId, draftId: draft.id });
    return part === null || draft === null ? null : this.#view(manager, place, draft, part);
  }

  async #finished(person: Person, exchangeId: string, uploadId: string): Promise<Upload> {
    const upload = await this.uploads.owned(person, uploadId);
    await this.assertWelcome(person, { ...upload, exchangeId }, upload.size);
    if (upload.finished) return upload;
    throw new ProblemError({
      code: 'upload-unfinished',
      sentence: `“${tamed(upload.name)}” has not been uploaded as a whole yet.`,
      whatToDo: 'Wait until it is, or choose the file again.',
    });
  }

  async #inspected(upload: Taken, { families, kind, title }: Deliverable): Promise<Inspected> {
    const inspected = await this.#done(this.workers.inspect({ path: upload.path, name: upload.name }), upload.id);
    const taken = kind === 'recording' ? (['audio', 'video'] as const) : families;
    if ((taken as readonly string[]).includes(inspected.family)) return inspected;
    const allowed = taken.map((family) => FAMILIES[family]).join(', ');
    throw await this.#refuse(
      upload.id,
      `“${tamed(upload.name)}” is ${FAMILIES[inspected.family]}, which is not taken for “${title}”.`,
      `Hand in ${allowed}.`,
    );
  }

  /** What the worker found out; its refusal, and its end, in words. */
  async #done<T>(work: Promise<Answer<T>>, uploadId: string | null = null): Promise<T> {
    const answer = await work.catch((error: Error) => {
      if (!(error instanceof WorkStopped)) throw error;
      const sentence = 'Reading this file took too long or too much memory, so it was not taken.';
      return { refused: { sentence, whatToDo: 'Hand in a smaller or simpler one.' } };
    });
    if ('done' in answer) return answer.done;
    const { sentence, whatToDo } = answer.refused;
    throw await this.#refuse(uploadId, sentence, whatToDo);
  }

  async #refuse(uploadId: string | null, sentence: string, whatToDo: string): Promise<ProblemError> {
    if (uploadId !== null) await this.uploads.forget(uploadId);
    return refused(sentence, whatToDo);
  }

  async #kept(path: string): Promise<Kept> {
    return this.store.adopt(path).catch((error: NodeJS.ErrnoException) => {
      throw error.code === 'ENOSPC' ? storeFull() : error;
    });
  }

  async #store(
    manager: EntityManager,
    { digest, size }: Kept,
    { family, mime, facts }: Pick<StoredFile, 'family' | 'mime' | 'facts'>,
  ): Promise<void> {
    if (await manager.existsBy(StoredFile, { digest })) return;
    const copyState = family === 'captions' ? 'ready' : 'waiting';
    await manager.insert(StoredFile, {
      digest,
      size,
      mime,
      family,
      facts,
      createdAt: this.clock.now(),
      copyState,
      pictures: [],
      metadata: [],
    });
  }

  async #view(manager: EntityManager, place: Place, draft: Draft, part: DraftPart): Promise<PartView> {
    const [view] = await this.readings.parts(manager, place, draft, [part], 'author');
    return view as PartView;
  }
}

const FAMILIES: Readonly<Record<StoredFile['family'], string>> = {
  pdf: 'a PDF',
  document: 'a DOCX or ODT',
  'plain-text': 'plain text or Markdown',
  image: 'a picture',
  audio: 'sound',
  video: 'a video',
  captions: 'captions',
};

export function refused(sentence: string, whatToDo: string): ProblemError {
  return new ProblemError({ code: 'file-refused', sentence, whatToDo: `${whatToDo} Your hand-in has not changed.` });
}
