import { Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import type { FeedbackView } from '@salt-circle/contracts';
import type { Asker } from '../../access/seeing.js';
import { Me } from '../../access/session.guard.js';
import { FeedbackService } from './feedback.service.js';

@Controller('exchanges/:exchangeId/feedback')
export class FeedbackController {
  constructor(private readonly feedback: FeedbackService) {}

  @Get()
  mine(@Me() me: Asker, @Param('exchangeId') id: string): Promise<FeedbackView> {
    return this.feedback.mine(me, id);
  }

  @Post('read')
  @HttpCode(204)
  read(@Me() me: Asker, @Param('exchangeId') id: string): Promise<void> {
    return this.feedback.read(me, id);
  }
}
