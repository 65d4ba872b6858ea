import { say } from '../../words/description.js';

interface Reference {
  readonly $ref?: string;
  readonly type?: string | readonly string[];
  readonly items?: Reference;
}

interface Content {
  readonly content?: Readonly<Record<string, { readonly schema?: Reference }>>;
}

/** Of a description by OpenAPI 3, what is shown. */
export interface OpenApi {
  readonly openapi: string;
  readonly info: { readonly description: string };
  readonly paths: Readonly<
    Record<
      string,
      Readonly<
        Record<
          string,
          {
            readonly tags?: readonly string[];
            readonly parameters?: ReadonlyArray<{
              readonly name: string;
              readonly in: string;
              readonly required?: boolean;
            }>;
            readonly requestBody?: Content;
            /** By status; `default` is what is refused. */
            readonly responses?: Readonly<Record<string, Content>>;
          }
        >
      >
    >
  >;
  readonly components?: { readonly schemas?: Readonly<Record<string, unknown>> };
}

export interface Described {
  /** "GradesView", or "ReviewCard, several". */
  readonly name: string;
  readonly schema: unknown;
}

export interface Operation {
  readonly group: string;
  readonly method: string;
  readonly path: string;
  /** "exchangeId in path", "names in query, may be left out". */
  readonly parameters: readonly string[];
  readonly body: Described | null;
  /** Null for files, and for nothing. */
  readonly answer: Described | null;
}

/** All routes in the order of their paths. */
export function operationsOf({ paths, components }: OpenApi): Operation[] {
  return Object.entries(paths)
    .flatMap(([path, operations]) =>
      Object.entries(operations).map(([method, { tags, parameters, requestBody, responses }]): Operation => {
        const [answered] = Object.entries(responses ?? {}).filter(([status]) => /^2\d\d$/.test(status));
        return {
          ...{ group: tags?.[0] ?? '', method: method.toUpperCase(), path },
          parameters: (parameters ?? []).map((one) =>
            one.required === false
              ? say('inMayBeLeftOut', { name: one.name, in: one.in })
              : say('in', { name: one.name, in: one.in }),
          ),
          body: described(requestBody, components?.schemas),
          answer: described(answered?.[1], components?.schemas),
        };
      }),
    )
    .sort((a, b) => a.group.localeCompare(b.group) || a.path.localeCompare(b.path));
}

function described(of: Content | undefined, schemas: Readonly<Record<string, unknown>> | undefined): Described | null {
  const schema = Object.values(of?.content ?? {})[0]?.schema;
  if (schema === undefined) return null;
  const several = schema.items?.$ref !== undefined;
  const name = (schema.$ref ?? schema.items?.$ref)?.split('/').at(-1) ?? '';
  return { name: several ? say('several', { name }) : name, schema: (name !== '' && schemas?.[name]) || schema };
}
