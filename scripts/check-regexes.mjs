import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { check } from 'recheck';
import ts from 'typescript';
import { at, root } from './run.mjs';

/**
 * Looks at every regular expression of the code: none may take time by a power of the length of a text, because texts are of people, and
 * some are hostile. Where that cannot be, a comment above says why it does no harm: `// regex: over at most so many characters`.
 */
const SIDES = ['packages/core/src', 'packages/contracts/src', 'apps/server/src', 'apps/web/src', 'apps/web/worker'];
const LEFT_OUT = /\.(test|spec)\.|\/testing\/|\/demo\//;
/** What was found out of an expression stays so. */
const KNOWN = at('.cache', 'regexes.json');
const LONGEST_CHECK = 30_000;

const known = existsSync(KNOWN) ? JSON.parse(readFileSync(KNOWN, 'utf8')) : {};
const files = execFileSync('git', ['ls-files', '-co', '--exclude-standard', ...SIDES], { cwd: root, encoding: 'utf8' })
  .split('\n')
  .filter((file) => /\.tsx?$/.test(file) && !LEFT_OUT.test(file) && existsSync(at(file)));

/** @returns {Array<{ text: string, line: number, isExcused: boolean }>} */
function expressionsIn(file) {
  const words = readFileSync(at(file), 'utf8');
  const source = ts.createSourceFile(file, words, ts.ScriptTarget.Latest, true);
  const lines = words.split('\n');
  const found = [];
  const visit = (node) => {
    if (node.kind === ts.SyntaxKind.RegularExpressionLiteral) {
      const { line } = source.getLineAndCharacterOfPosition(node.getStart());
      // The comment stands above the statement, which may begin a line or two before.
      const isExcused = lines.slice(Math.max(0, line - 2), line + 1).some((one) => one.includes('// regex:'));
      found.push({ text: node.getText(), line: line + 1, isExcused });
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

let count = 0;
let problems = 0;
for (const file of files) {
  for (const { text, line, isExcused } of expressionsIn(file)) {
    count += 1;
    if (isExcused) continue;
    const end = text.lastIndexOf('/');
    known[text] ??= (await check(text.slice(1, end), text.slice(end + 1), { timeout: LONGEST_CHECK })).status;
    if (known[text] === 'safe') continue;
    problems += 1;
    process.stdout.write(`${file}:${line} may take long for some texts (${known[text]}): ${text}\n`);
  }
}
mkdirSync(at('.cache'), { recursive: true });
writeFileSync(KNOWN, JSON.stringify(known));
process.stdout.write(`regexes: ${count} expressions, ${problems} problems\n`);
if (count < 200) throw new Error('too few expressions were found: the check looks in the wrong place');
process.exitCode = problems === 0 ? 0 : 1;
