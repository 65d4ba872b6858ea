import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/allocation.module.js';
import { PlanningModule } from '../planning/planning.module.js';
import { TodayController } from './today.controller.js';
import { TodayService } from './today.service.js';

@Module({
  imports: [AllocationModule, PlanningModule],
  controllers: [TodayController],
  providers: [TodayService],
})
export class TodayModule {}
