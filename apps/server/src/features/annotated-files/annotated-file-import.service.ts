import { createHash } from 'node:crypto';
import { open, readFile } from 'node:fs/promises';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import {
  LIMITS,
  type BringInRequest,
  type BringRequest,
  type BroughtInView,
  type BroughtView,
  type DeskView,
  type NoteKind,
} from '@salt-circle/contracts';
import { passageOf, type ImportedMarks, type ImportedNote, type UnplacedReason } from '@salt-circle/core';
import { Access, assertCan, type ExchangeContext } from '../../permissions/access.js';
import { writingState, reviewAccess } from '../../permissions/review-access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { StoredFile } from '../../model/stored-file.js';
import type { Answer } from '../../platform/bytes/answered.js';
import { Database } from '../../platform/database/database.js';
import { FileStore } from '../../platform/files/file-store.js';
import { htmlToText } from '../../platform/html/html-to-text.js';
import { outcome } from '../../platform/jobs/outcome.js';
import { compiled, Threads } from '../../platform/jobs/threads.js';
import { fileRefused } from '../../platform/problems/file-refused.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { Uploads } from '../files/uploads.service.js';
import { UploadPolicy } from '../files/upload-policy.service.js';
import { ReadDraftsService } from '../reading/read-drafts.service.js';
import { ReviewNotes } from '../reviews/review-notes.service.js';
import { ReviewsService } from '../reviews/reviews.service.js';
import type { BringTask } from './worker/task.js';
import { say } from '../../words/annotated-files.js';

/** Megabytes and milliseconds: a book with thousands of comments takes a tenth of it. */
const THREADS = { memory: 1_024, time: 60_000, atOnce: 2, inTurn: true };
/** UTF-16 code units of a passage: longer ones are marked at their beginning. */
const PASSAGE = 10_000;

const REASONS: Readonly<Record<UnplacedReason, string>> = {
  get gone() {
    return say('theseWordsAreNotIn');
  },
  get outside() {
    return say('itIsNotOnDraft');
  },
  get edit() {
    return say('thisChangeCannotBeProposed');
  },
  get long() {
    return say('itIsLongerThanNote', { noteBody: LIMITS.noteBody });
  },
  get other() {
    return say('noteCannotHoldSuchThing');
  },
};

