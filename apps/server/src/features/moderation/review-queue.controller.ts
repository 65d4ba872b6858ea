import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { CheckRequest, QueueBoundsRequest, type CheckView, type QueueView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { OwnReviews } from './own-reviews.service.js';
import { ReviewQueue } from './review-queue.service.js';

@Controller()
export class ReviewQueueController {
  constructor(
    private readonly reviews: ReviewQueue,
    private readonly own: OwnReviews,
  ) {}

  @Get('exchanges/:exchangeId/queue')
  queue(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<QueueView> {
    return this.reviews.queue(me, id);
  }

  @Put('exchanges/:exchangeId/queue/bounds')
  @HttpCode(204)
  saveBounds(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() { bounds }: QueueBoundsRequest,
  ): Promise<void> {
    return this.reviews.saveBounds(me, id, bounds);
  }

  @Post('exchanges/:exchangeId/drafts/:draftId/reviews')
  @HttpCode(200)
  begin(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('draftId') draftId: string,
  ): Promise<{ readonly id: string }> {
    return this.own.begin(me, id, draftId);
  }

  @Get('reviews/:reviewId/check')
  one(@Me() me: CurrentUser, @Param('reviewId') id: string): Promise<CheckView> {
    return this.reviews.one(me, id);
  }

  @Put('reviews/:reviewId/check')
  save(@Me() me: CurrentUser, @Param('reviewId') id: string, @Body() request: CheckRequest): Promise<CheckView> {
    return this.reviews.save(me, id, request);
  }
}
