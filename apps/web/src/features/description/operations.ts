interface Reference {
  readonly $ref?: string;
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
            readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema?: Reference }>> };
          }
        >
      >
    >
  >;
  readonly components?: { readonly schemas?: Readonly<Record<string, unknown>> };
}

export interface Operation {
  readonly group: string;
  readonly method: string;
  readonly path: string;
  /** "exchangeId in path", "names in query, may be left out". */
  readonly parameters: readonly string[];
  readonly body: { readonly name: string; readonly schema: unknown } | null;
}

/** All routes in the order of their paths. */
export function operationsOf({ paths, components }: OpenApi): Operation[] {
  return Object.entries(paths)
    .flatMap(([path, operations]) =>
      Object.entries(operations).map(([method, { tags, parameters, requestBody }]): Operation => {
        const schema = Object.values(requestBody?.content ?? {})[0]?.schema;
        const name = schema?.$ref?.split('/').at(-1);
        return {
          ...{ group: tags?.[0] ?? '', method: method.toUpperCase(), path },
          parameters: (parameters ?? []).map(
            (one) => `${one.name} in ${one.in}${one.required === false ? ', may be left out' : ''}`,
          ),
          body:
            schema === undefined ? null : { name: name ?? '', schema: (name && components?.schemas?.[name]) || schema },
        };
      }),
    )
    .sort((a, b) => a.group.localeCompare(b.group) || a.path.localeCompare(b.path));
}
