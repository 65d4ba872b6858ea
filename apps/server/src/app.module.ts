import { Module, type DynamicModule } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_PIPE } from '@nestjs/core';
import { ServeStaticModule } from '@nestjs/serve-static';
import { ThrottlerModule } from '@nestjs/throttler';
import { LoggerModule } from 'nestjs-pino';
import { AccountsController } from './accounts/accounts.controller.js';
import { SessionService } from './accounts/session.service.js';
import { AllocationController } from './allocation/allocation.controller.js';
import { AllocationService } from './allocation/allocation.service.js';
import { AllocationFiles } from './allocation/allocation-files.js';
import { PlannedRuns } from './allocation/planned-runs.js';
import { PreviewsService } from './allocation/previews.service.js';
import { Solver } from './allocation/solver.js';
import { CalendarController, CalendarLinkController } from './calendar/calendar.controller.js';
import { CalendarService } from './calendar/calendar.service.js';
import { Clock } from './clock/clock.js';
import type { Settings } from './config/settings.js';
import { SETTINGS } from './config/settings.token.js';
import { CoursesController } from './courses/courses.controller.js';
import { CoursesService } from './courses/courses.service.js';
import { Database } from './database/database.js';
import { DemoController } from './demo/demo.controller.js';
import { DraftsController } from './drafts/drafts.controller.js';
import { ArchiveService } from './drafts/archive.service.js';
import { CollectionController } from './drafts/collection.controller.js';
import { CollectionService } from './drafts/collection.service.js';
import { DraftsService } from './drafts/drafts.service.js';
import { HandInService } from './drafts/hand-in.service.js';
import { NameSearch } from './drafts/name-search.js';
import { ReadDraftsService } from './drafts/read-drafts.service.js';
import { Readings } from './drafts/readings.js';
import { Access } from './exchanges/access.js';
import { CopyController } from './exchanges/copy.controller.js';
import { CopyService } from './exchanges/copy.service.js';
import { DatesService } from './exchanges/dates.service.js';
import { ExchangesController } from './exchanges/exchanges.controller.js';
import { ExchangesService } from './exchanges/exchanges.service.js';
import { PlanService } from './exchanges/plan.service.js';
import { FeedbackController } from './feedback/feedback.controller.js';
import { FeedbackService } from './feedback/feedback.service.js';
import { Cleaner } from './files/cleaner.js';
import { Copies } from './files/copies.service.js';
import { FileStore } from './files/file-store.js';
import { FileWorkers } from './files/file-workers.js';
import { FilesController } from './files/files.controller.js';
import { Intake } from './files/intake.service.js';
import { UploadsController } from './files/uploads.controller.js';
import { Uploads } from './files/uploads.js';
import { FormsController } from './forms/forms.controller.js';
import { FormsService } from './forms/forms.service.js';
import { GroupsController } from './groups/groups.controller.js';
import { GroupsService } from './groups/groups.service.js';
import { HealthController } from './health/health.controller.js';
import { PromptShutdown } from './health/prompt-shutdown.js';
import { Ids } from './ids/ids.js';
import { FormFilesService } from './library/form-files.service.js';
import { LibraryController } from './library/library.controller.js';
import { LibraryService } from './library/library.service.js';
import { loggerOptions } from './log/logger-options.js';
import { OutboxController } from './mail/outbox.controller.js';
import { OutboxService } from './mail/outbox.service.js';
import { PostService } from './mail/post.service.js';
import { Invitations } from './people/invitations.js';
import { InvitationsController, PeopleController } from './people/people.controller.js';
import { PeopleService } from './people/people.service.js';
import { RosterService } from './people/roster.service.js';
import { ProblemFilter } from './problems/problem-filter.js';
import { validationPipe } from './problems/validation.js';
import { ProgressController } from './progress/progress.controller.js';
import { ProgressService } from './progress/progress.service.js';
import { ReviewsController } from './reviews/reviews.controller.js';
import { ReviewsService } from './reviews/reviews.service.js';
import { CrossSiteGuard } from './security/cross-site.guard.js';
import { SessionGuard } from './security/session.guard.js';
import { SeeingService } from './seeing/seeing.service.js';
import { SIGN_IN_TRIES } from './security/sign-in.throttle.js';
import { TodayController } from './today/today.controller.js';
import { TodayService } from './today/today.service.js';

/** What is made before the module: the outside world, replaceable in tests. */
export interface Surroundings {
  readonly settings: Settings;
  readonly database: Database;
  readonly clock: Clock;
  readonly ids: Ids;
}

/** Not made by Nest: they take limits and workers, which are no services. */
const SOLVER = { provide: Solver, useFactory: () => new Solver() };
const WORKERS = { provide: FileWorkers, useFactory: () => new FileWorkers() };

/** The features, in the order of the job. A feature is its controller and its service. */
const FEATURES = [
  { controller: HealthController, providers: [] },
  { controller: AccountsController, providers: [SessionService] },
  { controller: CoursesController, providers: [CoursesService] },
  { controller: PeopleController, providers: [PeopleService, RosterService, Invitations] },
  { controller: InvitationsController, providers: [] },
  { controller: GroupsController, providers: [GroupsService] },
  { controller: LibraryController, providers: [LibraryService, FormFilesService] },
  { controller: OutboxController, providers: [OutboxService, PostService] },
  { controller: CalendarLinkController, providers: [CalendarService] },
  { controller: CalendarController, providers: [] },
  { controller: CopyController, providers: [CopyService] },
  { controller: ExchangesController, providers: [ExchangesService, PlanService, DatesService] },
  { controller: FormsController, providers: [FormsService] },
  { controller: UploadsController, providers: [FileStore, WORKERS, Uploads, Copies, Cleaner, Intake] },
  { controller: CollectionController, providers: [CollectionService, ArchiveService] },
  { controller: DraftsController, providers: [Readings, ReadDraftsService, DraftsService, NameSearch, HandInService] },
  { controller: FilesController, providers: [] },
  {
    controller: AllocationController,
    providers: [SOLVER, AllocationService, PreviewsService, AllocationFiles, PlannedRuns],
  },
  { controller: ReviewsController, providers: [ReviewsService] },
  { controller: ProgressController, providers: [ProgressService] },
  { controller: FeedbackController, providers: [FeedbackService] },
  { controller: TodayController, providers: [TodayService] },
] as const;

@Module({})
export class AppModule {
  static for({ settings, database, clock, ids }: Surroundings): DynamicModule {
    return {
      module: AppModule,
      imports: [
        LoggerModule.forRoot(loggerOptions(settings)),
        ThrottlerModule.forRoot([{ ...SIGN_IN_TRIES }]),
        ...(settings.webFolder === null ? [] : [webApplication(settings.webFolder)]),
      ],
      controllers: [
        ...FEATURES.map(({ controller }) => controller),
        ...(settings.mode === 'demo' ? [DemoController] : []),
      ],
      providers: [
        { provide: SETTINGS, useValue: settings },
        { provide: Database, useValue: database },
        { provide: Clock, useValue: clock },
        { provide: Ids, useValue: ids },
        Access,
        SeeingService,
        PromptShutdown,
        ...FEATURES.flatMap(({ providers }) => [...providers]),
        { provide: APP_GUARD, useClass: CrossSiteGuard },
        { provide: APP_GUARD, useClass: SessionGuard },
        { provide: APP_FILTER, useClass: ProblemFilter },
        { provide: APP_PIPE, useFactory: validationPipe },
      ],
    };
  }
}

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
