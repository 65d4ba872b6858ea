import { Module, type DynamicModule } from '@nestjs/common';
import { Clock } from './clock/clock.js';
import type { Settings } from './config/settings.js';
import { SETTINGS } from './config/settings.token.js';
import { Database } from './database/database.js';
import { Expiry } from './expiry/expiry.js';
import { FileStore } from './files/file-store.js';
import { FileWorkers } from './files/file-workers.js';
import { HealthController } from './health/health.controller.js';
import { PromptShutdown } from './health/prompt-shutdown.js';
import { Ids } from './ids/ids.js';
import { Tables } from './tables/tables.js';
import { LinkRenewal } from './mail/link-renewal.js';
import { Outward } from './outward/outward.js';
import { Framing } from './security/framing.js';
import { Tries } from './security/tries.js';

/** What is made before the modules: the outside world, replaceable in tests. */
export interface Surroundings {
  readonly settings: Settings;
  readonly database: Database;
  readonly clock: Clock;
  readonly ids: Ids;
}

/** Not made by Nest: they take limits and workers, which are no services. */
const WORKERS = { provide: FileWorkers, useFactory: () => new FileWorkers() };

/** The lowest floor with services: every module above may ask for these. */
@Module({})
export class PlatformModule {
  static for({ settings, database, clock, ids }: Surroundings): DynamicModule {
    const shared = [
      { provide: SETTINGS, useValue: settings },
      { provide: Database, useValue: database },
      { provide: Clock, useValue: clock },
      { provide: Ids, useValue: ids },
      FileStore,
      WORKERS,
      Tries,
      Framing,
      Outward,
      Expiry,
      LinkRenewal,
      Tables,
    ];
    return {
      module: PlatformModule,
      global: true,
      controllers: [HealthController],
      providers: [...shared, PromptShutdown],
      exports: shared,
    };
  }
}
