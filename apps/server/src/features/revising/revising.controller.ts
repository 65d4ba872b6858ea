import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  AdoptRequest,
  DecisionRequest,
  ReflectionRequest,
  type AdoptResult,
  type AfterRow,
  type DecisionsView,
  type DecisionView,
  type ReflectionRead,
  type ReflectionView,
  type RevisionView,
} from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { AfterService } from './after.service.js';
import { Decisions } from './decisions.service.js';
import { Reflections } from './reflections.service.js';
import { Revisions } from './revisions.service.js';

@Controller('exchanges/:exchangeId')
export class RevisingController {
  constructor(
    private readonly decisions: Decisions,
    private readonly reflections: Reflections,
    private readonly revisions: Revisions,
    private readonly after: AfterService,
  ) {}

  @Get('decisions')
  mine(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<DecisionsView> {
    return this.decisions.mine(me, id);
  }

  @Put('decisions/:key')
  decide(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('key') key: string,
    @Body() request: DecisionRequest,
  ): Promise<DecisionView> {
    return this.decisions.decide(me, id, key, request);
  }

  @Post('adoptions')
  @HttpCode(200)
  adopt(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() { noteIds }: AdoptRequest,
  ): Promise<AdoptResult> {
    return this.decisions.adopt(me, id, noteIds);
  }

  @Delete('adoptions/:adoptionId')
  undo(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('adoptionId') adoptionId: string,
  ): Promise<DecisionsView> {
    return this.decisions.undo(me, id, adoptionId);
  }

  @Get('reflection')
  reflection(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<ReflectionView> {
    return this.reflections.mine(me, id);
  }

  @Put('reflection')
  reflect(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: ReflectionRequest,
  ): Promise<ReflectionView> {
    return this.reflections.save(me, id, request);
  }

  @Get('reflections')
  allReflections(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<ReflectionRead[]> {
    return this.reflections.all(me, id);
  }

  @Get('drafts/:draftId/revision')
  revision(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('draftId') draftId: string,
  ): Promise<RevisionView> {
    return this.revisions.of(me, id, draftId);
  }

  @Get('after')
  rows(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<AfterRow[]> {
    return this.after.rows(me, id);
  }
}
