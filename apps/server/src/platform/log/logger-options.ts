import { randomUUID } from 'node:crypto';
import { RequestMethod } from '@nestjs/common';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Params } from 'nestjs-pino';
import type { Settings } from '../config/settings.js';

/** Words of our own, and ids: whatever else stands in an address may be a link that lets somebody in. */
const WORD = /^[a-z][a-z-]{0,23}$/;
const ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

function tellable(path: string): string {
  return path
    .split('/')
    .map((part) => (part === '' || WORD.test(part) || ID.test(part) ? part : '…'))
    .join('/');
}

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
          path: tellable((url ?? '').split('?')[0] ?? ''),
        }),
        res: ({ statusCode }: ServerResponse) => ({ statusCode }),
      },
      autoLogging: { ignore: ({ url }) => !(url ?? '').startsWith('/api/') },
    },
  };
}
