import { Body, Controller, Get, HttpCode, Param, Post, Put, Query, Res } from '@nestjs/common';
import {
  ExtendRequest,
  HandInForRequest,
  RemindRequest,
  type ReminderView,
  type VersionMeta,
} from '@salt-circle/contracts';
import contentDisposition from 'content-disposition';
import type { Response } from 'express';
import { pipeline } from 'node:stream/promises';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { ArchiveService } from './archive.service.js';
import { CollectionService } from './collection.service.js';
import { RemindersService } from './reminders.service.js';

/** What staff do with the hand-ins of an exchange. */
@Controller('exchanges/:exchangeId')
export class CollectionController {
  constructor(
    private readonly collection: CollectionService,
    private readonly reminders: RemindersService,
    private readonly archives: ArchiveService,
  ) {}

  @Get('archive')
  async archive(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Res() response: Response,
    @Query('names') names?: string,
  ): Promise<void> {
    const { name, zip } = await this.archives.stream(me, id, names === 'alias' ? 'alias' : 'name');
    response.setHeader('Content-Type', 'application/zip');
    response.setHeader('Content-Disposition', contentDisposition(name));
    // Somebody who closes the window in the middle is no fault.
    await pipeline(zip, response).catch((error: NodeJS.ErrnoException) => {
      if (error.code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
    });
  }

  @Post('reminders/preview')
  @HttpCode(200)
  preview(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: RemindRequest,
  ): Promise<ReminderView> {
    return this.reminders.preview(me, id, request);
  }

  @Post('reminders')
  @HttpCode(200)
  remind(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: RemindRequest,
  ): Promise<ReminderView> {
    return this.reminders.send(me, id, request);
  }

  @Put('participants/:participantId/personal-dates')
  @HttpCode(204)
  extend(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('participantId') participantId: string,
    @Body() request: ExtendRequest,
  ): Promise<void> {
    return this.collection.extend(me, id, participantId, request);
  }

  @Post('participants/:participantId/hand-in')
  @HttpCode(200)
  handInFor(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('participantId') participantId: string,
    @Body() request: HandInForRequest,
  ): Promise<VersionMeta> {
    return this.collection.handInFor(me, id, participantId, request);
  }

  @Post('drafts/:draftId/parts/:partId/copy-again')
  @HttpCode(204)
  copyAgain(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('draftId') draftId: string,
    @Param('partId') partId: string,
  ): Promise<void> {
    return this.collection.copyAgain(me, id, draftId, partId);
  }
}
