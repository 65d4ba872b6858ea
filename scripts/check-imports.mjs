import { must } from './run.mjs';

const sources = ['packages/core/src', 'packages/contracts/src', 'apps/server/src', 'apps/web/src'];
await must('npx', ['depcruise', '--config', '.dependency-cruiser.mjs', ...sources]);
