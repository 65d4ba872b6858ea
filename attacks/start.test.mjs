import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { at } from '../scripts/run.mjs';

const PORT = '4645';

/** The process that a command has begun (Linux tells). */
function childOf(pid) {
  return Number(readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').at(-1));
}

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
  }, 150_000);
});
