import { request as httpRequest } from 'node:http';
import type { AddressInfo } from 'node:net';
import { Database } from './platform/database/database.js';
import { ANN } from './testing/people.js';
import { World } from './testing/world.js';

describe('shutting down', () => {
  it('finishes the requests that run, and takes no new ones', async () => {
    const world = await World.open();
    await world.app.listen(0);
    const { port } = world.app.getHttpServer().address() as AddressInfo;
    const database = world.app.get(Database);
    const cookie = await world.cookieOf(ANN);
    let letGo = () => {};
    const held = new Promise<void>((resolve) => (letGo = resolve));
    // Keeps the writer busy, so that a request that writes has to wait for it.
    const busy = database.write(() => held);
    const answer = new Promise<number>((resolve, reject) => {
      const call = httpRequest(
        {
          port,
          path: '/api/account/name',
          method: 'PUT',
          headers: { 'x-salt-circle': '1', 'content-type': 'application/json', cookie },
        },
        (response) => {
          response.resume();
          resolve(response.statusCode ?? 0);
        },
      );
      call.on('error', reject);
      call.end(JSON.stringify({ name: 'Ann' }));
    });
    await new Promise((resolve) => setTimeout(resolve, 600));
    const closing = world.close();
    letGo();
    await busy;
    // The name is kept before the answer goes out.
    expect(await answer).toBe(204);
    await closing;
    await expect(fetch(`http://127.0.0.1:${port}/api/health`)).rejects.toThrow();
  });
});
