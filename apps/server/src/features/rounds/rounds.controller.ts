import { Body, Controller, Get, Param, Post } from '@nestjs/common';
import { SecondRoundRequest, type EarlierView, type RoundCard } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { EarlierReviews } from './earlier-reviews.service.js';
import { Rounds } from './rounds.service.js';

@Controller()
export class RoundsController {
  constructor(
    private readonly rounds: Rounds,
    private readonly earlier: EarlierReviews,
  ) {}

  @Get('exchanges/:exchangeId/rounds')
  list(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<RoundCard[]> {
    return this.rounds.list(me, id);
  }

  @Post('exchanges/:exchangeId/rounds')
  make(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: SecondRoundRequest,
  ): Promise<RoundCard> {
    return this.rounds.make(me, id, request);
  }

  @Get('reviews/:reviewId/earlier')
  ofReview(@Me() me: CurrentUser, @Param('reviewId') id: string): Promise<EarlierView> {
    return this.earlier.of(me, id);
  }
}
