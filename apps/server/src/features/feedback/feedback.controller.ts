import { Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import type { DraftFeedbackView, FeedbackView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { FeedbackService } from './feedback.service.js';
import { OtherReviews } from './other-reviews.service.js';

@Controller()
export class FeedbackController {
  constructor(
    private readonly feedback: FeedbackService,
    private readonly others: OtherReviews,
  ) {}

  @Get('exchanges/:exchangeId/feedback')
  mine(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<FeedbackView> {
    return this.feedback.mine(me, id);
  }

  @Get('exchanges/:exchangeId/drafts/:draftId/feedback')
  ofDraft(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('draftId') draftId: string,
  ): Promise<DraftFeedbackView> {
    return this.feedback.ofDraft(me, id, draftId);
  }

  @Post('exchanges/:exchangeId/feedback/read')
  @HttpCode(204)
  read(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<void> {
    return this.feedback.read(me, id);
  }

  @Get('reviews/:reviewId/others')
  ofOthers(@Me() me: CurrentUser, @Param('reviewId') id: string): Promise<FeedbackView> {
    return this.others.of(me, id);
  }
}
