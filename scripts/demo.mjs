import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { at, built, installed, startCampus, startServer } from './run.mjs';

const port = process.env.PORT ?? '4600';
const folder = process.env.SALT_CIRCLE_DATA ?? at('data', 'demo');
if (process.argv.includes('--fresh')) rmSync(folder, { recursive: true, force: true });

await installed();
await built();

const campusPort = Number(process.env.CAMPUS_PORT ?? Number(port) + 10);
const campusUrl = `http://localhost:${campusPort}`;

let server;
try {
  server = await startServer(
    {
      SALT_CIRCLE_DEMO_CAMPUS: campusUrl,
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

const campus = await startCampus({
  ...{ port: campusPort, file: join(folder, 'campus.json'), tool: `http://localhost:${port}` },
});

process.stdout.write(`
Salt Circle runs on http://localhost:${port}

Step into anybody with one press on the first page, or sign in with an email address and the password
"saltmarsh":
  instructor   ines.marchetti@example.org
  assistant    tomasz.wilk@example.org
  student      farida.aziz@students.example.org, and 27 more

${campus === null ? `The stand-in campus could not start: port ${campusPort} is taken. Set CAMPUS_PORT to another one.` : `A stand-in campus, from which people come in, runs on ${campusUrl}`}

The clock in the bar moves the demo's time. "npm run demo -- --fresh" starts over. Ctrl-C stops it.
`);

let stopping = false;
const stop = () => {
  if (stopping) return;
  stopping = true;
  server.removeAllListeners('exit');
  server.on('exit', () => process.exit(0));
  campus?.kill('SIGTERM');
  server.kill('SIGTERM');
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
server.on('exit', (code) => {
  campus?.kill('SIGTERM');
  process.exit(code ?? 1);
});
