import { Module } from '@nestjs/common';
import { ProgressController } from './progress.controller.js';
import { ProgressService } from './progress.service.js';
import { Stories } from './story.service.js';

@Module({
  controllers: [ProgressController],
  providers: [ProgressService, Stories],
})
export class ProgressModule {}
