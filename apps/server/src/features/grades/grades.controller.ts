import { Body, Controller, Get, HttpCode, Param, Post, Put, Res, StreamableFile } from '@nestjs/common';
import {
  AnswerRequest,
  type AnswerView,
  GradeOverrideRequest,
  GradeRuleRequest,
  GraderRequest,
  GradesReleaseRequest,
  GradingShareRequest,
  MarkingFormsRequest,
  type GradeMoveView,
  type GradesView,
  type GradingCompanyView,
  type InsightsView,
  type OwnGradeView,
} from '@salt-circle/contracts';
import contentDisposition from 'content-disposition';
import type { Response } from 'express';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { GradeFiles } from './grade-files.service.js';
import { Insights } from './insights.service.js';
import { GradesRelease } from './grades-release.service.js';
import { Grades } from './grades.service.js';
import { Grading } from './grading.service.js';

@Controller('exchanges/:exchangeId')
export class GradesController {
  constructor(
    private readonly grades: Grades,
    private readonly releases: GradesRelease,
    private readonly files: GradeFiles,
    private readonly insights: Insights,
    private readonly grading: Grading,
  ) {}

  @Get('grades')
  view(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<GradesView> {
    return this.grades.view(me, id);
  }

  @Get('grade')
  own(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<OwnGradeView> {
    return this.grades.own(me, id);
  }

  @Get('insights')
  insightsOf(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<InsightsView> {
    return this.insights.of(me, id);
  }

  @Post('grade/read')
  @HttpCode(204)
  read(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<void> {
    return this.grades.read(me, id);
  }

  @Post('grades/preview')
  @HttpCode(200)
  preview(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: GradeRuleRequest,
  ): Promise<GradeMoveView[]> {
    return this.grades.preview(me, id, request);
  }

  @Put('grades/rule')
  @HttpCode(204)
  saveRule(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Body() request: GradeRuleRequest): Promise<void> {
    return this.grades.saveRule(me, id, request);
  }

  @Post('grades/release')
  @HttpCode(204)
  release(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: GradesReleaseRequest,
  ): Promise<void> {
    return this.releases.release(me, id, request);
  }

  @Post('grades/graders')
  @HttpCode(204)
  share(@Me() me: CurrentUser, @Param('exchangeId') id: string, @Body() request: GradingShareRequest): Promise<void> {
    return this.grading.share(me, id, request);
  }

  @Put('grades/forms')
  @HttpCode(204)
  chooseForms(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Body() request: MarkingFormsRequest,
  ): Promise<void> {
    return this.grading.chooseForms(me, id, request);
  }

  @Put('grades/:participantId/grader')
  @HttpCode(204)
  assign(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('participantId') participantId: string,
    @Body() request: GraderRequest,
  ): Promise<void> {
    return this.grading.assign(me, id, participantId, request);
  }

  @Post('grades/:participantId/present')
  @HttpCode(200)
  present(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('participantId') participantId: string,
  ): Promise<GradingCompanyView> {
    return this.grading.present(me, id, participantId);
  }

  @Put('grades/:participantId/override')
  @HttpCode(204)
  override(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('participantId') participantId: string,
    @Body() request: GradeOverrideRequest,
  ): Promise<void> {
    return this.grades.override(me, id, participantId, request);
  }

  @Put('grades/:participantId/reviewing/:itemId')
  mark(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Param('participantId') participantId: string,
    @Param('itemId') itemId: string,
    @Body() request: AnswerRequest,
  ): Promise<AnswerView> {
    return this.grades.mark(me, id, participantId, itemId, request);
  }

  @Get('grades.csv')
  async csv(
    @Me() me: CurrentUser,
    @Param('exchangeId') id: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<string> {
    const { name, csv } = await this.files.csv(me, id);
    response.setHeader('Content-Type', 'text/csv; charset=utf-8');
    response.setHeader('Content-Disposition', contentDisposition(name));
    return csv;
  }

  @Get('grades.xlsx')
  async xlsx(@Me() me: CurrentUser, @Param('exchangeId') id: string): Promise<StreamableFile> {
    const { name, bytes } = await this.files.xlsx(me, id);
    return new StreamableFile(bytes, {
      type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
      disposition: contentDisposition(name),
    });
  }
}
