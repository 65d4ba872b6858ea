import { InboxModule } from './features/inbox/inbox.module.js';
import { RepliesModule } from './features/replies/replies.module.js';
import { RevisingModule } from './features/revising/revising.module.js';
import { DescriptionModule } from './features/description/description.module.js';
import { GradesModule } from './features/grades/grades.module.js';
import { AnnotatedFilesModule } from './features/annotated-files/annotated-files.module.js';
import { RoundsModule } from './features/rounds/rounds.module.js';
import { Module, type DynamicModule } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_PIPE } from '@nestjs/core';
import { ServeStaticModule } from '@nestjs/serve-static';
import { LoggerModule } from 'nestjs-pino';
import { PermissionsModule } from './permissions/permissions.module.js';
import { DemoModule } from './demo/demo.module.js';
import { AuditModule } from './features/audit/audit.module.js';
import { AccountsModule } from './features/accounts/accounts.module.js';
import { ArchiveModule } from './features/archive/archive.module.js';
import { AllocationModule } from './features/allocation/allocation.module.js';
import { CalendarModule } from './features/calendar/calendar.module.js';
import { ChangesModule } from './features/changes/changes.module.js';
import { LtiModule } from './features/lti/lti.module.js';
import { ModerationModule } from './features/moderation/moderation.module.js';
import { CoursesModule } from './features/courses/courses.module.js';
import { DraftsModule } from './features/drafts/drafts.module.js';
import { FeedbackModule } from './features/feedback/feedback.module.js';
import { FilesModule } from './features/files/files.module.js';
import { GroupsModule } from './features/groups/groups.module.js';
import { LibraryModule } from './features/library/library.module.js';
import { MailModule } from './features/mail/mail.module.js';
import { PeopleModule } from './features/people/people.module.js';
import { PlanningModule } from './features/planning/planning.module.js';
import { PracticeModule } from './features/practice/practice.module.js';
import { ProgressModule } from './features/progress/progress.module.js';
import { ReadingModule } from './features/reading/reading.module.js';
import { ReviewsModule } from './features/reviews/reviews.module.js';
import { TodayModule } from './features/today/today.module.js';
import { loggerOptions } from './platform/log/logger-options.js';
import { PlatformModule, type Surroundings } from './platform/platform.module.js';
import { ProblemFilter } from './platform/problems/problem-filter.js';
import { validationPipe } from './platform/problems/validation.js';
import { CrossSiteGuard } from './platform/security/cross-site.guard.js';

/** The features, in the order of the job. */
const FEATURES = [
  AccountsModule,
  CoursesModule,
  PeopleModule,
  GroupsModule,
  LibraryModule,
  MailModule,
  CalendarModule,
  PlanningModule,
  FilesModule,
  DraftsModule,
  ReadingModule,
  AllocationModule,
  ReviewsModule,
  PracticeModule,
  ProgressModule,
  AuditModule,
  ModerationModule,
  FeedbackModule,
  RepliesModule,
  RevisingModule,
  RoundsModule,
  DescriptionModule,
  GradesModule,
  AnnotatedFilesModule,
  ArchiveModule,
  LtiModule,
  InboxModule,
  TodayModule,
  ChangesModule,
];

@Module({})
export class AppModule {
  static for(surroundings: Surroundings): DynamicModule {
    const { settings } = surroundings;
    return {
      module: AppModule,
      imports: [
        LoggerModule.forRoot(loggerOptions(settings)),
        PlatformModule.for(surroundings),
        // Guards run in the order in which modules are listed: where a request comes from is asked before who it is.
        SecurityModule,
        PermissionsModule,
        ...FEATURES,
        ...(settings.mode === 'demo' ? [DemoModule] : []),
        ...(settings.webFolder === null ? [] : [webApplication(settings.webFolder)]),
      ],
    };
  }
}

@Module({
  providers: [
    { provide: APP_GUARD, useClass: CrossSiteGuard },
    { provide: APP_FILTER, useClass: ProblemFilter },
    { provide: APP_PIPE, useFactory: validationPipe },
  ],
})
class SecurityModule {}

function webApplication(folder: string): DynamicModule {
  return ServeStaticModule.forRoot({
    rootPath: folder,
    exclude: ['/api/{*rest}'],
    serveStaticOptions: {
      cacheControl: false,
      setHeaders: (response: { setHeader(name: string, value: string): void }, path: string) => {
        // Names under assets/ carry a digest of the content; everything else must be asked for again.
        const lasting = /[\\/]assets[\\/]/.test(path);
        response.setHeader('Cache-Control', lasting ? 'public, max-age=31536000, immutable' : 'no-cache');
      },
    },
  });
}
