import { Module } from '@nestjs/common';
import { DayLetters } from './day-letters.service.js';
import { InboxController } from './inbox.controller.js';
import { Inbox } from './inbox.service.js';

@Module({ controllers: [InboxController], providers: [Inbox, DayLetters] })
export class InboxModule {}
