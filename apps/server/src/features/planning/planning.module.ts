import { Module } from '@nestjs/common';
import { LibraryModule } from '../library/library.module.js';
import { NewExchangesController } from './new-exchanges.controller.js';
import { NewExchangesService } from './new-exchanges.service.js';
import { DatesService } from './dates.service.js';
import { ExchangesController } from './exchanges.controller.js';
import { ExchangesService } from './exchanges.service.js';
import { FormsController } from './forms.controller.js';
import { FormsService } from './forms.service.js';
import { PlanService } from './plan.service.js';

@Module({
  imports: [LibraryModule],
  controllers: [NewExchangesController, ExchangesController, FormsController],
  providers: [NewExchangesService, DatesService, ExchangesService, FormsService, PlanService],
  exports: [DatesService, ExchangesService],
})
export class PlanningModule {}
