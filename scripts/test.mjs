import { existsSync } from 'node:fs';
import { built, installed, run } from './run.mjs';

const CHROMIUM = '/usr/bin/chromium';
const only = process.argv.slice(2);

/** Browser tests need a browser; on Debian it can be had, where one may install. */
async function chromium() {
  if (existsSync(CHROMIUM)) return true;
  process.stdout.write('Installing Chromium from the packages of Debian…\n');
  if ((await run('apt-get', ['update', '-qq'], { quiet: true })) !== 0) return false;
  await run('apt-get', ['install', '-y', '-qq', 'chromium'], { quiet: true });
  return existsSync(CHROMIUM);
}

const jest = (...projects) => [
  'npx',
  ['jest', '--selectProjects', ...projects],
  { env: { NODE_OPTIONS: '--experimental-vm-modules --no-warnings' } },
];

const STEPS = [
  ['lint', () => run('npm', ['run', '--silent', 'lint'])],
  ['types', () => run('npm', ['run', '--silent', 'types'])],
  ['imports', () => run('npm', ['run', '--silent', 'imports'])],
  ['unit', () => run(...jest('core', 'web'))],
  ['server', () => run(...jest('server'))],
  [
    'browser',
    async () => {
      if (!(await chromium())) {
        process.stderr.write(
          'There is no Chromium here and it could not be installed: "apt-get install chromium", then again.\n',
        );
        return 1;
      }
      await built();
      return run('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts']);
    },
  ],
];

await installed();
const results = [];
for (const [name, step] of STEPS) {
  if (only.length > 0 && !only.includes(name)) continue;
  process.stdout.write(`\n── ${name} ──\n`);
  const begun = Date.now();
  const code = await step();
  results.push({ name, ok: code === 0, seconds: Math.round((Date.now() - begun) / 1000) });
}

process.stdout.write('\n── summary ──\n');
for (const { name, ok, seconds } of results)
  process.stdout.write(`${ok ? 'passed' : 'FAILED'}  ${name.padEnd(8)} ${seconds} s\n`);
const failed = results.filter(({ ok }) => !ok).length;
process.stdout.write(`\n${results.length - failed} passed, ${failed} failed\n`);
process.exitCode = failed === 0 ? 0 : 1;
