import { Module } from '@nestjs/common';
import { GroupsController } from './groups.controller.js';
import { FillingService } from './filling.service.js';
import { GroupChanges } from './group-changes.js';
import { GroupSetsService } from './group-sets.service.js';
import { GroupsService } from './groups.service.js';

@Module({
  controllers: [GroupsController],
  providers: [GroupChanges, GroupSetsService, GroupsService, FillingService],
})
export class GroupsModule {}
