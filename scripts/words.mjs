import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import ts from 'typescript';
import { at, must, TSC } from './run.mjs';

/**
 * Words for another language.
 *   npm run words -- out english.json          all sentences, by area and key, to be put into another language
 *   npm run words -- check german.json de      what is wrong with sentences of another language, and how many are missing
 */
const SIDES = [
  'packages/core/src/words',
  'packages/contracts/src/words',
  'apps/server/src/words',
  'apps/web/src/words',
];
const [what, file, language] = process.argv.slice(2);

if (what === 'out' && file !== undefined) {
  const english = sentences();
  writeFileSync(file, `${JSON.stringify(english, null, 2)}\n`);
  process.stdout.write(`${count(english)} sentences of ${Object.keys(english).length} areas are in ${file}\n`);
} else if (what === 'check' && file !== undefined && language !== undefined) {
  await must('node', [TSC, '-b', 'packages/core']);
  const { checkTranslation } = await import('../packages/core/dist/index.js');
  const english = sentences();
  const other = JSON.parse(readFileSync(file, 'utf8'));
  const wrong = Object.entries(other).flatMap(([area, own]) =>
    english[area] === undefined
      ? [`${area}: there is no such area`]
      : checkTranslation(english[area], own, language).map((line) => `${area}: ${line}`),
  );
  for (const line of wrong) process.stderr.write(`${line}\n`);
  process.stdout.write(`${count(other)} of ${count(english)} sentences, ${wrong.length} wrong\n`);
  process.exitCode = wrong.length === 0 ? 0 : 1;
} else {
  process.stderr.write('Say “out” and a file, or “check”, a file and its language (BCP 47, such as “de”).\n');
  process.exitCode = 2;
}

function count(areas) {
  return Object.values(areas).reduce((sum, own) => sum + Object.keys(own).length, 0);
}

/** As they stand in the sources: by area, in the order in which they stand there. */
function sentences() {
  const areas = {};
  for (const side of SIDES) {
    for (const name of readdirSync(at(side)).filter((one) => /^[\w-]+\.ts$/.test(one))) {
      const source = ts.createSourceFile(name, readFileSync(at(side, name), 'utf8'), ts.ScriptTarget.Latest, true);
      const visit = (node) => {
        if (
          ts.isCallExpression(node) &&
          node.expression.getText() === 'sentences' &&
          ts.isStringLiteral(node.arguments[0])
        ) {
          const own = node.arguments[1].properties.map(({ name: key, initializer }) => [key.text, initializer.text]);
          areas[node.arguments[0].text] = Object.fromEntries(own);
        } else ts.forEachChild(node, visit);
      };
      visit(source);
    }
  }
  return areas;
}
