import { Module } from '@nestjs/common';
import { DraftsModule } from '../drafts/drafts.module.js';
import { ReadingModule } from '../reading/reading.module.js';
import { ReviewsModule } from '../reviews/reviews.module.js';
import { AfterService } from './after.service.js';
import { Decisions } from './decisions.service.js';
import { Reflections } from './reflections.service.js';
import { RevisingController } from './revising.controller.js';
import { Revisions } from './revisions.service.js';

@Module({
  imports: [DraftsModule, ReadingModule, ReviewsModule],
  controllers: [RevisingController],
  providers: [AfterService, Decisions, Reflections, Revisions],
})
export class RevisingModule {}
