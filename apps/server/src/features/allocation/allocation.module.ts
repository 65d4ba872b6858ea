import { Module } from '@nestjs/common';
import { AllocationFiles } from './allocation-files.service.js';
import { AllocationController } from './allocation.controller.js';
import { AllocationService } from './allocation.service.js';
import { BoardChanges } from './board-changes.js';
import { PlannedRuns } from './planned-runs.js';
import { PreviewsService } from './previews.service.js';
import { Solver } from './solver.js';

/** Not made by Nest: it takes limits and a worker, which are no services. */
const SOLVER = { provide: Solver, useFactory: () => new Solver() };

@Module({
  controllers: [AllocationController],
  providers: [SOLVER, AllocationService, BoardChanges, PreviewsService, AllocationFiles, PlannedRuns],
  exports: [AllocationFiles, AllocationService],
})
export class AllocationModule {}
