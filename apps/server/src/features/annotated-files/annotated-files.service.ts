import { readFile } from 'node:fs/promises';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { annotationCollection, type AnnotatedDraft } from '@salt-circle/core';
import type { CurrentUser } from '../../auth/view-as.js';
import { StoredFile } from '../../model/stored-file.js';
import { Database } from '../../platform/database/database.js';
import { FileStore } from '../../platform/files/file-store.js';
import { compiled, Threads, WorkStopped } from '../../platform/jobs/threads.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { ReadDraftsService } from '../reading/read-drafts.service.js';
import { AnnotatedDrafts, type AnnotatedSource } from './annotated-drafts.service.js';
import type { DocumentTask, PagesTask } from './worker/task.js';
import { say } from '../../words/annotated-files.js';

/** Megabytes and milliseconds: what a file of 300 pages with 400 notes takes several times over, and an end all the same. */
const LIMITS = { memory: 1_024, time: 120_000, atOnce: 2, inTurn: true };

export interface MadeFile {
  readonly name: string;
  readonly bytes: Buffer;
}

/** Drafts with what was written about them, as files for other programs. */
@Injectable()
export class AnnotatedFiles implements OnApplicationShutdown {
  readonly #threads = new Threads(compiled('features/annotated-files/worker/marked.js'), LIMITS);

  constructor(
    private readonly database: Database,
    private readonly store: FileStore,
    private readonly reading: ReadDraftsService,
    private readonly drafts: AnnotatedDrafts,
  ) {}

  /**
   * For a word processor, with comments and tracked changes.
   *
   * @param version its number; without, the one that most of the reviews are of
   */
  async document(versions: readonly AnnotatedSource[], version?: string): Promise<MadeFile> {
    const most = versions.toSorted((a, b) => b.draft.reviews.length - a.draft.reviews.length);
    const chosen = version === undefined ? most[0] : versions.find(({ draft }) => String(draft.version) === version);
    if (chosen === undefined) throw refusal('unknown');
    const { draft, texts } = chosen;
    const task: DocumentTask = { draft, texts };
    return { name: `${draft.title}.docx`, bytes: await this.#made('docx', task) };
  }

  /** The reading copy of a part that is a PDF, with annotations. */
  async pages(person: CurrentUser, versions: readonly AnnotatedSource[], partId: string): Promise<MadeFile> {
    const of = versions.find(({ reading }) => reading.parts.some(({ id, show }) => id === partId && show === 'pdf'));
    if (of === undefined) throw refusal('unknown');
    const { draft, exchangeId } = of;
    const { part } = await this.reading.part(person, exchangeId, draft.draftId, partId);
    const file = part.digest === null ? null : await this.database.read.findOneBy(StoredFile, { digest: part.digest });
    if (file?.copyDigest == null) throw refusal('unknown');
    const task: PagesTask = { draft, partId, bytes: await readFile(this.store.path(file.copyDigest)) };
    // Its own name may tell whose it is; the title of the draft does not.
    return { name: `${draft.title}.pdf`, bytes: await this.#made('pdf', task) };
  }

  annotations(id: string, drafts: readonly AnnotatedDraft[]): string {
    const [one] = drafts;
    const alone = drafts.every(({ draftId }) => draftId === one?.draftId);
    const label = one === undefined ? '' : alone ? one.title : one.exchange;
    return JSON.stringify(annotationCollection(id, label, drafts), null, 2);
  }

  async ofExchange(person: CurrentUser, exchangeId: string): Promise<string> {
    const drafts: AnnotatedDraft[] = [];
    for await (const draft of this.drafts.ofExchange(person, exchangeId)) drafts.push(draft);
    return this.annotations(exchangeId, drafts);
  }

  async #made(name: 'docx' | 'pdf', task: object): Promise<Buffer> {
    try {
      return Buffer.from(await this.#threads.run<Uint8Array>(name, task, { time: LIMITS.time }));
    } catch (error) {
      if (!(error instanceof WorkStopped)) throw error;
      throw new ProblemError({
        code: 'unexpected',
        sentence: say('thisFileIsTooMuch'),
        whatToDo: say('readItOnPageOr'),
      });
    }
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#threads.end();
  }
}
