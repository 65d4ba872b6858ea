import { Controller, Get, Param } from '@nestjs/common';
import type { CourseInsightsView } from '@salt-circle/contracts';
import type { Asker } from '../../access/seeing.js';
import { Me } from '../../access/session.guard.js';
import { CourseInsights } from './course-insights.service.js';

@Controller('courses/:courseId/insights')
export class CourseInsightsController {
  constructor(private readonly insights: CourseInsights) {}

  @Get()
  of(@Me() me: Asker, @Param('courseId') id: string): Promise<CourseInsightsView> {
    return this.insights.of(me, id);
  }
}
