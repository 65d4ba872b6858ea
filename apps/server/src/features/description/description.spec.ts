import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { OpenAPIObject } from '@nestjs/swagger';
import { Ajv } from 'ajv';
import { leaveNote, reviewedExchange, submitFilled } from '../../testing/acts.js';
import { ANN, INES } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { ANSWERS_FILE } from './description.service.js';

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
}

interface Answered {
  readonly content?: Readonly<Record<string, { readonly schema: object }>>;
}

const MAKER = join(import.meta.dirname, '../../../../../scripts/api-answers.mjs');
const FILES =
  /\.(?:zip|csv|xlsx|docx|pdf|jsonld|json)$|calendar\/\{token\}$|uploads\/\{id\}$|\/(?:archive|changes|copy|original|captions|file)$|\{(?:format|digest)\}$|lti\/(?:login|register\/\{token\}|arrivals\/\{token\}\/return)$/;

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

  it('describes what is answered, from the types that controllers return, and that is what is answered', async () => {
    const { apiAnswers } = (await import(MAKER)) as { apiAnswers: () => string };
    // Else: node scripts/api-answers.mjs.
    expect(apiAnswers()).toBe(readFileSync(ANSWERS_FILE, 'utf8'));
    const { id, byAnn } = await reviewedExchange(world);
    await leaveNote(world, ANN, byAnn);
    await submitFilled(world, ANN, byAnn);
    world.clock.goTo(AT.checking);
    const asked: ReadonlyArray<readonly [path: string, url: string]> = [
      ['/api/exchanges/{exchangeId}', `/exchanges/${id}`],
      ['/api/exchanges/{exchangeId}/plan', `/exchanges/${id}/plan`],
      ['/api/exchanges/{exchangeId}/form', `/exchanges/${id}/form`],
      ['/api/exchanges/{exchangeId}/progress', `/exchanges/${id}/progress`],
      ['/api/exchanges/{exchangeId}/allocation', `/exchanges/${id}/allocation`],
      ['/api/exchanges/{exchangeId}/grades', `/exchanges/${id}/grades`],
      ['/api/exchanges/{exchangeId}/insights', `/exchanges/${id}/insights`],
      ['/api/exchanges/{exchangeId}/queue', `/exchanges/${id}/queue`],
      ['/api/exchanges/{exchangeId}/activity', `/exchanges/${id}/activity`],
      ['/api/reviews/{reviewId}', `/reviews/${byAnn}`],
      ['/api/courses', '/courses'],
      ['/api/courses/{courseId}', '/courses/course'],
      ['/api/courses/{courseId}/library', '/courses/course/library'],
      ['/api/today', '/today'],
    ];
    const ajv = new Ajv({ strict: false });
    ajv.addSchema({ components: document.components } as object, 'api');
    for (const [path, url] of asked) {
      const operation = document.paths[path]?.get as { responses: Record<string, Answered> } | undefined;
      const schema = operation?.responses['200']?.content?.['application/json']?.schema;
      expect([path, schema === undefined]).toEqual([path, false]);
      const isRight = ajv.compile(JSON.parse(JSON.stringify(schema).replaceAll('"#/', '"api#/')) as object);
      const right = isRight(await world.do(INES, 'get', url));
      expect([path, right, isRight.errors]).toEqual([path, true, null]);
    }
    const without = Object.entries(document.paths).flatMap(([path, operations]) =>
      Object.entries(operations as Record<string, { responses: Record<string, Answered> }>)
        .filter(([, { responses }]) =>
          Object.entries(responses).some(([status, one]) => status === '200' && one.content === undefined),
        )
        .map(([method]) => `${method} ${path}`),
    );
    // Files and streams alone, and pages that browsers are sent on from.
    expect(without.filter((one) => !FILES.test(one))).toEqual([]);
  });

  it('is for whoever is signed in', async () => {
    expect((await world.as(null, 'get', '/openapi.json')).status).toBe(401);
  });
});
