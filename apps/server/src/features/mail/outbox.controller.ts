import { Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import type { MailView, OutboxView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { OutboxService } from './outbox.service.js';

@Controller('courses/:courseId/outbox')
export class OutboxController {
  constructor(private readonly outbox: OutboxService) {}

  @Get()
  list(@Me() me: CurrentUser, @Param('courseId') courseId: string): Promise<OutboxView> {
    return this.outbox.list(me, courseId);
  }

  @Post('again')
  @HttpCode(200)
  allAgain(@Me() me: CurrentUser, @Param('courseId') courseId: string): Promise<{ letters: number }> {
    return this.outbox.again(me, courseId, null);
  }

  @Post(':mailId/again')
  @HttpCode(200)
  again(
    @Me() me: CurrentUser,
    @Param('courseId') courseId: string,
    @Param('mailId') mailId: string,
  ): Promise<{ letters: number }> {
    return this.outbox.again(me, courseId, mailId);
  }

  @Get(':mailId')
  one(@Me() me: CurrentUser, @Param('courseId') courseId: string, @Param('mailId') mailId: string): Promise<MailView> {
    return this.outbox.one(me, courseId, mailId);
  }
}
