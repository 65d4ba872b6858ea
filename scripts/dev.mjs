import { spawn } from 'node:child_process';
import { at, installed, must, root, TSC } from './run.mjs';

await installed();
await must('node', [TSC, '-b', 'packages/core', 'packages/contracts', 'apps/server']);

const children = [];
const start = (command, args, env = {}) => {
  const child = spawn(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
  children.push(child);
  child.on('exit', (code) => stop(code ?? 1));
};
let stopping = false;
function stop(code) {
  if (stopping) return;
  stopping = true;
  for (const child of children) child.kill('SIGTERM');
  setTimeout(() => process.exit(code), 500);
}
process.on('SIGINT', () => stop(0));
process.on('SIGTERM', () => stop(0));

process.stdout.write('Salt Circle for development: http://localhost:4601 (pages reload as you save).\n');
start('node', [TSC, '-b', '-w', '--preserveWatchOutput', 'packages/core', 'packages/contracts', 'apps/server']);
start(process.execPath, ['--watch', '--enable-source-maps', 'apps/server/dist/main.js'], {
  SALT_CIRCLE_MODE: 'demo',
  SALT_CIRCLE_DATA: process.env.SALT_CIRCLE_DATA ?? at('data', 'development'),
  PORT: '4600',
});
start('npx', ['vite', 'apps/web', '--clearScreen', 'false']);
