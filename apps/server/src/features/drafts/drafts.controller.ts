import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  DraftSaveRequest,
  HandInRequest,
  HideFindRequest,
  HideRequest,
  LinkRequest,
  PartOrderRequest,
  TextSaveRequest,
  type HandInCheck,
  type MyDraftView,
  type PartView,
  type SavedView,
  type VersionMeta,
} from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { DraftsService } from './drafts.service.js';
import { HandInService } from './hand-in.service.js';

@Controller('exchanges/:exchangeId')
export class DraftsController {
  constructor(
    private readonly drafts: DraftsService,
    private readonly handing: HandInService,
  ) {}

  @Get('draft')
  mine(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<MyDraftView> {
    return this.drafts.mine(me, id);
  }

  @Put('draft')
  save(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Body() request: DraftSaveRequest): Promise<SavedView> {
    return this.drafts.save(me, id, request);
  }

  @Put('draft/texts/:deliverableId')
  saveText(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('deliverableId') deliverableId: string,
    @Body() request: TextSaveRequest,
  ): Promise<SavedView> {
    return this.drafts.saveText(me, id, deliverableId, request);
  }

  @Post('draft/links/:deliverableId')
  addLink(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('deliverableId') deliverableId: string,
    @Body() request: LinkRequest,
  ): Promise<PartView> {
    return this.drafts.addLink(me, id, deliverableId, request);
  }

  @Put('draft/parts/:partId')
  changeLink(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('partId') partId: string,
    @Body() request: LinkRequest,
  ): Promise<PartView> {
    return this.drafts.changeLink(me, id, partId, request);
  }

  @Put('draft/parts/:partId/hidden')
  @HttpCode(204)
  hidePassage(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('partId') partId: string,
    @Body() request: HideRequest,
  ): Promise<void> {
    return this.drafts.hide(me, id, partId, request);
  }

  @Delete('draft/parts/:partId')
  @HttpCode(204)
  removePart(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Param('partId') partId: string): Promise<void> {
    return this.drafts.removePart(me, id, partId);
  }

  @Put('draft/order/:deliverableId')
  @HttpCode(204)
  order(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('deliverableId') deliverableId: string,
    @Body() { partIds }: PartOrderRequest,
  ): Promise<void> {
    return this.drafts.order(me, id, deliverableId, partIds);
  }

  @Get('draft/check')
  check(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<HandInCheck> {
    return this.handing.check(me, id);
  }

  @Post('draft/hide')
  @HttpCode(200)
  hide(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() { fingerprint, key }: HideFindRequest,
  ): Promise<HandInCheck> {
    return this.handing.hide(me, id, fingerprint, key);
  }

  @Post('draft/hand-in')
  @HttpCode(200)
  handIn(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Body() request: HandInRequest): Promise<VersionMeta> {
    return this.handing.handIn(me, id, request);
  }

  @Post('draft/withdraw')
  @HttpCode(204)
  withdraw(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<void> {
    return this.handing.withdraw(me, id);
  }
}
