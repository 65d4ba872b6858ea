import { must, TSC } from './run.mjs';

// Both packages of TypeScript offer a `tsc`: the native one is called by its path.
await must('node', [TSC, '-b', 'packages/core', 'packages/contracts', 'apps/platform', 'apps/server']);
const CHECKED = [
  ...['packages/core/tsconfig.test.json', 'packages/contracts/tsconfig.test.json', 'apps/server/tsconfig.test.json'],
  ...['apps/web/tsconfig.json', 'apps/web/worker/tsconfig.json', 'e2e/tsconfig.json'],
];
for (const project of CHECKED) await must('node', [TSC, '-p', project]);
