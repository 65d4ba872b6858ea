import { createRequire } from 'node:module';
import type { validationMetadatasToSchemas } from 'class-validator-jsonschema';

type Options = NonNullable<Parameters<typeof validationMetadatasToSchemas>[0]>;
type Storage = NonNullable<Options['classTransformerMetadataStorage']>;

/**
 * What the request classes say of what is nested in them. The package keeps it where it says nothing of, and whoever describes it is told
 * to look there (documentation of class-validator-jsonschema).
 */
export function transformerMetadata(): Storage {
  const load = createRequire(import.meta.url);
  return (load('class-transformer/cjs/storage') as { readonly defaultMetadataStorage: Storage }).defaultMetadataStorage;
}
