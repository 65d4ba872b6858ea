import { Module } from '@nestjs/common';
import { ReadingModule } from '../reading/reading.module.js';
import { ReviewContents } from './contents.service.js';
import { ReviewsController } from './reviews.controller.js';
import { ReviewsService } from './reviews.service.js';

@Module({
  imports: [ReadingModule],
  controllers: [ReviewsController],
  providers: [ReviewContents, ReviewsService],
  exports: [ReviewContents],
})
export class ReviewsModule {}
