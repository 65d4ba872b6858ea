import { Controller, Get, Param, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import type { CurrentUser } from '../../auth/view-as.js';
import { Database } from '../../platform/database/database.js';
import { ReadDraftsService } from './read-drafts.service.js';
import { DraftPart, DraftPicture } from '../../model/draft.js';
import { assertCanSee } from '../../permissions/access.js';
import { draftRelation } from '../../permissions/draft-access.js';
import { neutralName } from './readings.service.js';
import { refusal } from '../../platform/problems/sentences.js';
import { isDigest, sendFile, sendPicture } from './sending.js';
import { Me } from '../../auth/session.guard.js';
import { FilePicture, StoredFile } from '../../model/stored-file.js';
import { mimeOfCopy, withRightEnding } from '../../platform/bytes/endings.js';
import { FileStore } from '../../platform/files/file-store.js';

/** An interface, so that the parameters are plain texts to the pipe of requests. */
interface PartParams {
  readonly exchangeId: string;
  readonly draftId: string;
  readonly partId: string;
  readonly digest?: string;
}

/** Files of drafts: what was handed in for its author and staff, reading copies for reviewers. */
@Controller('exchanges/:exchangeId/drafts/:draftId')
export class FilesController {
  constructor(
    private readonly drafts: ReadDraftsService,
    private readonly database: Database,
    private readonly store: FileStore,
  ) {}

  /** What is read in the browser. */
  @Get('parts/:partId/copy')
  async copy(
    @Me() me: CurrentUser,
    @Param() { exchangeId, draftId, partId }: PartParams,
    @Res() response: Response,
    @Query('download') download?: string,
  ): Promise<void> {
    const { part, file, title } = await this.#part(me, exchangeId, draftId, partId);
    if (file.copyDigest === null) throw refusal('unknown');
    const name = neutralName(title, part, file);
    sendFile(this.store, response, {
      digest: file.copyDigest,
      mime: mimeOfCopy(file.mime),
      name,
      attachment: download !== undefined,
    });
  }

  /** As it was handed in, byte for byte, with all it says of itself: never for reviewers. */
  @Get('parts/:partId/original')
  async original(
    @Me() me: CurrentUser,
    @Param() { exchangeId, draftId, partId }: PartParams,
    @Res() response: Response,
  ): Promise<void> {
    const { access, part, file } = await this.#part(me, exchangeId, draftId, partId);
    assertCanSee(access.context, { kind: 'original', ...draftRelation(access) });
    sendFile(this.store, response, {
      digest: file.digest,
      mime: file.mime,
      name: withRightEnding(part.name, file.mime),
      attachment: true,
    });
  }

  @Get('parts/:partId/captions')
  async captions(
    @Me() me: CurrentUser,
    @Param() { exchangeId, draftId, partId }: PartParams,
    @Res() response: Response,
  ): Promise<void> {
    const { part } = await this.#part(me, exchangeId, draftId, partId);
    const file =
      part.captions === null ? null : await this.database.read.findOneBy(StoredFile, { digest: part.captions });
    if (file === null || file.copyDigest === null) throw refusal('unknown');
    sendFile(this.store, response, {
      digest: file.copyDigest,
      mime: 'text/vtt; charset=utf-8',
      name: 'captions.vtt',
      attachment: false,
    });
  }

  /** Pictures in typed texts and in reading copies of documents. */
  @Get('pictures/:digest')
  async picture(
    @Me() me: CurrentUser,
    @Param() { exchangeId, draftId, digest = '' }: PartParams,
    @Res() response: Response,
  ): Promise<void> {
    const { draft } = await this.drafts.reading(me, exchangeId, draftId);
    if (!isDigest(digest) || !(await this.#hasPicture(draft.id, digest))) throw refusal('unknown');
    await sendPicture(this.store, response, digest);
  }

  async #part(me: CurrentUser, exchangeId: string, draftId: string, partId: string) {
    const { access, part } = await this.drafts.part(me, exchangeId, draftId, partId);
    const file = part.digest === null ? null : await this.database.read.findOneBy(StoredFile, { digest: part.digest });
    if (file === null) throw refusal('unknown');
    const { deliverables } = access.context.exchange;
    const title = deliverables.find(({ id }) => id === part.deliverableId)?.title ?? '';
    return { access, part, file, title };
  }

  async #hasPicture(draftId: string, digest: string): Promise<boolean> {
    const manager = this.database.read;
    if (await manager.existsBy(DraftPicture, { draftId, digest })) return true;
    return manager
      .createQueryBuilder(DraftPart, 'part')
      .innerJoin(FilePicture, 'picture', 'picture.fileDigest = part.digest')
      .where('part.draftId = :draftId AND picture.digest = :digest', { draftId, digest })
      .getExists();
  }
}
