import { Body, Controller, Get, HttpCode, Param, Post, Query, StreamableFile } from '@nestjs/common';
import { ArchiveQuery, ArchiveRequest, ReadArchiveRequest, type ArchiveView } from '@salt-circle/contracts';
import contentDisposition from 'content-disposition';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { ArchiveReading } from './archive-reading.service.js';
import { ExchangeArchives } from './exchange-archives.service.js';

/** A whole exchange as one file, and back. */
@Controller()
export class ArchiveController {
  constructor(
    private readonly archives: ExchangeArchives,
    private readonly reading: ArchiveReading,
  ) {}

  @Get('exchanges/:exchangeId/archive.zip')
  async make(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Query() query: ArchiveQuery,
  ): Promise<StreamableFile> {
    const wishes = { aliases: query.people === 'aliases', drafts: query.drafts !== 'no' };
    const { name, zip } = await this.archives.stream(me, id, wishes);
    return new StreamableFile(zip, { type: 'application/zip', disposition: contentDisposition(name) });
  }

  @Post('archives/preview')
  @HttpCode(200)
  preview(@Me() me: CurrentUser, @Body() request: ArchiveRequest): Promise<ArchiveView> {
    return this.reading.preview(me, request);
  }

  @Post('archives')
  read(@Me() me: CurrentUser, @Body() request: ReadArchiveRequest): Promise<{ courseId: string; exchangeId: string }> {
    return this.reading.read(me, request);
  }
}
