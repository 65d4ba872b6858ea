import { Controller, Get, Param, Res, StreamableFile } from '@nestjs/common';
import contentDisposition from 'content-disposition';
import type { Response } from 'express';
import type { CourseInsightsView } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Me } from '../../auth/session.guard.js';
import { CourseInsights } from './course-insights.service.js';
import { Results } from './results.service.js';

@Controller('courses/:courseId')
export class CourseInsightsController {
  constructor(
    private readonly insights: CourseInsights,
    private readonly results: Results,
  ) {}

  @Get('insights')
  of(@Me() me: CurrentUser, @Param('courseId') id: string): Promise<CourseInsightsView> {
    return this.insights.of(me, id);
  }

  @Get('results.zip')
  async resultsOf(
    @Me() me: CurrentUser,
    @Param('courseId') id: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const { name, zip } = await this.results.stream(me, id);
    response.setHeader('Content-Type', 'application/zip');
    return new StreamableFile(zip, { disposition: contentDisposition(name) });
  }
}
