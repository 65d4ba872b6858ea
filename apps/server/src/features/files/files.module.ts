import { Module } from '@nestjs/common';
import { DraftsModule } from '../drafts/drafts.module.js';
import { ReadingModule } from '../reading/reading.module.js';
import { Attachments } from './attachments.service.js';
import { Cleaner } from './cleaner.js';
import { FileRoom } from './file-room.service.js';
import { Intake, PartReading } from './draft-intake.service.js';
import { FileIntake } from './file-intake.service.js';
import { PictureIntake } from './picture-intake.service.js';
import { AttachmentsController, IntakeController, UploadsController } from './uploads.controller.js';
import { ReviewFilesController } from './review-files.controller.js';
import { ReviewFiles } from './review-files.service.js';
import { Uploads } from './uploads.service.js';
import { UploadPolicy } from './upload-policy.service.js';

@Module({
  imports: [DraftsModule, ReadingModule],
  controllers: [AttachmentsController, IntakeController, UploadsController, ReviewFilesController],
  providers: [
    Attachments,
    Cleaner,
    FileRoom,
    Intake,
    FileIntake,
    PartReading,
    PictureIntake,
    ReviewFiles,
    Uploads,
    UploadPolicy,
  ],
  exports: [FileIntake, Uploads, UploadPolicy],
})
export class FilesModule {}
