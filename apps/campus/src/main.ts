import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import { StandInCampus } from './campus.js';

const { CAMPUS_PORT = '4610', CAMPUS_DATA = 'data/campus.json', CAMPUS_TOOL } = process.env;
mkdirSync(dirname(CAMPUS_DATA), { recursive: true });
const tool = CAMPUS_TOOL === undefined ? {} : { tool: toolAt(CAMPUS_TOOL) };
const campus = await StandInCampus.start({ port: Number(CAMPUS_PORT), file: CAMPUS_DATA, ...tool });
process.stdout.write(`The stand-in campus listens on ${campus.url}\n`);
const stop = () => void campus.stop().then(() => process.exit(0));
process.on('SIGINT', stop);
process.on('SIGTERM', stop);

/** Salt Circle at this address, as its demo knows this campus. */
function toolAt(address: string) {
  return {
    ...{ clientId: 'salt-circle-demo', deploymentId: 'northmere-1', name: 'Salt Circle' },
    loginUrl: `${address}/api/campus/login`,
    launchUrl: `${address}/api/campus/launch`,
    keysUrl: `${address}/api/campus/keys`,
  };
}
