import { Module } from '@nestjs/common';
import { LibraryModule } from '../library/library.module.js';
import { CopyController } from './copy.controller.js';
import { CopyService } from './copy.service.js';
import { DatesService } from './dates.service.js';
import { ExchangesController } from './exchanges.controller.js';
import { ExchangesService } from './exchanges.service.js';
import { FormsController } from './forms.controller.js';
import { FormsService } from './forms.service.js';
import { PlanService } from './plan.service.js';

@Module({
  imports: [LibraryModule],
  controllers: [CopyController, ExchangesController, FormsController],
  providers: [CopyService, DatesService, ExchangesService, FormsService, PlanService],
  exports: [DatesService, ExchangesService],
})
export class PlanningModule {}
