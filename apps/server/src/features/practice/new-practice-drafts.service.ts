import { Injectable } from '@nestjs/common';
import type { PracticeDraftRequest } from '@salt-circle/contracts';
import { countWords, MAX_PRACTICE_DRAFTS, type Deliverable } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Access, assertCan, assertCanSee, type ExchangeContext } from '../../permissions/access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { contentDigest, countingVersion, filesOfParts, partsOf } from '../../queries/versions.js';
import { Draft, DraftPart, DraftPicture, DraftVersion } from '../../model/draft.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
import type { StoredFile } from '../../model/stored-file.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database, type EmitEvent } from '../../platform/database/database.js';
import { insertAll } from '../../platform/database/insert-all.js';
import { safeFileName } from '../../platform/files/safe-file-name.js';
import { cleanHtml } from '../../platform/html/clean-html.js';
import { htmlToText } from '../../platform/html/html-to-text.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { invalid, refusal } from '../../platform/problems/sentences.js';
import { NameSearch } from '../drafts/name-search.service.js';
import { FileIntake } from '../files/file-intake.service.js';
import { Uploads } from '../files/uploads.service.js';
import { PRACTICE, UploadPolicy } from '../files/upload-policy.service.js';
import { Copies } from '../reading/copies.service.js';
import { say } from '../../words/practice.js';

/** What a practice draft consists of. */
export interface Sample {
  readonly title: string;
  readonly deliverables: Deliverable[];
  readonly context: string;
  readonly parts: ReadonlyArray<Partial<DraftPart> & Pick<DraftPart, 'deliverableId' | 'kind'>>;
  /** Digests of pictures that stand in its typed texts. */
  readonly pictures: readonly string[];
}

const PART = {
  ...{ html: '', revision: 0, savedAt: null, digest: null, name: '', url: '', title: '', about: '' },
  ...{ captions: null, hidden: [], uploadId: null, position: 0 },
} satisfies Partial<DraftPart>;

