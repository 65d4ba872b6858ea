import { spawn } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { readdir } from 'node:fs/promises';
import { join, resolve } from 'node:path';

export const root = resolve(import.meta.dirname, '..');
export const at = (...path) => join(root, ...path);

/** Debian's Chromium without a window starts faster and takes less memory; the whole one does as well. */
export const BROWSERS = ['chromium-headless-shell', 'chromium'];

/** The browser that tests, pictures and figures use, or null where there is none. */
export function browserPath() {
  const paths = BROWSERS.map((name) => `/usr/bin/${name}`);
  return process.env.CHROMIUM ?? paths.find((path) => existsSync(path)) ?? null;
}

/** Runs a command in the project's folder, its output shown. @returns its exit code */
export function run(command, args, { env = {}, quiet = false } = {}) {
  return new Promise((done) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: quiet ? 'ignore' : 'inherit',
      env: { ...process.env, ...env },
    });
    child.on('error', () => done(127));
    child.on('exit', (code) => done(code ?? 1));
  });
}

/** Like `run`, but keeps the output, for steps that run beside others. @returns exit code and output */
export function runKept(command, args, { env = {} } = {}) {
  return new Promise((done) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, ...env },
    });
    let output = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (data) => (output += data));
    child.on('error', (error) => done({ code: 127, output: error.message }));
    child.on('close', (code) => done({ code: code ?? 1, output }));
  });
}

/** The native compiler, by its path: both packages of TypeScript offer a `tsc`. */
export const TSC = at('node_modules/typescript7/bin/tsc');

export async function must(command, args, options) {
  const code = await run(command, args, options);
  if (code !== 0) {
    process.stderr.write(`\nThis failed: ${command} ${args.join(' ')}\n`);
    process.exit(code);
  }
}

async function newest(folder, but) {
  let latest = 0;
  for (const entry of await readdir(folder, { withFileTypes: true })) {
    if (but.includes(entry.name)) continue;
    const path = join(folder, entry.name);
    latest = Math.max(latest, entry.isDirectory() ? await newest(path, but) : statSync(path).mtimeMs);
  }
  return latest;
}

/** Installs what package-lock.json names, when it has not been yet. */
export async function installed() {
  const mark = at('node_modules', '.package-lock.json');
  if (existsSync(mark) && statSync(mark).mtimeMs >= statSync(at('package-lock.json')).mtimeMs) return;
  process.stdout.write('Installing packages (a few minutes the first time)…\n');
  await must('npm', ['ci', '--no-audit', '--no-fund']);
}

/** Builds server and web application, when their sources are newer than the last build. */
export async function built() {
  const outcome = at('apps', 'web', 'dist', 'index.html');
  const server = at('apps', 'server', 'dist', 'main.js');
  const sources = Math.max(
    await newest(at('packages'), ['dist', 'node_modules']),
    await newest(at('apps'), ['dist', 'node_modules']),
  );
  if (existsSync(outcome) && existsSync(server) && statSync(outcome).mtimeMs > sources) return;
  process.stdout.write('Building…\n');
  await must('node', [TSC, '-b', 'packages/core', 'packages/contracts', 'apps/platform', 'apps/server']);
  // Whoever asks for it: a test would hand on its own, and get the libraries' slow halves for developers.
  const env = { NODE_ENV: 'production' };
  await must('npx', ['vite', 'build', 'apps/web', '--logLevel', 'warn', '--emptyOutDir'], { env });
}

/**
 * Starts the stand-in platform, which knows Salt Circle at the address `tool`.
 *
 * @param {{ port: number | string, file: string, tool: string }} options
 * @returns {Promise<import('node:child_process').ChildProcess | null>} once it listens; null where it could not
 */
export function startPlatform({ port, file, tool }) {
  return new Promise((done) => {
    const child = spawn(process.execPath, ['--enable-source-maps', at('apps', 'platform', 'dist', 'main.js')], {
      cwd: root,
      stdio: ['ignore', 'pipe', 'inherit'],
      env: { ...process.env, PLATFORM_PORT: String(port), PLATFORM_DATA: file, PLATFORM_TOOL: tool },
    });
    child.stdout.on('data', (data) => String(data).includes('listens on') && done(child));
    child.on('exit', () => done(null));
  });
}

/**
 * Starts the built server.
 *
 * @param {Record<string, string>} env
 * @param {(line: string) => void} [onLine]
 * @returns {Promise<import('node:child_process').ChildProcess>} once the server says that it listens
 */
export function startServer(env, onLine = () => {}) {
  return new Promise((done, failed) => {
    const child = spawn(process.execPath, ['--enable-source-maps', at('apps', 'server', 'dist', 'main.js')], {
      cwd: root,
      stdio: ['ignore', 'pipe', 'inherit'],
      env: { ...process.env, SALT_CIRCLE_WEB: at('apps', 'web', 'dist'), ...env },
    });
    let rest = '';
    child.stdout.on('data', (data) => {
      rest += data;
      const lines = rest.split('\n');
      rest = lines.pop();
      for (const line of lines) {
        onLine(line);
        if (line.startsWith('Salt Circle listens')) done(child);
      }
    });
    child.on('exit', (code, signal) =>
      failed(Object.assign(new Error(`the server ended with ${code ?? signal}`), { code, signal })),
    );
  });
}
