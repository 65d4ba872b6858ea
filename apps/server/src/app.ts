import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { LIMITS } from '@salt-circle/contracts';
import compression from 'compression';
import { Logger } from 'nestjs-pino';
import { AppModule } from './app.module.js';
import type { Surroundings } from './platform/platform.module.js';
import { securityHeaders } from './platform/security/headers.js';

/** The whole application, ready to listen. Used by `main.ts` and by the server tests alike. */
export async function createApp(surroundings: Surroundings): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.for(surroundings), {
    bodyParser: false,
    bufferLogs: true,
  });
  app.useLogger(app.get(Logger));
  app.setGlobalPrefix('api');
  app.use(securityHeaders(surroundings.settings.behindProxy));
  app.use(compression());
  // What the API answers is somebody's own; no cache on the way may keep it.
  app.use('/api', (_: unknown, response: { setHeader(name: string, value: string): void }, next: () => void) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  app.useBodyParser('json', { limit: LIMITS.requestBytes });
  app.set('query parser', 'simple');
  if (surroundings.settings.behindProxy) app.set('trust proxy', 1);
  return app;
}
