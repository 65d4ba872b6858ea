import { Body, Controller, Get, HttpCode, Post, Put } from '@nestjs/common';
import { MailWishRequest, ReadNewsRequest, type InboxView } from '@salt-circle/contracts';
import type { Asker } from '../../access/seeing.js';
import { Me } from '../../access/session.guard.js';
import { Inbox } from './inbox.service.js';

@Controller('inbox')
export class InboxController {
  constructor(private readonly inbox: Inbox) {}

  @Get()
  mine(@Me() me: Asker): Promise<InboxView> {
    return this.inbox.mine(me);
  }

  @Post('read')
  @HttpCode(200)
  read(@Me() me: Asker, @Body() { ids }: ReadNewsRequest): Promise<InboxView> {
    return this.inbox.read(me, ids);
  }

  @Put('mail')
  wish(@Me() me: Asker, @Body() { mailWish }: MailWishRequest): Promise<InboxView> {
    return this.inbox.wish(me, mailWish);
  }
}
