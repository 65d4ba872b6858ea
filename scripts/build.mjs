import { built, installed } from './run.mjs';

await installed();
await built();
