import { Controller, Get, Param, Res } from '@nestjs/common';
import type { PartView } from '@salt-circle/contracts';
import type { Response } from 'express';
import { Access } from '../../permissions/access.js';
import { courseIdentities, type CourseIdentity } from '../../queries/course-identities.js';
import { fileName, filesOf } from '../../queries/review-files.js';
import { reviewAccess } from '../../permissions/review-access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { Exchange, Participant } from '../../model/exchange.js';
import type { Review } from '../../model/review.js';
import { StoredFile } from '../../model/stored-file.js';
import { mimeOfCopy, withRightEnding } from '../../platform/bytes/endings.js';
import { Database } from '../../platform/database/database.js';
import { isPictureOf } from '../../platform/files/contents.js';
import { FileStore } from '../../platform/files/file-store.js';
import { refusal } from '../../platform/problems/sentences.js';
import { Readings, untelling } from './readings.service.js';
import { sendFile, sendPicture } from './sending.js';

/** An interface, so that the parameters are plain texts to the pipe of requests. */
interface FileParams {
  readonly reviewId: string;
  readonly fileId: string;
  readonly digest?: string;
}

/** What reviewers put to notes and answers: only ever as a copy, also to its reviewer, who sees what the author will get. */
@Controller('reviews/:reviewId/files/:fileId')
export class RemarkFilesController {
  constructor(
    private readonly access: Access,
    private readonly database: Database,
    private readonly store: FileStore,
    private readonly readings: Readings,
  ) {}

  @Get()
  async read(@Me() me: CurrentUser, @Param() which: FileParams): Promise<PartView> {
    const { name, file, review, full } = await this.#file(me, which);
    const view = this.readings.remarkFile({ ...which, name }, file);
    if (full || view.html === null) return view;
    // Where links lead, and what describes pictures, may say who the reviewer is.
    const untold = untelling(await this.#reviewer(review));
    return { ...view, html: untold(view.html) };
  }

  @Get('copy')
  async copy(@Me() me: CurrentUser, @Param() which: FileParams, @Res() response: Response): Promise<void> {
    const { name, file } = await this.#file(me, which);
    if (file.copyDigest === null) throw refusal('unknown');
    const mime = mimeOfCopy(file.mime);
    const told = withRightEnding(name, mime);
    sendFile(this.store, response, { digest: file.copyDigest, mime, name: told, attachment: false });
  }

  /** Pictures in the reading copy of a document. */
  @Get('pictures/:digest')
  async picture(@Me() me: CurrentUser, @Param() { digest = '', ...which }: FileParams, @Res() response: Response) {
    const { file } = await this.#file(me, which);
    if (!(await isPictureOf(this.database.read, file, digest))) throw refusal('unknown');
    await sendPicture(this.store, response, digest);
  }

  /** @throws ProblemError unless the review has this file, and the one who asks may see it */
  async #file(me: CurrentUser, { reviewId, fileId }: FileParams) {
    const manager = this.database.read;
    const access = await reviewAccess(this.access, manager, me, reviewId);
    const { context, review, byViewer } = access;
    const rows = await filesOf(manager, context, review, access);
    const index = rows.findIndex(({ id }) => id === fileId);
    const row = rows[index];
    const file = row === undefined ? null : await manager.findOneBy(StoredFile, { digest: row.digest });
    if (row === undefined || file === null) throw refusal('unknown');
    const full = byViewer || context.viewer.role !== 'student';
    return { name: fileName(row, file, index, full), file, review, full };
  }

  async #reviewer({ reviewerId }: Review): Promise<CourseIdentity[]> {
    const manager = this.database.read;
    const { personId, exchangeId } = await manager.findOneByOrFail(Participant, { id: reviewerId });
    const { courseId } = await manager.findOneByOrFail(Exchange, { id: exchangeId });
    return [...(await courseIdentities(manager, courseId, [personId])).values()];
  }
}
