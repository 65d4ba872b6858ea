import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Injectable, type INestApplication } from '@nestjs/common';
import { PROBLEM_CODES } from '@salt-circle/contracts';
import { DocumentBuilder, SwaggerModule, type OpenAPIObject } from '@nestjs/swagger';
import { transformerMetadata } from './transformer-metadata.js';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';

type Schema = NonNullable<NonNullable<OpenAPIObject['components']>['schemas']>[string];

const REFERENCE = '#/components/schemas/';

/** What every refusal looks like. */
const PROBLEM: Schema = {
  type: 'object',
  required: ['code', 'sentence', 'whatToDo', 'fields'],
  properties: {
    code: { type: 'string', enum: [...PROBLEM_CODES], description: 'for programs' },
    sentence: { type: 'string', description: 'what is wrong, for people' },
    whatToDo: { type: 'string', description: 'what to do about it' },
    fields: {
      type: 'array',
      description: 'what is wrong in which field',
      items: {
        type: 'object',
        required: ['path', 'code', 'sentence'],
        properties: { path: { type: 'string' }, code: { type: 'string' }, sentence: { type: 'string' } },
      },
    },
    current: { description: 'of a conflict: what the server holds' },
  },
};

/** Where a field takes one of several shapes, which one its own `type` or `kind` says: classes do not tell. */
const ANY: Schema = { type: 'object', additionalProperties: true };

interface Operation {
  readonly operationId: string;
  responses?: Record<string, object>;
}

interface Answers {
  readonly operations: Readonly<Record<string, Schema>>;
  readonly schemas: Readonly<Record<string, Schema>>;
}

/** Beside the documentation; made from the types that controllers return (`scripts/api-answers.mjs`). */
export const ANSWERS_FILE = join(import.meta.dirname, '../../../../../docs/schemas/api-answers.json');

function answersOf(): Answers {
  const text = readFileSync(ANSWERS_FILE, 'utf8').replaceAll('#/definitions/', REFERENCE);
  return JSON.parse(text) as Answers;
}

/** All routes, described by OpenAPI 3: paths from the controllers, bodies from the request classes and their bounds, answers from their types. */
@Injectable()
export class Description {
  #app: INestApplication | null = null;
  #made: OpenAPIObject | null = null;

  /** Called once, when there is an application to be described. */
  of(app: INestApplication): void {
    this.#app = app;
  }

  document(): OpenAPIObject {
    if (this.#app === null) throw new Error('the description was asked for before there was an application');
    this.#made ??= describe(this.#app);
    return this.#made;
  }
}

function describe(app: INestApplication): OpenAPIObject {
  const config = new DocumentBuilder()
    .setTitle('Salt Circle')
    .setDescription(
      'Peer review of student drafts. Requests carry the cookie of a session and the header x-salt-circle: 1, or an access token, which reads. What is refused says why, for people and for programs.',
    )
    .setVersion('1')
    .addCookieAuth('salt_circle')
    .addBearerAuth()
    .build();
  const document = SwaggerModule.createDocument(app, config, {
    operationIdFactory: (controller, method) => `${controller.replace(/Controller$/, '')}.${method}`,
    autoTagControllers: true,
  });
  const schemas = validationMetadatasToSchemas({
    classTransformerMetadataStorage: transformerMetadata(),
    refPointerPrefix: REFERENCE,
  }) as Record<string, Schema>;
  document.components = {
    ...document.components,
    schemas: { ...document.components?.schemas, ...schemas, Problem: PROBLEM, Object: ANY },
  };
  const refused = {
    description: 'refused; nothing was changed',
    content: { 'application/json': { schema: { $ref: `${REFERENCE}Problem` } } },
  };
  const answers = answersOf();
  Object.assign(document.components.schemas as object, answers.schemas);
  for (const operations of Object.values(document.paths)) {
    for (const operation of Object.values(operations as Record<string, Operation>)) {
      const schema = answers.operations[operation.operationId];
      const given = Object.entries(operation.responses ?? {}).map(([status, response]): [string, object] => [
        status,
        schema === undefined ? response : { ...response, content: { 'application/json': { schema } } },
      ]);
      operation.responses = { ...Object.fromEntries(given), default: refused };
    }
  }
  // Answers are described by JSON Schema as it is, which OpenAPI takes from 3.1 on.
  document.openapi = '3.1.0';
  return document;
}
