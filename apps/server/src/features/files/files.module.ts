import { Module } from '@nestjs/common';
import { DraftsModule } from '../drafts/drafts.module.js';
import { ReadingModule } from '../reading/reading.module.js';
import { Attachments } from './attachments.service.js';
import { Cleaner } from './cleaner.js';
import { FileRoom } from './file-room.service.js';
import { Intake, PartReading } from './intake.service.js';
import { Keeping } from './keeping.service.js';
import { PictureIntake } from './picture-intake.service.js';
import { AttachmentsController, IntakeController, UploadsController } from './uploads.controller.js';
import { ReviewFilesController } from './review-files.controller.js';
import { ReviewFiles } from './review-files.service.js';
import { Uploads } from './uploads.service.js';
import { Welcome } from './welcome.service.js';

@Module({
  imports: [DraftsModule, ReadingModule],
  controllers: [AttachmentsController, IntakeController, UploadsController, ReviewFilesController],
  providers: [
    Attachments,
    Cleaner,
    FileRoom,
    Intake,
    Keeping,
    PartReading,
    PictureIntake,
    ReviewFiles,
    Uploads,
    Welcome,
  ],
  exports: [Keeping, Uploads, Welcome],
})
export class FilesModule {}
