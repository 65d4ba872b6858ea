import { Controller, Get, Param, Res } from '@nestjs/common';
import type { PartView } from '@salt-circle/contracts';
import type { Response } from 'express';
import { Access } from '../../permissions/access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { ExchangeAttachment } from '../../model/attachment.js';
import { StoredFile } from '../../model/stored-file.js';
import { mimeOfCopy, withRightEnding } from '../../platform/bytes/endings.js';
import { Database } from '../../platform/database/database.js';
import { isPictureOf } from '../../platform/files/contents.js';
import { FileStore } from '../../platform/files/file-store.js';
import { refusal } from '../../platform/problems/sentences.js';
import { Readings } from './readings.service.js';
import { sendFile, sendPicture } from './sending.js';

/** An interface, so that the parameters are plain texts to the pipe of requests. */
interface AttachmentParams {
  readonly exchangeId: string;
  readonly attachmentId: string;
  readonly digest?: string;
}

/** What is given with brief and guide: read in the browser, or taken along as it came. For whoever sees the exchange. */
@Controller('exchanges/:exchangeId/attachments/:attachmentId')
export class AttachmentFilesController {
  constructor(
    private readonly access: Access,
    private readonly database: Database,
    private readonly store: FileStore,
    private readonly readings: Readings,
  ) {}

  @Get()
  async read(@Me() me: CurrentUser, @Param() which: AttachmentParams): Promise<PartView> {
    const { attachment, file } = await this.#attachment(me, which);
    return this.readings.attachment(attachment, file);
  }

  @Get('copy')
  async copy(@Me() me: CurrentUser, @Param() which: AttachmentParams, @Res() response: Response): Promise<void> {
    const { attachment, file } = await this.#attachment(me, which);
    if (file.copyDigest === null) throw refusal('unknown');
    const mime = mimeOfCopy(file.mime);
    sendFile(this.store, response, {
      digest: file.copyDigest,
      mime,
      name: withRightEnding(attachment.name, mime),
      attachment: false,
    });
  }

  @Get('original')
  async original(@Me() me: CurrentUser, @Param() which: AttachmentParams, @Res() response: Response): Promise<void> {
    const { attachment, file } = await this.#attachment(me, which);
    const name = withRightEnding(attachment.name, file.mime);
    sendFile(this.store, response, { digest: file.digest, mime: file.mime, name, attachment: true });
  }

  /** Pictures in the reading copy of a document. */
  @Get('pictures/:digest')
  async picture(
    @Me() me: CurrentUser,
    @Param() { digest = '', ...which }: AttachmentParams,
    @Res() response: Response,
  ): Promise<void> {
    const { file } = await this.#attachment(me, which);
    if (!(await isPictureOf(this.database.read, file, digest))) throw refusal('unknown');
    await sendPicture(this.store, response, digest);
  }

  /** @throws ProblemError unless the one who asks sees the exchange, and it has this attachment */
  async #attachment(me: CurrentUser, { exchangeId, attachmentId: id }: AttachmentParams) {
    const { exchange } = await this.access.exchange(me, exchangeId);
    const manager = this.database.read;
    const attachment = await manager.findOneBy(ExchangeAttachment, { id, exchangeId: exchange.id });
    const file = attachment === null ? null : await manager.findOneBy(StoredFile, { digest: attachment.digest });
    if (attachment === null || file === null) throw refusal('unknown');
    return { attachment, file };
  }
}
