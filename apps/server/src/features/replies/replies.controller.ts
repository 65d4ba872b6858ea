import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { RatingRequest, ReplyRequest, type ThreadsView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { Replies } from './replies.service.js';

@Controller('reviews/:reviewId')
export class RepliesController {
  constructor(private readonly replies: Replies) {}

  @Get('replies')
  threads(@Me() me: CurrentUser, @Param('reviewId') id: string): Promise<ThreadsView> {
    return this.replies.threads(me, id);
  }

  @Post('replies')
  @HttpCode(200)
  reply(@Me() me: CurrentUser, @Param('reviewId') id: string, @Body() request: ReplyRequest): Promise<ThreadsView> {
    return this.replies.reply(me, id, request);
  }

  @Put('rating')
  rate(@Me() me: CurrentUser, @Param('reviewId') id: string, @Body() request: RatingRequest): Promise<ThreadsView> {
    return this.replies.rate(me, id, request);
  }
}
