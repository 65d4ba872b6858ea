import { BROWSERS, browserPath, built, installed, must, run, runKept, TSC } from './run.mjs';

const only = process.argv.slice(2);

/** Browser tests need a browser; on Debian it can be had, where one may install. */
async function chromium() {
  const there = () => browserPath() !== null;
  if (there()) return true;
  process.stdout.write('Installing Chromium from the packages of Debian…\n');
  if ((await run('apt-get', ['update', '-qq'], { quiet: true })) !== 0) return false;
  for (const name of BROWSERS) if (!there()) await run('apt-get', ['install', '-y', '-qq', name], { quiet: true });
  return there();
}

/** General programs by which files that are made are looked at: where they cannot be had, those tests are skipped, and say so. */
const TOOLS = ['qpdf', 'poppler-utils'];

async function tools() {
  if (
    (await run('qpdf', ['--version'], { quiet: true })) === 0 &&
    (await run('pdftotext', ['-v'], { quiet: true })) === 0
  )
    return;
  await run('apt-get', ['update', '-qq'], { quiet: true });
  await run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...TOOLS], { quiet: true });
}

/** On two cores Jest would keep to one of them; a third process works while others wait for a thread or a clock. */
const PROCESSES = ['--maxWorkers', '3'];

const npm = (script) => ['npm', ['run', '--silent', script]];
const jest = (...projects) => [
  'npx',
  ['jest', ...PROCESSES, '--selectProjects', ...projects],
  { env: { NODE_OPTIONS: '--experimental-vm-modules --no-warnings', TEST_SHARDS: '1' } },
];

/**
 * Stages follow one another. In each, lanes run beside each other and keep two cores busy between them: three busy
 * processes on two cores take much longer than the same ones in turn.
 */
const STAGES = [
  [
    [
      ['lint', npm('lint')],
      ['types', npm('types')],
      ['imports', npm('imports')],
    ],
    [['format', npm('format:check')]],
  ],
  [
    [
      ['unit', jest('core', 'web')],
      ['server', jest('server')],
    ],
  ],
  // By itself, because it looks at how long others wait meanwhile.
  [[['attacks', jest('attacks')]]],
];

/** By itself: the journeys through the interface want the whole machine. */
async function browserTests() {
  if (!(await chromium())) {
    process.stderr.write(
      `There is no Chromium here and it could not be installed: "apt-get install ${BROWSERS[0]}", then again.\n`,
    );
    return 1;
  }
  await built();
  return run('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts']);
}

const wanted = (name) => only.length === 0 || only.includes(name);
const results = [];
const seconds = (begun) => Math.round((Date.now() - begun) / 1000);

async function runLane(lane) {
  for (const [name, [command, args, options]] of lane) {
    if (!wanted(name)) continue;
    const begun = Date.now();
    const { code, output } = await runKept(command, args, options);
    process.stdout.write(`\n── ${name} ──\n${output}`);
    results.push({ name, ok: code === 0, seconds: seconds(begun) });
  }
}

await installed();
if (wanted('server')) await tools();
// Threads that read files, and the server that a test kills, are the compiled ones.
if (['server', 'types', 'attacks'].some(wanted)) await must('node', [TSC, '-b', 'apps/platform', 'apps/server']);
for (const lanes of STAGES) await Promise.all(lanes.map(runLane));
if (wanted('browser')) {
  process.stdout.write('\n── browser ──\n');
  const begun = Date.now();
  results.push({ name: 'browser', ok: (await browserTests()) === 0, seconds: seconds(begun) });
}

process.stdout.write('\n── summary ──\n');
for (const { name, ok, seconds: took } of results)
  process.stdout.write(`${ok ? 'passed' : 'FAILED'}  ${name.padEnd(8)} ${took} s\n`);
const failed = results.filter(({ ok }) => !ok).length;
process.stdout.write(`\n${results.length - failed} passed, ${failed} failed\n`);
process.exitCode = failed === 0 ? 0 : 1;
