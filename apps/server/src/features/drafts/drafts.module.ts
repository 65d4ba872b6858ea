import { Module } from '@nestjs/common';
import { PlanningModule } from '../planning/planning.module.js';
import { ReadingModule } from '../reading/reading.module.js';
import { ArchiveService } from './archive.service.js';
import { CollectionController } from './collection.controller.js';
import { CollectionService } from './collection.service.js';
import { DueReminders } from './due-reminders.service.js';
import { RemindersService } from './reminders.service.js';
import { DraftsController } from './drafts.controller.js';
import { DraftsService } from './drafts.service.js';
import { HandInService } from './hand-in.service.js';
import { NameSearch } from './name-search.service.js';
import { OwnDrafts } from './own-draft.service.js';

@Module({
  imports: [PlanningModule, ReadingModule],
  controllers: [CollectionController, DraftsController],
  providers: [
    ArchiveService,
    CollectionService,
    RemindersService,
    DueReminders,
    DraftsService,
    HandInService,
    NameSearch,
    OwnDrafts,
  ],
  exports: [NameSearch, OwnDrafts],
})
export class DraftsModule {}