/** Comments, changes and marks that a reviewer made elsewhere, brought back as notes. */
@Injectable()
export class AnnotatedFileImport implements OnApplicationShutdown {
  readonly #threads = new Threads(compiled('features/annotated-files/worker/marked.js'), THREADS);

  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly store: FileStore,
    private readonly uploads: Uploads,
    private readonly policy: UploadPolicy,
    private readonly reading: ReadDraftsService,
    private readonly reviews: ReviewsService,
    private readonly notes: ReviewNotes,
  ) {}

  /** What would be added; nothing is. */
  async preview(person: CurrentUser, reviewId: string, { uploadId }: BringRequest): Promise<BroughtView> {
    const { desk, brought, known } = await this.#read(person, reviewId, uploadId);
    const room = LIMITS.notes - desk.notes.length;
    return {
      version: desk.draft.version,
      room: Math.max(0, room),
      notes: brought.notes.map((note) => ({ id: idOf(reviewId, note), ...note })),
      unplaced: brought.unplaced.map(({ why, passage, words }) => ({ passage, words, reason: REASONS[why] })),
      known,
      remarks: [
        ...(brought.otherText ? [say('textInThisFileIs')] : []),
        ...(brought.notes.length > room
          ? [say('reviewCanHaveNotesSo', { notes: LIMITS.notes, what: Math.max(0, room) })]
          : []),
      ],
    };
  }

  /** All of what was chosen, or none. Twice the same adds nothing twice. */
  async add(person: CurrentUser, reviewId: string, { uploadId, notes }: BringInRequest): Promise<BroughtInView> {
    const { desk, brought } = await this.#read(person, reviewId, uploadId);
    const kinds = new Map(notes.map(({ id, kind }): [string, NoteKind] => [id, kind]));
    const chosen = brought.notes.flatMap((note) => {
      const id = idOf(reviewId, note);
      const kind = kinds.get(id);
      const { body, partId, selector, edit } = note;
      return kind === undefined ? [] : [{ id, kind, body, at: { partId, selector }, edit }];
    });
    const added = await this.notes.add(person, reviewId, desk.draft.version, chosen);
    await this.uploads.forget(uploadId);
    return { added };
  }

  async #read(person: CurrentUser, reviewId: string, uploadId: string) {
    const access = await reviewAccess(this.access, this.database.read, person, reviewId);
    assertCan(access.context, { kind: 'write-review', ...writingState(access) });
    // Practice is read once, beside the key, and thrown away.
    if (access.context.facts.practice) throw refusal('unknown');
    const upload = await this.policy.finished(person, access.context.exchange.id, uploadId);
    if (upload.use !== 'marked' || upload.deliverableId !== reviewId) throw refusal('unknown');
    const desk = await this.reviews.desk(person, reviewId);
    const task = { ...(await this.#task(person, desk)), bytes: await readFile(upload.path) };
    const beginning = await beginningOf(upload.path);
    const brought = await this.uploads
      .using(upload, () => this.#brought(task, beginning))
      .catch((error: Error) => this.#putOnRecord(person, access.context, reviewId, error));
    const there = new Set(desk.notes.map(({ id }) => id));
    const notes = brought.notes.filter((note) => !there.has(idOf(reviewId, note)));
    const known = brought.known + brought.notes.length - notes.length;
    return { desk, brought: { ...brought, notes: unique(reviewId, notes) }, known };
  }

  /** A file that is not taken is on record, like one that is. */
  async #putOnRecord(
    person: CurrentUser,
    { course, exchange }: ExchangeContext,
    reviewId: string,
    error: Error,
  ): Promise<never> {
    if (error instanceof ProblemError) {
      const where = { courseId: course.id, exchangeId: exchange.id, details: { review: reviewId } };
      await this.database.write((_, emit) =>
        Promise.resolve(emit({ action: 'notes-refused', actorId: person.id, ...where })),
      );
    }
    throw error;
  }

  async #task(person: CurrentUser, { draft, notes, exchange }: DeskView): Promise<Omit<BringTask, 'bytes'>> {
    const copies: Array<{ id: string; bytes: Uint8Array }> = [];
    for (const { id, show } of draft.parts) {
      if (show !== 'pdf') continue;
      const { part } = await this.reading.part(person, exchange.id, draft.draftId, id);
      const where = { digest: part.digest ?? '' };
      const file = await this.database.read.findOneBy(StoredFile, where);
      if (file?.copyDigest != null) copies.push({ id, bytes: await readFile(this.store.path(file.copyDigest)) });
    }
    return {
      texts: draft.parts.flatMap(({ id, show, html }) =>
        show === 'html' && html !== null ? [{ id, text: htmlToText(html) }] : [],
      ),
      copies,
      already: notes.map(({ kind, body, place, edit }) => {
        const { partId, selector } = place;
        return { kind, body, partId, selector, edit };
      }),
      limits: { body: LIMITS.noteBody, passage: PASSAGE },
    };
  }

  async #brought(task: BringTask, beginning: string): Promise<ImportedMarks> {
    const { texts, copies } = task;
    const kind = beginning.includes('%PDF-') ? 'pdf' : beginning.startsWith('PK') ? 'docx' : null;
    if (kind === null) throw refused(say('thisIsNeitherWordDocument'), say('saveItAsOneOf'));
    if ((kind === 'pdf' ? copies : texts).length === 0) {
      throw kind === 'pdf'
        ? refused(say('thisDraftHoldsNoPdf'), say('takeTextAlongAsDocument'))
        : refused(say('thisDraftHoldsNoText'), say('takeItsPdfAlongAnd'));
    }
    const name = kind === 'pdf' ? 'bringPages' : 'bringDocument';
    return outcome(
      this.#threads.run<Answer<ImportedMarks>>(name, task, { time: THREADS.time }),
      {
        sentence: say('lookingThroughThisFileTook'),
        whatToDo: say('bringPagesThatYouMarked'),
      },
      ({ sentence, whatToDo }) => refused(sentence, whatToDo),
    );
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#threads.end();
  }
}

function refused(sentence: string, whatToDo: string): ProblemError {
  return fileRefused(sentence, whatToDo, say('yourReviewHasNotChanged'));
}

/** Readers of PDFs look for its sign among the first letters; of archives it is the first. */
async function beginningOf(path: string): Promise<string> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(1_024), 0, 1_024, 0);
    return buffer.subarray(0, bytesRead).toString('latin1');
  } finally {
    await file.close();
  }
}

/**
 * The same mark of the same file is the same note, whatever its kind is changed to: in the form of a random id (RFC 9562, 5.4), which
 * it takes the place of.
 */
function idOf(reviewId: string, { partId, selector, body, edit }: ImportedNote): string {
  const place =
    selector.type === 'text' || selector.type === 'passage'
      ? [passageOf(selector), selector.position.start, selector.type === 'passage' ? selector.page : 0]
      : selector;
  const hash = createHash('sha256')
    .update(JSON.stringify([reviewId, partId, place, body, edit]))
    .digest('hex');
  const variant = '89ab'[parseInt(hash[16] as string, 16) % 4] as string;
  return [
    hash.slice(0, 8),
    hash.slice(8, 12),
    `4${hash.slice(13, 16)}`,
    variant + hash.slice(17, 20),
    hash.slice(20, 32),
  ].join('-');
}

/** Twice the same words at the same place is once. */
function unique(reviewId: string, notes: readonly ImportedNote[]): ImportedNote[] {
  return [...new Map(notes.map((note) => [idOf(reviewId, note), note])).values()];
}
