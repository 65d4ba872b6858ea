import { Module } from '@nestjs/common';
import { FilesModule } from '../files/files.module.js';
import { FeedbackModule } from '../feedback/feedback.module.js';
import { ReadingModule } from '../reading/reading.module.js';
import { RepliesModule } from '../replies/replies.module.js';
import { ReviewsModule } from '../reviews/reviews.module.js';
import { AnnotatedFilesController } from './annotated-files.controller.js';
import { AnnotatedFileImport } from './annotated-file-import.service.js';
import { AnnotatedDrafts } from './annotated-drafts.service.js';
import { AnnotatedFiles } from './annotated-files.service.js';

@Module({
  imports: [FeedbackModule, FilesModule, ReadingModule, RepliesModule, ReviewsModule],
  controllers: [AnnotatedFilesController],
  providers: [AnnotatedDrafts, AnnotatedFiles, AnnotatedFileImport],
  exports: [AnnotatedFiles],
})
export class AnnotatedFilesModule {}
