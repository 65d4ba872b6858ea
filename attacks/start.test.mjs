import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { at } from '../scripts/run.mjs';

const PORT = '4645';
const SECRET = 'a secret of some thirty characters';

/** The process that a command has begun (Linux tells). */
function childOf(pid) {
  return Number(readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').at(-1));
}

/** Starts the server itself. @returns exit code and what it said on both streams */
function started(env, { killAfter = null } = {}) {
  const child = spawn(process.execPath, [at('apps', 'server', 'dist', 'main.js')], {
    env: { ...process.env, SALT_CIRCLE_SECRET: SECRET, NODE_OPTIONS: '', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (data) => (said += data));
  const over = new Promise((done) => child.on('exit', (code, signal) => done({ code, signal, said })));
  const listening = new Promise((done) => {
    const look = () => (said.includes('Salt Circle listens') ? done(true) : null);
    child.stdout.on('data', look);
    child.on('exit', () => done(false));
  });
  if (killAfter !== null) void listening.then(() => setTimeout(() => child.kill('SIGTERM'), killAfter));
  return { child, over, listening };
}

describe('a server', () => {
  let folder;
  beforeAll(() => {
    folder = mkdtempSync(join(tmpdir(), 'salt-circle-'));
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  it('is alone on its folder: a second one refuses in a sentence, and changes nothing; one that was killed leaves it free', async () => {
    const first = started({ SALT_CIRCLE_DATA: folder, PORT: '4646' });
    expect(await first.listening).toBe(true);
    const working = join(folder, 'working', 'at-work');
    mkdirSync(working);
    const second = await started({ SALT_CIRCLE_DATA: folder, PORT: '4647' }).over;
    expect([second.code, second.said]).toEqual([2, expect.stringContaining('is in use by another Salt Circle')]);
    expect(existsSync(working)).toBe(true);
    // The port is tried before anything of a folder is touched.
    const other = join(folder, 'other');
    const third = await started({ SALT_CIRCLE_DATA: other, PORT: '4646' }).over;
    expect([third.code, third.said, existsSync(join(other, 'salt-circle.sqlite'))]).toEqual([
      2,
      expect.stringContaining('Port 4646 is taken'),
      false,
    ]);
    first.child.kill('SIGKILL');
    await first.over;
    const again = started({ SALT_CIRCLE_DATA: folder, PORT: '4646' }, { killAfter: 0 });
    expect(await again.listening).toBe(true);
    const begun = Date.now();
    const { code, signal } = await again.over;
    expect(code === 0 || signal === 'SIGTERM').toBe(true);
    // It ends by a clock of its own, which no work can hold up.
    expect(Date.now() - begun).toBeLessThan(60_000);
  });

  it('says which setting keeps it from starting', async () => {
    const host = await started({ SALT_CIRCLE_DATA: folder, PORT: '4646', HOST: '192.0.2.1' }).over;
    expect([host.code, host.said]).toEqual([2, expect.stringContaining('not an address of this machine')]);
    const misspelt = await started({ SALT_CIRCLE_DATA: folder, SALT_CIRCLE_SMPT: 'smtp://x' }).over;
    expect([misspelt.code, misspelt.said]).toEqual([2, expect.stringContaining('Did you mean SALT_CIRCLE_SMTP?')]);
  });
});

describe('npm start', () => {
  let folder;
  let command;
  const lines = [];
  beforeAll(() => {
    folder = mkdtempSync(join(tmpdir(), 'salt-circle-'));
    command = spawn(process.execPath, [at('scripts', 'start.mjs')], {
      cwd: at(),
      env: {
        ...process.env,
        SALT_CIRCLE_DATA: folder,
        SALT_CIRCLE_SECRET: 'a secret of some thirty characters',
        PORT,
        NODE_OPTIONS: '',
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    command.stdout.on('data', (data) => lines.push(...String(data).split('\n').filter(Boolean)));
  });
  afterAll(() => {
    command.kill('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  });

  /** Waits until the command has said it so many times. */
  async function said(words, times) {
    const count = () => lines.filter((line) => line.includes(words)).length;
    for (let looks = 0; looks < 1_000 && count() < times; looks += 1)
      await new Promise((done) => setTimeout(done, 100));
    return count();
  }

  it('begins the server again after a fault, says what happened, and ends when it is told to', async () => {
    expect(await said('Salt Circle listens', 1)).toBe(1);
    process.kill(childOf(command.pid), 'SIGKILL');
    expect(await said('Salt Circle listens', 2)).toBe(2);
    const told = lines.find((line) => line.includes('begun again')) ?? '{}';
    expect(JSON.parse(told)).toMatchObject({ level: 60, signal: 'SIGKILL' });
    expect((await fetch(`http://127.0.0.1:${PORT}/api/health`)).status).toBe(200);
    command.kill('SIGTERM');
    const code = await new Promise((done) => command.on('exit', done));
    expect([code, lines.filter((line) => line.includes('Salt Circle listens')).length]).toEqual([0, 2]);
  });
});
