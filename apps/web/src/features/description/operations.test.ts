import { operationsOf, type OpenApi } from './operations.js';

const DOCUMENT: OpenApi = {
  openapi: '3.1.0',
  info: { description: '' },
  paths: {
    '/api/b/{id}': {
      put: {
        tags: ['B'],
        parameters: [
          { name: 'id', in: 'path', required: true },
          { name: 'names', in: 'query', required: false },
        ],
        requestBody: { content: { 'application/json': { schema: { $ref: '#/components/schemas/BRequest' } } } },
      },
    },
    '/api/a': {
      get: {
        tags: ['A'],
        responses: {
          default: { content: { 'application/json': { schema: { $ref: '#/components/schemas/Problem' } } } },
          '200': {
            content: {
              'application/json': { schema: { type: 'array', items: { $ref: '#/components/schemas/AView' } } },
            },
          },
        },
      },
      delete: { tags: ['A'], responses: { '204': {} } },
    },
  },
  components: { schemas: { BRequest: { type: 'object' }, AView: { type: 'string' } } },
};

describe('routes to be read', () => {
  it('stand in groups, each with what it takes and what it answers', () => {
    expect(operationsOf(DOCUMENT).map(({ method, path }) => `${method} ${path}`)).toEqual([
      'GET /api/a',
      'DELETE /api/a',
      'PUT /api/b/{id}',
    ]);
    expect(operationsOf(DOCUMENT).at(-1)).toMatchObject({
      parameters: ['id in path', 'names in query, may be left out'],
      body: { name: 'BRequest', schema: { type: 'object' } },
      answer: null,
    });
    expect(operationsOf(DOCUMENT).map(({ answer }) => answer)).toEqual([
      { name: 'AView, several', schema: { type: 'string' } },
      null,
      null,
    ]);
  });
});
