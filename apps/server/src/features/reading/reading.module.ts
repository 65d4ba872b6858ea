import { Module } from '@nestjs/common';
import { AttachmentFilesController } from './attachments.controller.js';
import { Copies } from './copies.service.js';
import { FilesController } from './files.controller.js';
import { ReadDraftsService } from './read-drafts.service.js';
import { ReadingController } from './reading.controller.js';
import { RemarkFilesController } from './remark-files.controller.js';
import { Readings } from './readings.service.js';

@Module({
  controllers: [FilesController, AttachmentFilesController, ReadingController, RemarkFilesController],
  providers: [Copies, ReadDraftsService, Readings],
  exports: [Copies, ReadDraftsService, Readings],
})
export class ReadingModule {}
