import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Ajv, type ErrorObject, type ValidateFunction } from 'ajv';
import { TABLES } from './kept/tables.js';
import type { ArchivedTable } from './kept/rows.js';

/** Beside the documentation, where others read it; made from the types of the rows. */
export const SCHEMA_FILE = join(import.meta.dirname, '../../../../../docs/schemas/exchange-archive.schema.json');

interface Checks {
  readonly manifest: ValidateFunction;
  readonly rows: ReadonlyMap<ArchivedTable, ValidateFunction>;
}

let made: Checks | null = null;

/** What an archive is compared with; put together at the first. */
export function archiveChecks(): Checks {
  if (made !== null) return made;
  const schema = JSON.parse(readFileSync(SCHEMA_FILE, 'utf8')) as object;
  const ajv = new Ajv({ allErrors: false, strict: false });
  ajv.addSchema(schema, 'archive');
  const at = (path: string) => ajv.compile({ $ref: `archive#/definitions/${path}` });
  made = {
    manifest: at('ArchiveManifest'),
    rows: new Map(TABLES.map(({ name }) => [name, at(`ArchiveRows/properties/${name}`)])),
  };
  return made;
}

/** "selector/position: must have required property 'start'" */
export function wrongAt([error]: readonly ErrorObject[] = []): string {
  return error === undefined ? '' : `${error.instancePath.slice(1)}: ${error.message ?? ''}`;
}
