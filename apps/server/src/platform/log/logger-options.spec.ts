import { spawn } from 'node:child_process';
import { once } from 'node:events';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Options } from 'pino-http';
import { readSettings } from '../config/settings.js';
import { loggerOptions } from './logger-options.js';

describe('the log', () => {
  const options = loggerOptions(readSettings({ SALT_CIRCLE_MODE: 'test' })).pinoHttp as Options;

  it('says what was asked for and how it went, and nothing of who or what was typed', () => {
    const request = {
      id: 'r1',
      method: 'PUT',
      url: '/api/exchanges/x/draft?name=Ann%20Mensah',
      headers: { cookie: 'salt_circle=token', authorization: 'x' },
      body: { html: 'My secret draft' },
    } as unknown as IncomingMessage;
    const response = {
      statusCode: 200,
      getHeaders: () => ({ 'set-cookie': 'salt_circle=token' }),
    } as unknown as ServerResponse;
    const line = { req: options.serializers?.['req']?.(request), res: options.serializers?.['res']?.(response) };
    expect(line).toEqual({
      req: { id: 'r1', method: 'PUT', path: '/api/exchanges/x/draft' },
      res: { statusCode: 200 },
    });
  });

  it('says no token: none of the links that let somebody in', () => {
    const token = 'Zm9yIHRlc3RzIG9ubHksIDQzIGNoYXJhY3RlcnMgbG9u';
    const id = '7f1c2a34-5b6d-4e8f-9a0b-1c2d3e4f5a6b';
    const pathOf = (url: string) =>
      (options.serializers?.['req']?.({ id: 'r', method: 'GET', url }) as { path: string }).path;
    expect(pathOf(`/api/calendar/${token}.ics`)).toBe('/api/calendar/…');
    for (const kind of ['invitations', 'password-links', 'address-links'])
      expect(pathOf(`/api/${kind}/${token}`)).toBe(`/api/${kind}/…`);
    expect(pathOf(`/api/reviews/${id}/notes/${id}?x=${token}`)).toBe(`/api/reviews/${id}/notes/${id}`);
  });

  it('leaves out the files of the web application', () => {
    const { ignore } = options.autoLogging as { ignore: (request: { url?: string }) => boolean };
    expect([ignore({ url: '/assets/index.js' }), ignore({ url: '/api/today' })]).toEqual([true, false]);
  });

  it('lets the server end when nobody reads it any more', async () => {
    const script = "const log = require('pino')(); log.info('one'); log.info('two'); process.exit(3);";
    const child = spawn(process.execPath, ['-e', script], { cwd: __dirname, stdio: ['ignore', 'pipe', 'ignore'] });
    child.stdout.destroy();
    const forced = setTimeout(() => child.kill('SIGKILL'), 20_000);
    const [code] = (await once(child, 'exit')) as [number | null];
    clearTimeout(forced);
    expect(code).toBe(3);
  });

  it('gives each request an id that cannot be guessed', () => {
    const id = () => (options.genReqId as () => string)();
    expect(id()).toMatch(/^[0-9a-f-]{36}$/);
    expect(id()).not.toBe(id());
  });
});
