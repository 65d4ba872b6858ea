import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/allocation.module.js';
import { FilesModule } from '../files/files.module.js';
import { GradesModule } from '../grades/grades.module.js';
import { AnnotatedFilesModule } from '../annotated-files/annotated-files.module.js';
import { ReadingModule } from '../reading/reading.module.js';
import { ArchiveController } from './archive.controller.js';
import { ArchiveReading } from './archive-reading.service.js';
import { ExchangeArchives } from './exchange-archives.service.js';

@Module({
  imports: [AllocationModule, FilesModule, GradesModule, AnnotatedFilesModule, ReadingModule],
  controllers: [ArchiveController],
  providers: [ArchiveReading, ExchangeArchives],
})
export class ArchiveModule {}
