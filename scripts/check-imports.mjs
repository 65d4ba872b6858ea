import { readFileSync } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { dirname } from 'node:path';
import { at, must, run } from './run.mjs';

/** In these no folder imports another in a circle. Inside `apps/web` features are apart anyway. */
const HOUSES = ['apps/server/src', 'packages/core/src', 'packages/contracts/src'];
const sources = [...HOUSES, 'apps/web/src', 'apps/platform/src'];
const found = at('.cache', 'imports.json');

await mkdir(at('.cache'), { recursive: true });
await must('npx', ['depcruise', '--config', '.dependency-cruiser.mjs', '-T', 'json', '-f', found, ...sources]);
const rules = await run('npx', ['depcruise-fmt', '-T', 'err', '-e', found]);
const { modules } = JSON.parse(readFileSync(found, 'utf8'));
const circles = HOUSES.map((house) => folders(house)).reduce((sum, count) => sum + count, 0);
process.exitCode = rules === 0 && circles === 0 ? 0 : 1;

/** Says how many arrows there are between the folders of a house. @returns how many of them are part of a circle */
function folders(house) {
  const arrows = new Map();
  // Front doors pass on what is behind them, and hold nothing.
  const isDoor = (path) => path === `${house}/index.ts` || path === `${house}/plain.ts`;
  const isTest = (path) => /\.(spec|test)\.tsx?$|\/testing\//.test(path);
  for (const { source, dependencies } of modules) {
    if (!source.startsWith(`${house}/`) || isTest(source) || isDoor(source)) continue;
    const from = dirname(source);
    for (const { resolved } of dependencies) {
      const to = dirname(resolved);
      if (to === from || !resolved.startsWith(`${house}/`) || isTest(resolved)) continue;
      arrows.set(from, (arrows.get(from) ?? new Set()).add(to));
    }
  }
  const back = [...arrows].flatMap(([from, targets]) =>
    [...targets].filter((to) => reachable(arrows, to).has(from)).map((to) => `${from} → ${to}`),
  );
  const all = [...arrows.values()].reduce((sum, targets) => sum + targets.size, 0);
  process.stdout.write(`${house}: ${all} arrows between folders, ${back.length} of them in circles\n`);
  for (const arrow of back) process.stderr.write(`  in a circle: ${arrow}\n`);
  return back.length;
}

function reachable(arrows, start) {
  const seen = new Set([start]);
  const waiting = [start];
  for (let from = waiting.pop(); from !== undefined; from = waiting.pop()) {
    for (const to of arrows.get(from) ?? []) {
      if (seen.has(to)) continue;
      seen.add(to);
      waiting.push(to);
    }
  }
  return seen;
}
