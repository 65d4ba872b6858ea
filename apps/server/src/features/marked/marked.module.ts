import { Module } from '@nestjs/common';
import { FeedbackModule } from '../feedback/feedback.module.js';
import { ReadingModule } from '../reading/reading.module.js';
import { RepliesModule } from '../replies/replies.module.js';
import { ReviewsModule } from '../reviews/reviews.module.js';
import { MarkedController } from './marked.controller.js';
import { MarkedDrafts } from './marked-drafts.service.js';
import { MarkedFiles } from './marked-files.service.js';

@Module({
  imports: [FeedbackModule, ReadingModule, RepliesModule, ReviewsModule],
  controllers: [MarkedController],
  providers: [MarkedDrafts, MarkedFiles],
})
export class MarkedModule {}
