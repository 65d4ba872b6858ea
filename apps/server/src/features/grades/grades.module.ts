import { Module } from '@nestjs/common';
import { ReviewsModule } from '../reviews/reviews.module.js';
import { Adjusting } from './adjusting.js';
import { Evidence } from './evidence.service.js';
import { GradeFiles } from './grade-files.service.js';
import { GradesController } from './grades.controller.js';
import { GradesNews } from './grades-news.service.js';
import { KeptEvidence } from './kept-evidence.js';
import { Insights } from './insights.service.js';
import { GradesRelease } from './grades-release.service.js';
import { Grades } from './grades.service.js';

@Module({
  imports: [ReviewsModule],
  controllers: [GradesController],
  providers: [Adjusting, Evidence, GradeFiles, Grades, GradesNews, GradesRelease, Insights, KeptEvidence],
})
export class GradesModule {}
