import { Module } from '@nestjs/common';
import { DraftsModule } from '../drafts/drafts.module.js';
import { FilesModule } from '../files/files.module.js';
import { ReadingModule } from '../reading/reading.module.js';
import { ReviewsModule } from '../reviews/reviews.module.js';
import { NewPracticeDrafts } from './new-practice-drafts.service.js';
import { PracticeController } from './practice.controller.js';
import { PracticeService } from './practice.service.js';

@Module({
  imports: [DraftsModule, FilesModule, ReadingModule, ReviewsModule],
  controllers: [PracticeController],
  providers: [NewPracticeDrafts, PracticeService],
})
export class PracticeModule {}
