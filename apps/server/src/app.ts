import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import compression from 'compression';
import { Logger } from 'nestjs-pino';
import { AccessTokens } from './auth/access-tokens.js';
import { frontGate } from './auth/front-gate.js';
import { SessionService } from './auth/session.service.js';
import { AppModule } from './app.module.js';
import { Description } from './features/description/description.service.js';
import type { Surroundings } from './platform/platform.module.js';
import { earlierAddresses } from './platform/security/earlier-addresses.js';
import { Framing } from './platform/security/framing.js';
import { securityHeaders } from './platform/security/headers.js';

/** The whole application, ready to listen. Used by `main.ts` and by the server tests alike. */
export async function createApp(surroundings: Surroundings): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.for(surroundings), {
    bodyParser: false,
    bufferLogs: true,
  });
  app.useLogger(app.get(Logger));
  app.setGlobalPrefix('api');
  app.use(securityHeaders(surroundings.settings.secure, app.get(Framing)));
  app.use(earlierAddresses);
  app.use(compression());
  // What the API answers is somebody's own; no cache on the way may keep it.
  app.use('/api', (_: unknown, response: { setHeader(name: string, value: string): void }, next: () => void) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  app.set('query parser', 'simple');
  // Nobody else's word is taken on where a request comes from.
  app.set('trust proxy', [...surroundings.settings.proxies]);
  app.use('/api', ...frontGate(app.get(SessionService), app.get(AccessTokens)));
  app.get(Description).of(app);
  return app;
}
