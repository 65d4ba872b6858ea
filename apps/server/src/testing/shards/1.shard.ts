import { runShard } from './run-shard.js';

runShard(1);
