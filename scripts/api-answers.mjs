import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createGenerator } from 'ts-json-schema-generator';
import ts from 'typescript';
import { at } from './run.mjs';

// What the API answers, as JSON Schema, from the types that controllers say they return. Kept in the repository, and compared by a test.

const SERVER = at('apps', 'server', 'src');
const METHODS = new Set(['Get', 'Post', 'Put', 'Patch', 'Delete']);
/** What is no JSON: files and streams, and nothing at all. */
const OTHER = /^(?:void|string|StreamableFile|OpenAPIObject|Observable<.*>)$/s;

function controllers() {
  const files = readdirSync(SERVER, { recursive: true }).filter((name) => name.endsWith('.controller.ts'));
  return files.map((name) => join(SERVER, name)).sort();
}

/** "Reviews.desk" and "DeskView", of each route that answers with JSON; and where the types come from. */
function answersIn(path) {
  const source = ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.ES2023, true);
  const answers = [];
  const types = [];
  ts.forEachChild(source, (node) => {
    if (ts.isImportDeclaration(node) && node.moduleSpecifier.text === '@salt-circle/contracts') {
      for (const { name } of node.importClause?.namedBindings?.elements ?? []) types.push(name.text);
    }
    if (!ts.isClassDeclaration(node)) return;
    for (const member of node.members) {
      if (!ts.isMethodDeclaration(member) || member.type === undefined) continue;
      const decorators = ts.getDecorators(member) ?? [];
      if (!decorators.some(({ expression }) => METHODS.has(expression.expression?.text))) continue;
      const told = member.type.getText(source);
      const type = /^Promise<(.*)>$/s.exec(told)?.[1] ?? told;
      if (OTHER.test(type)) continue;
      answers.push([`${node.name.text.replace(/Controller$/, '')}.${member.name.getText(source)}`, type]);
    }
  });
  return { answers, types };
}

/** @returns the file's text */
export function apiAnswers() {
  const all = controllers().map(answersIn);
  const answers = all.flatMap((one) => one.answers).sort(([a], [b]) => (a < b ? -1 : 1));
  const named = answers.map(([, type]) => type).join(' ');
  const types = [...new Set(all.flatMap((one) => one.types))].filter((type) => new RegExp(`\\b${type}\\b`).test(named));
  const path = join(SERVER, 'features', 'description', 'answers.made.ts');
  writeFileSync(
    path,
    `import type { ${types.sort().join(', ')} } from '@salt-circle/contracts';\nexport interface Answers {\n${answers.map(([id, type]) => `  '${id}': ${type};`).join('\n')}\n}\n`,
  );
  try {
    const { definitions, properties } = createGenerator({
      ...{ path, tsconfig: at('apps/server/tsconfig.json'), type: 'Answers' },
      ...{ expose: 'export', topRef: false, skipTypeCheck: true, sortProps: true },
    }).createSchema('Answers');
    return `${JSON.stringify({ operations: properties, schemas: definitions }, null, 1)}\n`;
  } finally {
    rmSync(path);
  }
}

if (process.argv[1] === import.meta.filename) writeFileSync(at('docs/schemas/api-answers.json'), apiAnswers());
