import { Body, Controller, Get, Param, Post } from '@nestjs/common';
import { SecondRoundRequest, type EarlierView, type RoundCard } from '@salt-circle/contracts';
import type { Asker } from '../../access/seeing.js';
import { Me } from '../../access/session.guard.js';
import { EarlierReviews } from './earlier-reviews.service.js';
import { Rounds } from './rounds.service.js';

@Controller()
export class RoundsController {
  constructor(
    private readonly rounds: Rounds,
    private readonly earlier: EarlierReviews,
  ) {}

  @Get('exchanges/:exchangeId/rounds')
  list(@Me() me: Asker, @Param('exchangeId') id: string): Promise<RoundCard[]> {
    return this.rounds.list(me, id);
  }

  @Post('exchanges/:exchangeId/rounds')
  make(@Me() me: Asker, @Param('exchangeId') id: string, @Body() request: SecondRoundRequest): Promise<RoundCard> {
    return this.rounds.make(me, id, request);
  }

  @Get('reviews/:reviewId/earlier')
  ofReview(@Me() me: Asker, @Param('reviewId') id: string): Promise<EarlierView> {
    return this.earlier.of(me, id);
  }
}
