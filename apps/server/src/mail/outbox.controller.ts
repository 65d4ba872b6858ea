import { Controller, Get, Param } from '@nestjs/common';
import type { MailView, OutboxView } from '@salt-circle/contracts';
import { Person } from '../accounts/entities.js';
import { Me } from '../security/session.guard.js';
import { OutboxService } from './outbox.service.js';

@Controller('courses/:courseId/outbox')
export class OutboxController {
  constructor(private readonly outbox: OutboxService) {}

  @Get()
  list(@Me() me: Person, @Param('courseId') courseId: string): Promise<OutboxView> {
    return this.outbox.list(me, courseId);
  }

  @Get(':mailId')
  one(@Me() me: Person, @Param('courseId') courseId: string, @Param('mailId') mailId: string): Promise<MailView> {
    return this.outbox.one(me, courseId, mailId);
  }
}
