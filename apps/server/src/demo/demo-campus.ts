import type { INestApplication } from '@nestjs/common';
import { Campuses } from '../features/campus/platforms/campuses.service.js';
import { Campus } from '../model/campus.js';
import { Database } from '../platform/database/database.js';

/** As the stand-in campus knows us, and itself: see `apps/campus/src/main.ts`. */
const CLIENT_ID = 'salt-circle-demo';
const DEPLOYMENT = 'northmere-1';

/** Connects the stand-in campus that is started beside the demo, also where it has moved to another port since. */
export async function connectDemoCampus(app: INestApplication, address: string): Promise<void> {
  const database = app.get(Database);
  const where = {
    ...{ issuer: address, authUrl: `${address}/auth`, tokenUrl: `${address}/token`, keysUrl: `${address}/keys` },
    pages: [address],
  };
  const there = await database.read.findOneBy(Campus, { clientId: CLIENT_ID });
  if (there?.issuer === address) return;
  if (there !== null) {
    await database.write((manager) => manager.update(Campus, { id: there.id }, where));
    return;
  }
  const facts = { ...where, name: 'Northmere', clientId: CLIENT_ID, tokenAudience: null };
  await app.get(Campuses).insert({ ...facts, active: true, makesCourses: true, deployments: [DEPLOYMENT] }, null);
}
