import { Body, Controller, Get, HttpCode, Post, Put } from '@nestjs/common';
import { MailWishRequest, ReadNewsRequest, type InboxView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { Inbox } from './inbox.service.js';

@Controller('inbox')
export class InboxController {
  constructor(private readonly inbox: Inbox) {}

  @Get()
  mine(@Me() me: CurrentUser): Promise<InboxView> {
    return this.inbox.mine(me);
  }

  @Post('read')
  @HttpCode(200)
  read(@Me() me: CurrentUser, @Body() { ids }: ReadNewsRequest): Promise<InboxView> {
    return this.inbox.read(me, ids);
  }

  @Put('mail')
  wish(@Me() me: CurrentUser, @Body() { mailWish }: MailWishRequest): Promise<InboxView> {
    return this.inbox.wish(me, mailWish);
  }
}
