import { Controller, Get, Param, Res } from '@nestjs/common';
import type { PartView } from '@salt-circle/contracts';
import type { Response } from 'express';
import { Access } from '../../access/access.js';
import type { Asker } from '../../access/seeing.js';
import { Me } from '../../access/session.guard.js';
import { ExchangeAttachment } from '../../model/attachment.js';
import { StoredFile } from '../../model/stored-file.js';
import { mimeOfCopy, withRightEnding } from '../../platform/bytes/endings.js';
import { Database } from '../../platform/database/database.js';
import { FileStore } from '../../platform/files/file-store.js';
import { refusal } from '../../platform/problems/sentences.js';
import { Readings } from './readings.service.js';
import { isDigest, sendFile, sendPicture } from './sending.js';

/** An interface, so that the parameters are plain texts to the pipe of requests. */
interface GivenParams {
  readonly exchangeId: string;
  readonly attachmentId: string;
  readonly digest?: string;
}

/** What is given with brief and guide: read in the browser, or taken along as it came. For whoever sees the exchange. */
@Controller('exchanges/:exchangeId/attachments/:attachmentId')
export class GivenFilesController {
  constructor(
    private readonly access: Access,
    private readonly database: Database,
    private readonly store: FileStore,
    private readonly readings: Readings,
  ) {}

  @Get()
  async read(@Me() me: Asker, @Param() which: GivenParams): Promise<PartView> {
    const { given, file } = await this.#given(me, which);
    return this.readings.given(given, file);
  }

  @Get('copy')
  async copy(@Me() me: Asker, @Param() which: GivenParams, @Res() response: Response): Promise<void> {
    const { given, file } = await this.#given(me, which);
    if (file.copyDigest === null) throw refusal('unknown');
    const mime = mimeOfCopy(file.mime);
    sendFile(this.store, response, {
      digest: file.copyDigest,
      mime,
      name: withRightEnding(given.name, mime),
      attachment: false,
    });
  }

  @Get('original')
  async original(@Me() me: Asker, @Param() which: GivenParams, @Res() response: Response): Promise<void> {
    const { given, file } = await this.#given(me, which);
    const name = withRightEnding(given.name, file.mime);
    sendFile(this.store, response, { digest: file.digest, mime: file.mime, name, attachment: true });
  }

  /** Pictures in the reading copy of a document. */
  @Get('pictures/:digest')
  async picture(
    @Me() me: Asker,
    @Param() { digest = '', ...which }: GivenParams,
    @Res() response: Response,
  ): Promise<void> {
    const { file } = await this.#given(me, which);
    if (!isDigest(digest) || !file.pictures.includes(digest)) throw refusal('unknown');
    await sendPicture(this.store, response, digest);
  }

  /** @throws ProblemError unless the one who asks sees the exchange, and it has this attachment */
  async #given(me: Asker, { exchangeId, attachmentId: id }: GivenParams) {
    const { exchange } = await this.access.exchange(me, exchangeId);
    const manager = this.database.read;
    const given = await manager.findOneBy(ExchangeAttachment, { id, exchangeId: exchange.id });
    const file = given === null ? null : await manager.findOneBy(StoredFile, { digest: given.digest });
    if (given === null || file === null) throw refusal('unknown');
    return { given, file };
  }
}
