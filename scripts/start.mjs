import { at, built, installed, startServer } from './run.mjs';

// Production: no demo data. The server itself says what is missing, and how to set it.
await installed();
await built();
try {
  const server = await startServer(
    {
      NODE_ENV: 'production',
      SALT_CIRCLE_MODE: 'production',
      SALT_CIRCLE_DATA: process.env.SALT_CIRCLE_DATA ?? at('data', 'production'),
    },
    (line) => process.stdout.write(`${line}\n`),
  );
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill('SIGTERM'));
  server.removeAllListeners('exit');
  server.on('exit', (code) => process.exit(code ?? 1));
} catch {
  process.exit(2);
}
