import { Module } from '@nestjs/common';
import { ReviewsModule } from '../reviews/reviews.module.js';
import { Adjusting } from './adjusting.js';
import { Evidence } from './evidence.service.js';
import { GradeFiles } from './grade-files.service.js';
import { CourseInsightsController } from './course-insights.controller.js';
import { CourseInsights } from './course-insights.service.js';
import { GradesController } from './grades.controller.js';
import { GradesNews } from './grades-news.service.js';
import { KeptEvidence } from './kept-evidence.js';
import { Insights } from './insights.service.js';
import { GradesRelease } from './grades-release.service.js';
import { ReleasedGrades } from './released-grades.service.js';
import { Results } from './results.service.js';
import { Grades } from './grades.service.js';
import { Grading } from './grading.service.js';

@Module({
  imports: [ReviewsModule],
  controllers: [CourseInsightsController, GradesController],
  providers: [
    Adjusting,
    CourseInsights,
    Evidence,
    GradeFiles,
    Grades,
    GradesNews,
    GradesRelease,
    Grading,
    Insights,
    KeptEvidence,
    ReleasedGrades,
    Results,
  ],
  exports: [GradeFiles, ReleasedGrades],
})
export class GradesModule {}
