import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Res, UseInterceptors } from '@nestjs/common';
import {
  AllocationActsRequest,
  AllocationImportRequest,
  AllocationPlanRequest,
  ApplyPreviewRequest,
  UndoRequest,
  ExtraReviewerRequest,
  PreviewRequest,
  ScheduleRequest,
  type AllocationImportView,
  type AllocationView,
  type JobView,
  type SavedView,
} from '@salt-circle/contracts';
import contentDisposition from 'content-disposition';
import type { Response } from 'express';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { AllocationService } from './allocation.service.js';
import { BoardChanges } from './board-changes.js';
import { AllocationFiles } from './allocation-files.service.js';
import { PreviewsService } from './previews.service.js';

@Controller('exchanges/:exchangeId/allocation')
export class AllocationController {
  constructor(
    private readonly allocation: AllocationService,
    private readonly previews: PreviewsService,
    private readonly files: AllocationFiles,
  ) {}

  @Get()
  @UseInterceptors(BoardChanges)
  one(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<AllocationView> {
    return this.allocation.one(me, id);
  }

  @Put('schedule')
  setSchedule(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: ScheduleRequest,
  ): Promise<SavedView> {
    return this.allocation.setSchedule(me, id, request);
  }

  @Put('plan')
  @UseInterceptors(BoardChanges)
  setPlan(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: AllocationPlanRequest,
  ): Promise<AllocationView> {
    return this.allocation.setPlan(me, id, request);
  }

  @Put('extra')
  @UseInterceptors(BoardChanges)
  setExtra(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: ExtraReviewerRequest,
  ): Promise<AllocationView> {
    return this.allocation.setExtra(me, id, request);
  }

  @Post('previews')
  @HttpCode(200)
  preview(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Body() request: PreviewRequest): Promise<JobView> {
    return this.previews.start(me, id, request);
  }

  @Delete('previews/:previewId')
  @HttpCode(204)
  drop(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Param('previewId') previewId: string): Promise<void> {
    return this.previews.drop(me, id, previewId);
  }

  @Get('jobs/:jobId')
  job(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Param('jobId') jobId: string): Promise<JobView> {
    return this.previews.job(me, id, jobId);
  }

  @Delete('jobs/:jobId')
  @HttpCode(204)
  cancel(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Param('jobId') jobId: string): Promise<void> {
    return this.previews.cancel(me, id, jobId);
  }

  @Post()
  @HttpCode(200)
  @UseInterceptors(BoardChanges)
  apply(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() { previewId }: ApplyPreviewRequest,
  ): Promise<AllocationView> {
    return this.allocation.apply(me, id, previewId);
  }

  @Post('undo')
  @HttpCode(200)
  @UseInterceptors(BoardChanges)
  undo(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Body() { step }: UndoRequest): Promise<AllocationView> {
    return this.allocation.undo(me, id, step);
  }

  @Post('acts')
  @HttpCode(200)
  @UseInterceptors(BoardChanges)
  byHand(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: AllocationActsRequest,
  ): Promise<AllocationView> {
    return this.allocation.byHand(me, id, request);
  }

  @Get('file')
  async write(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<string> {
    const { name, csv } = await this.files.write(me, id);
    response.setHeader('Content-Type', 'text/csv; charset=utf-8');
    response.setHeader('Content-Disposition', contentDisposition(name));
    return csv;
  }

  @Post('file')
  @HttpCode(200)
  read(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: AllocationImportRequest,
  ): Promise<AllocationImportView> {
    return this.files.read(me, id, request);
  }
}
