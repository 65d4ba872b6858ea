import 'reflect-metadata';
import { createApp } from './app.js';
import { Clock } from './platform/clock/clock.js';
import { mailSettingsOf, readSettings, SettingsError } from './platform/config/settings.js';
import { assertPurpose } from './platform/database/purpose.js';
import { Database } from './platform/database/database.js';
import { keptOffset } from './demo/demo-clock.js';
import { connectDemoCampus } from './demo/demo-campus.js';
import { keepDemoAlive } from './demo/keep-alive.js';
import { seedDemo } from './demo/seed.js';
import { HAPPENING_HANDLERS } from './handlers.js';
import { Ids } from './platform/ids/ids.js';

/**
 * Milliseconds for which an idle connection is kept: longer than proxies and browsers use one again (a minute, mostly), which would else find it
 * closed just as they ask.
 */
const KEPT_OPEN = 65_000;

async function main(): Promise<void> {
  const settings = readSettings(process.env);
  const clock = new Clock();
  const ids = new Ids();
  const database = await Database.open(settings.dataFolder, clock, {
    mail: mailSettingsOf(settings),
    handlers: HAPPENING_HANDLERS,
  });
  await assertPurpose(database, settings.mode);
  const app = await createApp({ settings, database, clock, ids });
  if (settings.mode === 'demo') {
    await seedDemo(app);
    if (settings.demoCampus !== null) await connectDemoCampus(app, settings.demoCampus);
    await keepDemoAlive(database, clock.real());
    clock.move(await keptOffset(database));
  }
  app.getHttpServer().keepAliveTimeout = KEPT_OPEN;
  app.enableShutdownHooks();
  await app.listen(settings.port, settings.host).catch((error: NodeJS.ErrnoException) => {
    if (error.code !== 'EADDRINUSE') throw error;
    throw new SettingsError(
      `Port ${settings.port} is taken, perhaps by another Salt Circle. Stop that one, or set PORT to another number.`,
    );
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
