import { Module } from '@nestjs/common';
import { FormFilesService } from './form-files.service.js';
import { LibraryController } from './library.controller.js';
import { LibraryService } from './library.service.js';

@Module({
  controllers: [LibraryController],
  providers: [FormFilesService, LibraryService],
  exports: [LibraryService],
})
export class LibraryModule {}
