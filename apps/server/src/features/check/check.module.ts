import { Module } from '@nestjs/common';
import { FeedbackModule } from '../feedback/feedback.module.js';
import { ReviewsModule } from '../reviews/reviews.module.js';
import { Doubts } from './doubts.service.js';
import { LookRequestsController } from './look-requests.controller.js';
import { LookRequests } from './look-requests.service.js';
import { OwnReviews } from './own-reviews.service.js';
import { QueueController } from './queue.controller.js';
import { QueueService } from './queue.service.js';
import { ReleaseController } from './release.controller.js';
import { ReleaseService } from './release.service.js';
import { WithholdingController } from './withholding.controller.js';
import { Withholding } from './withholding.service.js';

@Module({
  imports: [FeedbackModule, ReviewsModule],
  controllers: [QueueController, ReleaseController, LookRequestsController, WithholdingController],
  providers: [Doubts, LookRequests, OwnReviews, QueueService, ReleaseService, Withholding],
})
export class CheckModule {}
