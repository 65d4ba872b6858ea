import { Module } from '@nestjs/common';
import { Replies } from './replies.service.js';
import { RepliesController } from './replies.controller.js';

@Module({ controllers: [RepliesController], providers: [Replies], exports: [Replies] })
export class RepliesModule {}