/** Makes practice drafts: from a text, a file, or a draft that a student agreed to give. */
@Injectable()
export class NewPracticeDrafts {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly policy: UploadPolicy,
    private readonly intake: FileIntake,
    private readonly uploads: Uploads,
    private readonly copies: Copies,
    private readonly names: NameSearch,
  ) {}

  async add(person: CurrentUser, exchangeId: string, request: PracticeDraftRequest): Promise<void> {
    const context = await this.#planning(person, exchangeId, this.database.read);
    switch (request.from) {
      case 'text': {
        const deliverable = this.#deliverable('text', say('text'));
        const html = cleanHtml(request.html ?? '');
        if (html === '') throw invalid([NOTHING_IN_IT]);
        const parts = [{ deliverableId: deliverable.id, kind: 'text' as const, html }];
        const title = request.title.trim();
        return this.#keep(person, context, request, {
          title,
          deliverables: [deliverable],
          context: '',
          parts,
          pictures: [],
        });
      }
      case 'file':
        return this.#addFile(person, context, request);
      case 'draft':
        return this.#keep(person, context, request, await this.#given(person, context, request));
    }
  }

  async #addFile(person: CurrentUser, context: ExchangeContext, request: PracticeDraftRequest): Promise<void> {
    const uploadId = request.uploadId ?? '';
    const upload = await this.policy.finished(person, context.exchange.id, uploadId);
    if (upload.use !== 'attachment' || upload.deliverableId !== PRACTICE) throw refusal('unknown');
    const inspected = await this.intake.inspect(upload, uploadId);
    const kept = await this.intake.keep(upload.path);
    const deliverable = this.#deliverable('file', say('file'), inspected.family);
    const part = { kind: 'file' as const, digest: kept.digest, name: safeFileName(upload.name) };
    const parts = [{ ...part, deliverableId: deliverable.id }];
    const title = request.title.trim();
    const sample = { title, deliverables: [deliverable], context: '', parts, pictures: [] };
    await this.#keep(person, context, request, sample, (manager) => this.intake.record(manager, kept, inspected));
    this.copies.enqueue(kept.digest, person.id);
    await this.uploads.forget(uploadId);
  }

  /** A draft of this or another exchange of the course, as it counts, without its author’s name; the new title is looked through too. */
  async #given(
    person: CurrentUser,
    context: ExchangeContext,
    { draftId = '', title }: PracticeDraftRequest,
  ): Promise<Sample> {
    const manager = this.database.read;
    const draft = await manager.findOneBy(Draft, { id: draftId });
    if (draft === null) throw refusal('unknown');
    const source = await this.access.exchange(person, draft.exchangeId);
    assertCanSee(source, { kind: 'workspace' });
    if (source.course.id !== context.course.id) throw refusal('unknown');
    const version = await countingVersion(manager, draft.id);
    if (version === null) throw refusal('unknown');
    const { deliverables } = source.exchange;
    const rows = await partsOf(manager, draft.id, version.id, deliverables);
    const files = await filesOfParts(manager, rows);
    assertSearchable(rows, files);
    const handedIn = { ...draft, title: title.trim(), context: version.context };
    const bare = await this.names.hidden(manager, source.exchange, handedIn, rows, files);
    const pictures = (await manager.findBy(DraftPicture, { draftId: draft.id })).map(({ digest }) => digest);
    return { deliverables: [...deliverables], ...bare, pictures };
  }

  #deliverable(kind: 'text' | 'file', title: string, family?: StoredFile['family']): Deliverable {
    const families = family === undefined || family === 'captions' ? [] : [family];
    return { id: this.ids.uuid(), kind, title, description: '', required: true, families, maxMegabytes: 50 };
  }

  #keep(
    person: CurrentUser,
    { exchange: { id: exchangeId } }: ExchangeContext,
    { consent = '', from }: PracticeDraftRequest,
    sample: Sample,
    before: (manager: EntityManager) => Promise<void> = () => Promise.resolve(),
  ): Promise<void> {
    return this.database.write(async (manager, emit) => {
      const context = await this.#planning(person, exchangeId, manager);
      await assertRoom(manager, exchangeId);
      await before(manager);
      const id = this.ids.uuid();
      await manager.insert(Exchange, {
        ...{ id, courseId: context.course.id, formId: context.exchange.formId, title: sample.title },
        ...{ briefHtml: '', guideHtml: '', reviewsPerStudent: 1, names: 'both-ways', publishedAt: null, revision: 1 },
        ...{ deliverables: sample.deliverables, practiceOf: exchangeId, createdAt: this.clock.now() },
        practiceConsent: from === 'draft' ? consent.trim() : null,
      });
      await this.#insert(manager, person, id, sample);
      this.#tell(emit, person, context);
    });
  }

  async #insert(
    manager: EntityManager,
    person: CurrentUser,
    exchangeId: string,
    { title, context, parts, pictures }: Sample,
  ): Promise<void> {
    const authorId = this.ids.uuid();
    // Whoever of the instructors made it stands for all of them.
    const author = { id: authorId, exchangeId, personId: person.id, alias: say('practice'), extraReviews: 0 };
    await manager.insert(Participant, author);
    const draftId = this.ids.uuid();
    await manager.insert(Draft, { id: draftId, exchangeId, participantId: authorId, title, context, revision: 1 });
    const versionId = this.ids.uuid();
    const rows = parts.map((part) => ({ ...PART, ...part, id: this.ids.uuid(), draftId, versionId }));
    await manager.insert(DraftVersion, {
      ...{ id: versionId, draftId, number: 1, title, context, handedInAt: this.clock.now(), handedInBy: person.id },
      words: rows.reduce((sum, { html }) => sum + countWords(htmlToText(html)), 0),
      digest: contentDigest({ title, context }, rows),
    });
    await insertAll(manager, DraftPart, rows);
    const shown = pictures.map((digest) => ({ draftId, digest }));
    await insertAll(manager, DraftPicture, shown);
    const key = { id: this.ids.uuid(), exchangeId, reviewerId: authorId, draftId, position: 1 };
    await manager.insert(Review, key);
  }

  #tell(emit: EmitEvent, person: CurrentUser, { course, exchange }: ExchangeContext): void {
    emit({ action: 'practice-added', actorId: person.id, courseId: course.id, exchangeId: exchange.id });
  }

  async #planning(person: CurrentUser, exchangeId: string, manager: EntityManager): Promise<ExchangeContext> {
    const context = await this.access.exchange(person, exchangeId, manager);
    if (context.facts.practice) throw refusal('unknown');
    assertCan(context, { kind: 'plan' });
    return context;
  }
}

const NOTHING_IN_IT = {
  path: 'html',
  code: 'required',
  get sentence() {
    return say('writeOrPasteTextOf');
  },
};

/** @throws ProblemError where a file has no reading copy: nobody has looked for names in it */
function assertSearchable(parts: readonly DraftPart[], files: ReadonlyMap<string, StoredFile>): void {
  const unread = [...files.values()].filter(({ copyState }) => copyState !== 'ready');
  // What will not be there in a minute either comes first.
  const file = unread.find(({ copyState }) => copyState === 'failed') ?? unread[0];
  if (file === undefined) return;
  const name = parts.find((part) => [part.digest, part.captions].includes(file.digest))?.name ?? '';
  const [sentence, whatToDo] =
    file.copyState === 'failed'
      ? [say('cannotBeRead'), say('takeAnotherDraftOrPaste')]
      : [say('isStillBeingMadeReadable'), say('tryAgainInMinute')];
  throw new ProblemError({
    code: 'file-unreadable',
    sentence: say('soNobodyHasLookedFor', { name, sentence }),
    whatToDo,
  });
}

async function assertRoom(manager: EntityManager, exchangeId: string): Promise<void> {
  if ((await manager.countBy(Exchange, { practiceOf: exchangeId })) < MAX_PRACTICE_DRAFTS) return;
  throw new ProblemError({
    code: 'too-many-files',
    sentence: say('thereArePracticeDraftsAlready', { maxpracticedrafts: MAX_PRACTICE_DRAFTS }),
    whatToDo: say('takeOneAwayFirst'),
  });
}
