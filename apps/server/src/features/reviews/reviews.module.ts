import { Module } from '@nestjs/common';
import { ReadingModule } from '../reading/reading.module.js';
import { ReviewContents } from './contents.service.js';
import { OwnRemarksController } from './own-remarks.controller.js';
import { OwnRemarks } from './own-remarks.service.js';
import { ReviewNames } from './review-names.service.js';
import { ReviewNotes } from './review-notes.service.js';
import { ReviewWriting } from './review-writing.service.js';
import { ReviewsController } from './reviews.controller.js';
import { ReviewsService } from './reviews.service.js';

@Module({
  imports: [ReadingModule],
  controllers: [ReviewsController, OwnRemarksController],
  providers: [ReviewContents, ReviewsService, ReviewNotes, ReviewWriting, OwnRemarks, ReviewNames],
  exports: [ReviewContents, ReviewsService, ReviewNotes],
})
export class ReviewsModule {}
