import { randomUUID } from 'node:crypto';
import { RequestMethod } from '@nestjs/common';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Params } from 'nestjs-pino';
import type { Settings } from '../config/settings.js';

/** One JSON line per request: what was asked for, how it went, how long it took. No bodies, no queries, no headers. */
export function loggerOptions(settings: Settings): Params {
  return {
    forRoutes: [{ path: '{*rest}', method: RequestMethod.ALL }],
    pinoHttp: {
      enabled: settings.log,
      level: 'info',
      genReqId: () => randomUUID(),
      serializers: {
        req: ({ id, method, url }: IncomingMessage & { id: string }) => ({
          id,
          method,
          path: (url ?? '').split('?')[0],
        }),
        res: ({ statusCode }: ServerResponse) => ({ statusCode }),
      },
      autoLogging: { ignore: ({ url }) => !(url ?? '').startsWith('/api/') },
    },
  };
}
