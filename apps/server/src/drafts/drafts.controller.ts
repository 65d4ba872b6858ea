import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import {
  AttachRequest,
  DraftSaveRequest,
  HandInRequest,
  HideFindRequest,
  HideRequest,
  LinkRequest,
  PartOrderRequest,
  PictureRequest,
  TextSaveRequest,
  type DraftReadingView,
  type HandInCheck,
  type MyDraftView,
  type PartView,
  type SavedView,
  type VersionMeta,
  type VersionView,
} from '@salt-circle/contracts';
import { Person } from '../accounts/entities.js';
import { Intake } from '../files/intake.service.js';
import { refusal } from '../problems/sentences.js';
import { Me } from '../security/session.guard.js';
import { DraftsService } from './drafts.service.js';
import { HandInService } from './hand-in.service.js';
import { ReadDraftsService } from './read-drafts.service.js';

const WholeNumber = new ParseIntPipe({ exceptionFactory: () => refusal('unknown') });

@Controller('exchanges/:exchangeId')
export class DraftsController {
  constructor(
    private readonly drafts: DraftsService,
    private readonly reading: ReadDraftsService,
    private readonly handing: HandInService,
    private readonly intake: Intake,
  ) {}

  @Get('draft')
  mine(@Me() me: Person, @Param('exchangeId') id: string): Promise<MyDraftView> {
    return this.drafts.mine(me, id);
  }

  @Put('draft')
  save(@Me() me: Person, @Param('exchangeId') id: string, @Body() request: DraftSaveRequest): Promise<SavedView> {
    return this.drafts.save(me, id, request);
  }

  @Put('draft/texts/:deliverableId')
  saveText(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Param('deliverableId') deliverableId: string,
    @Body() request: TextSaveRequest,
  ): Promise<SavedView> {
    return this.drafts.saveText(me, id, deliverableId, request);
  }

  @Post('draft/links/:deliverableId')
  addLink(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Param('deliverableId') deliverableId: string,
    @Body() request: LinkRequest,
  ): Promise<PartView> {
    return this.drafts.addLink(me, id, deliverableId, request);
  }

  @Post('draft/files')
  attach(@Me() me: Person, @Param('exchangeId') id: string, @Body() request: AttachRequest): Promise<PartView> {
    return this.intake.attach(me, id, request);
  }

  @Post('draft/pictures')
  picture(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Body() { uploadId }: PictureRequest,
  ): Promise<{ address: string }> {
    return this.intake.picture(me, id, uploadId).then(({ digest, draftId }) => ({
      address: `/api/exchanges/${id}/drafts/${draftId}/pictures/${digest}`,
    }));
  }

  @Put('draft/parts/:partId')
  changeLink(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Param('partId') partId: string,
    @Body() request: LinkRequest,
  ): Promise<PartView> {
    return this.drafts.changeLink(me, id, partId, request);
  }

  @Put('draft/parts/:partId/hidden')
  @HttpCode(204)
  hidePassage(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Param('partId') partId: string,
    @Body() request: HideRequest,
  ): Promise<void> {
    return this.drafts.hide(me, id, partId, request);
  }

  @Delete('draft/parts/:partId')
  @HttpCode(204)
  removePart(@Me() me: Person, @Param('exchangeId') id: string, @Param('partId') partId: string): Promise<void> {
    return this.drafts.removePart(me, id, partId);
  }

  @Put('draft/order/:deliverableId')
  @HttpCode(204)
  order(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Param('deliverableId') deliverableId: string,
    @Body() { partIds }: PartOrderRequest,
  ): Promise<void> {
    return this.drafts.order(me, id, deliverableId, partIds);
  }

  @Get('draft/check')
  check(@Me() me: Person, @Param('exchangeId') id: string): Promise<HandInCheck> {
    return this.handing.check(me, id);
  }

  @Post('draft/hide')
  @HttpCode(200)
  hide(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Body() { fingerprint, key }: HideFindRequest,
  ): Promise<HandInCheck> {
    return this.handing.hide(me, id, fingerprint, key);
  }

  @Post('draft/hand-in')
  @HttpCode(200)
  handIn(@Me() me: Person, @Param('exchangeId') id: string, @Body() request: HandInRequest): Promise<VersionMeta> {
    return this.handing.handIn(me, id, request);
  }

  @Post('draft/withdraw')
  @HttpCode(204)
  withdraw(@Me() me: Person, @Param('exchangeId') id: string): Promise<void> {
    return this.handing.withdraw(me, id);
  }

  @Get('draft/versions/:number')
  version(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Param('number', WholeNumber) number: number,
  ): Promise<VersionView> {
    return this.reading.version(me, id, number);
  }

  @Get('drafts/:draftId')
  read(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Param('draftId') draftId: string,
  ): Promise<DraftReadingView> {
    return this.reading.read(me, id, draftId);
  }

  @Get('drafts/:draftId/versions/:number')
  versionOf(
    @Me() me: Person,
    @Param('exchangeId') id: string,
    @Param('draftId') draftId: string,
    @Param('number', WholeNumber) number: number,
  ): Promise<VersionView> {
    return this.reading.versionOf(me, id, draftId, number);
  }
}
