import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import { StandInPlatform } from './platform.js';

const { PLATFORM_PORT = '4610', PLATFORM_DATA = 'data/platform.json', PLATFORM_TOOL } = process.env;
mkdirSync(dirname(PLATFORM_DATA), { recursive: true });
const tool = PLATFORM_TOOL === undefined ? {} : { tool: toolAt(PLATFORM_TOOL) };
const platform = await StandInPlatform.start({ port: Number(PLATFORM_PORT), file: PLATFORM_DATA, ...tool });
process.stdout.write(`The stand-in platform listens on ${platform.url}\n`);
const stop = () => void platform.stop().then(() => process.exit(0));
process.on('SIGINT', stop);
process.on('SIGTERM', stop);

/** Salt Circle at this address, as its demo knows this platform. */
function toolAt(address: string) {
  return {
    ...{ clientId: 'salt-circle-demo', deploymentId: 'northmere-1', name: 'Salt Circle' },
    loginUrl: `${address}/api/lti/login`,
    launchUrl: `${address}/api/lti/launch`,
    keysUrl: `${address}/api/lti/keys`,
  };
}
