import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Features add their endpoints to one API: of two with the same name, the one whose page was opened first would answer for both. */
it('have names of their own, whichever feature adds them', () => {
  const root = join(__dirname, '..');
  const files = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter(
    (path) => /\.tsx?$/.test(path) && !/\.test\.tsx?$/.test(path),
  );
  const names = files.flatMap((path) =>
    [...readFileSync(join(root, path), 'utf8').matchAll(/^\s+(\w+): build\.(?:query|mutation)/gm)].map(
      ([, name]) => name,
    ),
  );
  expect(names.length).toBeGreaterThan(100);
  expect(names.filter((name, index) => names.indexOf(name) !== index)).toEqual([]);
});
