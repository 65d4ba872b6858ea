import { Module } from '@nestjs/common';
import { FeedbackModule } from '../feedback/feedback.module.js';
import { ReviewsModule } from '../reviews/reviews.module.js';
import { ReviewFlags } from './review-flags.service.js';
import { LookRequestsController } from './look-requests.controller.js';
import { LookRequests } from './look-requests.service.js';
import { OwnReviews } from './own-reviews.service.js';
import { ReviewQueueController } from './review-queue.controller.js';
import { ReviewQueue } from './review-queue.service.js';
import { ReleaseController } from './release.controller.js';
import { ReleaseService } from './release.service.js';
import { WithholdingController } from './withholding.controller.js';
import { Withholding } from './withholding.service.js';

@Module({
  imports: [FeedbackModule, ReviewsModule],
  controllers: [ReviewQueueController, ReleaseController, LookRequestsController, WithholdingController],
  providers: [ReviewFlags, LookRequests, OwnReviews, ReviewQueue, ReleaseService, Withholding],
})
export class ModerationModule {}
