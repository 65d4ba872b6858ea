import { Module } from '@nestjs/common';
import { FilesModule } from '../files/files.module.js';
import { FeedbackModule } from '../feedback/feedback.module.js';
import { ReadingModule } from '../reading/reading.module.js';
import { RepliesModule } from '../replies/replies.module.js';
import { ReviewsModule } from '../reviews/reviews.module.js';
import { MarkedController } from './marked.controller.js';
import { MarkedIn } from './marked-in.service.js';
import { MarkedDrafts } from './marked-drafts.service.js';
import { MarkedFiles } from './marked-files.service.js';

@Module({
  imports: [FeedbackModule, FilesModule, ReadingModule, RepliesModule, ReviewsModule],
  controllers: [MarkedController],
  providers: [MarkedDrafts, MarkedFiles, MarkedIn],
  exports: [MarkedFiles],
})
export class MarkedModule {}
