import type { INestApplication } from '@nestjs/common';
import { Platforms } from '../features/lti/platforms/platforms.service.js';
import { LtiPlatform } from '../model/lti.js';
import { Database } from '../platform/database/database.js';

/** As the stand-in platform knows us, and itself: see `apps/platform/src/main.ts`. */
const CLIENT_ID = 'salt-circle-demo';
const DEPLOYMENT = 'northmere-1';

/** Connects the stand-in platform that is started beside the demo, also where it has moved to another port since. */
export async function connectDemoPlatform(app: INestApplication, address: string): Promise<void> {
  const database = app.get(Database);
  const where = {
    ...{ issuer: address, authUrl: `${address}/auth`, tokenUrl: `${address}/token`, keysUrl: `${address}/keys` },
    pages: [address],
  };
  const there = await database.read.findOneBy(LtiPlatform, { clientId: CLIENT_ID });
  if (there?.issuer === address) return;
  if (there !== null) {
    await database.write((manager) => manager.update(LtiPlatform, { id: there.id }, where));
    return;
  }
  const facts = { ...where, name: 'Northmere', clientId: CLIENT_ID, tokenAudience: null };
  await app.get(Platforms).insert({ ...facts, active: true, makesCourses: true, deployments: [DEPLOYMENT] }, null);
}
