import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { transformSync } from '@swc/core';
import { at } from './run.mjs';

// Estimates of lme4 (R) for the courses of `packages/core/src/scoring/testing/courses.ts`, and for its Penicillin data, stored for the
// tests. Needs R with lme4; the tests do not. Run after `npm run build`.
const folder = at('.cache', 'lme4');
mkdirSync(folder, { recursive: true });
// What is for tests is not built: translated here, with the built core beside it.
const source = readFileSync(at('packages', 'core', 'src', 'scoring', 'testing', 'courses.ts'), 'utf8');
const { code } = transformSync(source, { jsc: { parser: { syntax: 'typescript' }, target: 'es2022' } });
const random = pathToFileURL(at('packages', 'core', 'dist', 'random', 'random.js')).href;
writeFileSync(`${folder}/courses.mjs`, code.replace('../../random/random.js', random));
const { course, COURSES } = await import(pathToFileURL(`${folder}/courses.mjs`).href);

for (const [index, [name, plan]] of Object.entries(COURSES).entries()) {
  const { ratings } = course(plan, index + 1);
  const lines = ratings.map(
    ({ reviewerId, draftId, itemId = '', score }) => `${reviewerId},${draftId},${itemId},${score}`,
  );
  writeFileSync(`${folder}/${index + 1}.csv`, `reviewer,draft,item,score\n${lines.join('\n')}\n`);
  writeFileSync(`${folder}/${index + 1}.txt`, name);
}
const out = at('packages', 'core', 'src', 'scoring', 'testing', 'lme4.json');
const { status } = spawnSync('Rscript', [at('scripts', 'lme4-values.R'), folder, out], { stdio: 'inherit' });
process.exitCode = status ?? 1;
