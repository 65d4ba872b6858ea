import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { at, built, installed, startPlatform, startServer } from './run.mjs';

const port = process.env.PORT ?? '4600';
const folder = process.env.SALT_CIRCLE_DATA ?? at('data', 'demo');
if (process.argv.includes('--fresh')) rmSync(folder, { recursive: true, force: true });

await installed();
await built();

const platformPort = Number(process.env.PLATFORM_PORT ?? Number(port) + 10);
const platformUrl = `http://localhost:${platformPort}`;

let server;
try {
  server = await startServer(
    {
      SALT_CIRCLE_DEMO_PLATFORM: platformUrl,
      SALT_CIRCLE_MODE: 'demo',
      SALT_CIRCLE_DATA: folder,
      PORT: port,
      NODE_ENV: 'development',
    },
    // Requests are logged as JSON; the demo's terminal shows faults only.
    (line) => /"level":[56]0/.test(line) && process.stderr.write(`${line}\n`),
  );
} catch {
  process.exit(1);
}

const platform = await startPlatform({
  ...{ port: platformPort, file: join(folder, 'platform.json'), tool: `http://localhost:${port}` },
});

process.stdout.write(`
Salt Circle runs on http://localhost:${port}

Step into anybody with one press on the first page, or sign in with an email address and the password
"saltmarsh":
  instructor   ines.marchetti@example.org
  assistant    tomasz.wilk@example.org
  student      farida.aziz@students.example.org, and 27 more

${platform === null ? `The stand-in platform could not start: port ${platformPort} is taken. Set PLATFORM_PORT to another one.` : `A stand-in platform, from which people come in, runs on ${platformUrl}`}

The clock in the bar moves the demo's time. "npm run demo -- --fresh" starts over. Ctrl-C stops it.
`);

let stopping = false;
const stop = () => {
  if (stopping) return;
  stopping = true;
  server.removeAllListeners('exit');
  server.on('exit', () => process.exit(0));
  platform?.kill('SIGTERM');
  server.kill('SIGTERM');
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
server.on('exit', (code) => {
  platform?.kill('SIGTERM');
  process.exit(code ?? 1);
});
