import 'reflect-metadata';
import { createApp } from './app.js';
import { Clock } from './platform/clock/clock.js';
import { mailSettingsOf, readSettings, SettingsError } from './platform/config/settings.js';
import { lockFolder } from './platform/config/folder-lock.js';
import { assertEnoughFiles, assertPortFree, assertWritable, listenFault } from './platform/config/start-checks.js';
import { settleInstallation } from './platform/database/installation.js';
import { assertPurpose } from './platform/database/purpose.js';
import { Database } from './platform/database/database.js';
import { keptOffset } from './demo/demo-clock.js';
import { connectDemoPlatform } from './demo/demo-platform.js';
import { keepDemoAlive } from './demo/keep-alive.js';
import { seedDemo } from './demo/seed.js';
import { EVENT_HANDLERS } from './handlers.js';
import { Ids } from './platform/ids/ids.js';

/**
 * Milliseconds for which an idle connection is kept: longer than proxies and browsers use one again (a minute, mostly), which would else find it
 * closed just as they ask.
 */
const KEPT_OPEN = 65_000;
/** Milliseconds from being told to end until the process is gone. */
const MOST_TO_END = 4_500;

async function main(): Promise<void> {
  const settings = readSettings(process.env);
  assertEnoughFiles();
  assertWritable(settings.dataFolder);
  const unlock = await lockFolder(settings.dataFolder, () => {
    // Somebody has taken the folder from a process that stood still for long. Nothing may be written any more.
    process.stderr.write('Another Salt Circle has taken over the data folder. This one stops.\n');
    process.exit(1);
  });
  await assertPortFree(settings);
  const clock = new Clock();
  const ids = new Ids();
  const database = await Database.open(settings.dataFolder, clock, {
    mail: mailSettingsOf(settings),
    handlers: EVENT_HANDLERS,
  });
  await assertPurpose(database, settings.mode);
  // Nothing of the demo leaves it.
  if (settings.mode !== 'demo' && (await settleInstallation(database, settings.dataFolder))) {
    process.stdout.write(
      'This folder was restored or moved. Its mail and scores are held: "npm run mail -- send" sends what waits, "npm run mail -- drop" discards it.\n',
    );
  }
  const app = await createApp({ settings, database, clock, ids });
  if (settings.mode === 'demo') {
    await seedDemo(app);
    if (settings.demoPlatform !== null) await connectDemoPlatform(app, settings.demoPlatform);
    await keepDemoAlive(database, clock.real());
    clock.move(await keptOffset(database));
  }
  app.getHttpServer().keepAliveTimeout = KEPT_OPEN;
  app.enableShutdownHooks();
  for (const signal of ['SIGTERM', 'SIGINT']) {
    // Requests and letters that are on their way have so long; what is not confirmed by then is done at the next start.
    process.once(signal, () => setTimeout(() => process.exit(0), MOST_TO_END).unref());
  }
  process.once('exit', () => void unlock());
  await app.listen(settings.port, settings.host).catch((error: NodeJS.ErrnoException) => {
    throw listenFault(error, settings);
  });
  // The scripts that start the server wait for this line.
  process.stdout.write(`Salt Circle listens on port ${settings.port} of ${settings.host}\n`);
}

try {
  await main();
} catch (error) {
  if (!(error instanceof SettingsError)) throw error;
  process.stderr.write(`Salt Circle did not start.\n${error.message}\n`);
  // The database may be open by now; nothing has been written that could be lost.
  process.exit(2);
}
