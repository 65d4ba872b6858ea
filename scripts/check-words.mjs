import { readdirSync, readFileSync } from 'node:fs';
import ts from 'typescript';
import { at } from './run.mjs';

/**
 * Holds that what people read stands in the `words` of its side, and is said from there whole:
 * - pages have no words of their own, and problems and letters no sentences;
 * - nothing that is said is put together with other words;
 * - nothing is said when a file is loaded, since what is spoken is known later;
 * - nothing is said where code reads it: styles, keys, addresses stay as they are in every language;
 * - each sentence is said somewhere.
 */
const SIDES = ['packages/core/src', 'packages/contracts/src', 'apps/server/src', 'apps/web/src'];
/** Attributes that hold words. */
const SPOKEN =
  /^(label|title|hint|placeholder|words|word|description|heading|question|summary|remark|aria-label|aria-description|aria-valuetext)$/;
/** Attributes that code reads. */
const READ_BY_CODE = /^(style|className|key|id|name|type|role|to|href|src|htmlFor|data-[\w-]+)$/;
/** Properties that hold sentences, of problems, of letters and of what a request is refused with. */
const TOLD = /^(sentence|whatToDo|subject|message)$/;
/** What the demo and the tests say is made up there; what the terminal and the log say is for whoever runs the server. */
const ELSEWHERE =
  /\.(test|spec)\.tsx?$|\/(words|testing|demo|config|log|description|database)\/|\/commands?\.ts$|-command\.ts$|add-instructor/;

const problems = [];
const said = new Map();
for (const side of SIDES) {
  for (const file of readdirSync(at(side), { recursive: true })) if (/\.tsx?$/.test(file)) look(`${side}/${file}`);
}
for (const [words, users] of said) unsaid(words, users);
for (const problem of problems) process.stderr.write(`${problem}\n`);
process.stdout.write(`words: ${said.size} areas, ${problems.length} problems\n`);
process.exitCode = problems.length === 0 ? 0 : 1;

function look(file) {
  const text = readFileSync(at(file), 'utf8');
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  for (const [, path] of text.matchAll(/from '((?:\.\.?\/)+(?:[\w-]+\/)*words\/[\w-]+)\.js'/g)) {
    const words = new URL(`${path}.ts`, `file:///${file}`).pathname.slice(1);
    if (/= sentences\(/.test(readFileSync(at(words), 'utf8'))) said.set(words, [...(said.get(words) ?? []), text]);
  }
  if (!ELSEWHERE.test(file)) visit(source, source);
}

function visit(node, source) {
  const tell = (what) => {
    const { line } = source.getLineAndCharacterOfPosition(node.getStart());
    problems.push(`${source.fileName}:${line + 1} ${what}: ${node.getText().replace(/\s+/g, ' ').slice(0, 100)}`);
  };
  if (ts.isJsxText(node) && hasWords(node.text)) tell('words of a page; put them into its words');
  if (isText(node)) {
    if (isSpoken(node)) tell('words of a page; put them into its words');
    if (isTold(node)) tell('a sentence; put it into words');
  }
  if (ts.isTemplateExpression(node) && node.templateSpans.some(({ expression }) => isSaid(expression))) {
    // One sentence after another is put together by nothing but a blank.
    const between = [node.head.text, ...node.templateSpans.map(({ literal }) => literal.text)];
    if (between.some((part) => part.trim() !== '')) tell('put together with what is said; make it one sentence');
  }
  if (ts.isBinaryExpression(node) && node.operatorToken.kind === ts.SyntaxKind.PlusToken) {
    if (isSaid(node.left) || isSaid(node.right)) tell('put together with what is said; make it one sentence');
  }
  if (isSaid(node) && isAtLoad(node)) tell('said when the file is loaded; say it when it is asked for');
  if (isSaid(node) && isReadByCode(node)) tell('said where code reads it; leave it in the code');
  ts.forEachChild(node, (child) => visit(child, source));
}

function hasWords(text) {
  return /\p{L}{2}/u.test(text);
}

/** A literal with words; not a class of style, an address or a name in code. */
function isText(node) {
  const text = ts.isStringLiteralLike(node) ? node.text : ts.isTemplateExpression(node) ? textOf(node) : '';
  return hasWords(text) && !/^(\w+[-:/.][\w-]*|https?:.*)$/.test(text);
}

function textOf(template) {
  return [template.head.text, ...template.templateSpans.map(({ literal }) => literal.text)].join('');
}

function isSaid(node) {
  return ts.isCallExpression(node) && ts.isIdentifier(node.expression) && node.expression.text === 'say';
}

/** The node that a value is given to, through conditions and brackets. */
function receiver(node) {
  let [child, parent] = [node, node.parent];
  while (
    ts.isParenthesizedExpression(parent) ||
    (ts.isConditionalExpression(parent) && parent.condition !== child) ||
    (ts.isBinaryExpression(parent) && /^(&&|\|\||\?\?)$/.test(parent.operatorToken.getText()) && parent.right === child)
  ) {
    [child, parent] = [parent, parent.parent];
  }
  return parent;
}

function isSpoken(node) {
  const to = receiver(node);
  if (ts.isJsxAttribute(to)) return SPOKEN.test(to.name.getText());
  if (!ts.isJsxExpression(to)) return false;
  return ts.isJsxAttribute(to.parent) ? SPOKEN.test(to.parent.name.getText()) : true;
}

function isTold(node) {
  const to = receiver(node);
  return ts.isPropertyAssignment(to) && TOLD.test(to.name.getText()) && / /.test(node.getText());
}

function isAtLoad(node) {
  for (let parent = node.parent; parent !== undefined; parent = parent.parent) {
    if (ts.isFunctionLike(parent)) return false;
  }
  return true;
}

/** Whether the nearest attribute around is one that code reads; what a handler does inside of one is another matter. */
function isReadByCode(node) {
  for (let parent = node.parent; parent !== undefined && !ts.isFunctionLike(parent); parent = parent.parent) {
    if (ts.isJsxAttribute(parent)) return READ_BY_CODE.test(parent.name.getText());
    if (ts.isJsxElement(parent)) return false;
  }
  return false;
}

function unsaid(words, users) {
  const own = readFileSync(at(words), 'utf8');
  const used = [...users, ...(/\bsay\('/.test(own) ? [own] : [])].join('\n');
  // Keys that are put together cannot be looked for one by one.
  const put = [...used.matchAll(/say\(`([^`]*)`/g)].map(
    ([, key]) => new RegExp(`^${key.replace(/\$\{[^}]*\}/g, '\\w+')}$`),
  );
  const source = ts.createSourceFile(words, own, ts.ScriptTarget.Latest, true);
  const keys = (node) => {
    if (ts.isPropertyAssignment(node) && node.parent.parent.expression?.getText() === 'sentences') {
      const key = node.name.getText();
      if (!used.includes(`'${key}'`) && !put.some((one) => one.test(key)))
        problems.push(`${words} nothing says “${key}”`);
    } else ts.forEachChild(node, keys);
  };
  keys(source);
}
