import { Body, Controller, Get, Param, Post, Put } from '@nestjs/common';
import { LookAnswerRequest, LookRequest, type LookRequestView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { LookRequests } from './look-requests.service.js';

@Controller()
export class LookRequestsController {
  constructor(private readonly looks: LookRequests) {}

  @Get('reviews/:reviewId/look-requests')
  lookRequests(@Me() me: CurrentUser, @Param('reviewId') id: string): Promise<LookRequestView[]> {
    return this.looks.of(me, id);
  }

  @Post('reviews/:reviewId/look-requests')
  askToLook(
    @Me() me: CurrentUser,
    @Param('reviewId') id: string,
    @Body() request: LookRequest,
  ): Promise<LookRequestView[]> {
    return this.looks.ask(me, id, request);
  }

  @Put('reviews/:reviewId/look-requests/:requestId')
  answerLook(
    @Me() me: CurrentUser,
    @Param('reviewId') id: string,
    @Param('requestId') requestId: string,
    @Body() { answer }: LookAnswerRequest,
  ): Promise<LookRequestView[]> {
    return this.looks.answer(me, id, requestId, answer);
  }
}
