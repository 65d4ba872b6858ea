import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import {
  PracticeBeginRequest,
  PracticeDraftRequest,
  type PracticeResultView,
  type PracticeView,
} from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { NewPracticeDrafts } from './new-practice-drafts.service.js';
import { PracticeService } from './practice.service.js';

@Controller()
export class PracticeController {
  constructor(
    private readonly practice: PracticeService,
    private readonly fresh: NewPracticeDrafts,
  ) {}

  @Get('exchanges/:exchangeId/practice')
  list(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<PracticeView> {
    return this.practice.list(me, id);
  }

  @Post('exchanges/:exchangeId/practice')
  async add(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: PracticeDraftRequest,
  ): Promise<PracticeView> {
    await this.fresh.add(me, id, request);
    return this.practice.list(me, id);
  }

  @Delete('practice/:practiceId')
  @HttpCode(204)
  remove(@Me() me: CurrentUser, @Param('practiceId') id: string): Promise<void> {
    return this.practice.remove(me, id);
  }

  @Post('practice/:practiceId/begin')
  @HttpCode(200)
  begin(
    @Me() me: CurrentUser,
    @Param('practiceId') id: string,
    @Body() { again }: PracticeBeginRequest,
  ): Promise<{ reviewId: string }> {
    return this.practice.begin(me, id, again);
  }

  @Get('practice/:practiceId/result')
  result(@Me() me: CurrentUser, @Param('practiceId') id: string): Promise<PracticeResultView> {
    return this.practice.result(me, id);
  }
}
