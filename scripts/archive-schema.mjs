import { writeFileSync } from 'node:fs';
import { createGenerator } from 'ts-json-schema-generator';
import { at } from './run.mjs';

/** The schema of archives, from the types of the rows; a test compares it with what is in the repository. */
export function archiveSchema() {
  const generator = createGenerator({
    path: at('apps/server/src/features/archive/kept/rows.ts'),
    tsconfig: at('apps/server/tsconfig.json'),
    type: 'ExchangeArchive',
    expose: 'export',
    topRef: false,
    skipTypeCheck: true,
    sortProps: true,
  });
  const schema = generator.createSchema('ExchangeArchive');
  return `${JSON.stringify({ ...schema, title: 'Archive of an exchange' }, null, 2)}\n`;
}

if (process.argv[1] === import.meta.filename)
  writeFileSync(at('docs/schemas/exchange-archive.schema.json'), archiveSchema());
