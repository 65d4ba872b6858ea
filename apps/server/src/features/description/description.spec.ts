import type { OpenAPIObject } from '@nestjs/swagger';
import { ANN } from '../../testing/people.js';
import { World } from '../../testing/world.js';

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
}

let world: World;
let document: OpenAPIObject;

beforeAll(async () => {
  world = await World.open();
  document = await world.do<OpenAPIObject>(ANN, 'get', '/openapi.json');
});
afterAll(() => world.close());

describe('the description of the API', () => {
  it('is valid by a general validator of OpenAPI', async () => {
    const { Validator } = await import('@seriousme/openapi-schema-validator');
    const { valid, errors } = await new Validator().validate(document as never);
    expect({ valid, errors }).toEqual({ valid: true });
  });

  it('has every route that the server has, which are those of the access table', () => {
    const { stack } = (world.app.getHttpAdapter().getInstance() as { router: { stack: Layer[] } }).router;
    const routes = stack.flatMap(({ route }) => {
      const methods = Object.keys(route?.methods ?? {});
      if (route === undefined || methods.length > 5) return [];
      return methods.map((method) => `${method.toUpperCase()} ${route.path.replace(/:(\w+)/g, '{$1}')}`);
    });
    const described = Object.entries(document.paths).flatMap(([path, operations]) =>
      Object.keys(operations).map((method) => `${method.toUpperCase()} ${path}`),
    );
    expect(described.length).toBeGreaterThan(100);
    expect([...new Set(described)].sort()).toEqual([...new Set(routes)].sort());
  });

  it('describes bodies with their bounds, and what is refused', () => {
    const schemas = document.components?.schemas as Record<string, { properties?: Record<string, object> }>;
    expect(schemas['GradeOverrideRequest']?.properties).toMatchObject({
      part: { enum: expect.arrayContaining(['peer-score']) as unknown },
      reason: { type: 'string', minLength: 1, maxLength: 2_000 },
    });
    const override = document.paths['/api/exchanges/{exchangeId}/grades/{participantId}/override']?.put;
    expect(override).toMatchObject({
      requestBody: {
        content: { 'application/json': { schema: { $ref: '#/components/schemas/GradeOverrideRequest' } } },
      },
      responses: { default: { content: { 'application/json': { schema: { $ref: '#/components/schemas/Problem' } } } } },
    });
    // Whatever is referred to is there.
    const referred = [...JSON.stringify(document).matchAll(/"#\/components\/schemas\/([^"]+)"/g)].map(
      ([, name]) => name ?? '',
    );
    expect(referred.filter((name) => !(name in schemas))).toEqual([]);
  });

  it('is for whoever is signed in', async () => {
    expect((await world.as(null, 'get', '/openapi.json')).status).toBe(401);
  });
});
