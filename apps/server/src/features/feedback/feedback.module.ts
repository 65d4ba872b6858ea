import { Module } from '@nestjs/common';
import { ReadingModule } from '../reading/reading.module.js';
import { ReviewsModule } from '../reviews/reviews.module.js';
import { FeedbackController } from './feedback.controller.js';
import { FeedbackService } from './feedback.service.js';
import { OtherReviews } from './other-reviews.service.js';
import { ReleaseNews } from './release-news.service.js';

@Module({
  imports: [ReadingModule, ReviewsModule],
  controllers: [FeedbackController],
  providers: [FeedbackService, OtherReviews, ReleaseNews],
  exports: [FeedbackService, ReleaseNews],
})
export class FeedbackModule {}
