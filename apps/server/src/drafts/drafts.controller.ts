import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import {
  DraftSaveRequest,
  HandInRequest,
  type DraftReadingView,
  type MyDraftView,
  type SavedView,
  type VersionMeta,
  type VersionView,
} from '@salt-circle/contracts';
import { Person } from '../accounts/entities.js';
import { refusal } from '../problems/sentences.js';
import { Me } from '../security/session.guard.js';
import { DraftsService } from './drafts.service.js';

const WholeNumber = new ParseIntPipe({ exceptionFactory: () => refusal('unknown') });

@Controller('exchanges/:exchangeId')
export class DraftsController {
  constructor(private readonly drafts: DraftsService) {}

  @Get('draft')
  mine(@Me() me: Person, @Param('exchangeId') id: string): Promise<MyDraftView> {
    return this.drafts.mine(me, id);
  }

  @Put('draft')
  save(@Me() me: Person, @Param('exchangeId') id: string, @Body() request: DraftSaveRequest): Promise<SavedView> {
    return this.drafts.save(me, id, request);
  }

  @Post('draft/hand-in')
  @HttpCode(200)
  handIn(@Me() me: Person, @Param('exchangeId') id: string, @Body() { revision }: HandInRequest): Promise<VersionMeta> {
    return this.drafts.handIn(me, id, revision);
  }

  @Get('draft/versions/:number')
  version(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Param('number', WholeNumber) number: number,
  ): Promise<VersionView> {
    return this.drafts.version(me, id, number);
  }

  @Get('drafts/:draftId')
  read(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Param('draftId') draftId: string,
  ): Promise<DraftReadingView> {
    return this.drafts.read(me, id, draftId);
  }
}
