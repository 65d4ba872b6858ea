import { Module } from '@nestjs/common';
import { OutboxController } from './outbox.controller.js';
import { OutboxService } from './outbox.service.js';
import { PostService } from './post.service.js';

@Module({
  controllers: [OutboxController],
  providers: [OutboxService, PostService],
  exports: [OutboxService],
})
export class MailModule {}
