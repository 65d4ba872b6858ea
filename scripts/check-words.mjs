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
/** Attributes that code reads; all others hold words. */
const READ_BY_CODE = new RegExp(
  `^(${[
    'style|className|key|id|htmlFor|type|role|to|href|src|target|rel|relative|accept|autoComplete|inputMode|list|scope|step',
    'data-[\\w-]+|aria-(controls|current|describedby|details|expanded|hidden|labelledby|live|orientation|pressed|sort)',
    'fill|stroke|textAnchor|dominantBaseline|align|orientation|value|state|tone|look|html',
    'rung|part|about|address|field|kind|only|path|place|saveKey|storeKey|view|work|header',
  ].join('|')})$`,
);
/** Properties of what a page shows. */
const SHOWN = /^(words|word|label|title|hint|heading|remark|where)$/;
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
    const ofPage = source.fileName.startsWith('apps/web/');
    if (ofPage && (isShown(node) || isBesideSaid(node) || isLoose(node)))
      tell('words of a page; put them into its words');
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
  if (isSaidToCode(node)) tell('said where code reads it; leave it in the code');
  ts.forEachChild(node, (child) => visit(child, source));
}

function hasWords(text) {
  return /\p{L}{2}/u.test(text);
}

/** A literal with words; not a class of style, an address or a name in code. */
function isText(node) {
  const text = ts.isStringLiteralLike(node) ? node.text : ts.isTemplateExpression(node) ? textOf(node) : '';
  return hasWords(text) && !/^(\w+[-:/.][\w-]*|\S*\/\S*|(\d+px ?)+)$/.test(text);
}

/** Classes of style, selectors, addresses, endings of files. */
function looksLikeCode(text) {
  return /[-_/[\]#=<>(){}@$*]|[:.]\w/.test(text);
}

function textOf(template) {
  return [template.head.text, ...template.templateSpans.map(({ literal }) => literal.text)].join('');
}

function isSaid(node) {
  return (
    node !== undefined &&
    ts.isCallExpression(node) &&
    ts.isIdentifier(node.expression) &&
    node.expression.text === 'say'
  );
}

/** The node that a value is given to, through conditions and brackets. */
function receiver(node) {
  let [child, parent] = [node, node.parent];
  while (
    ts.isParenthesizedExpression(parent) ||
    ts.isAsExpression(parent) ||
    ts.isSatisfiesExpression(parent) ||
    (ts.isConditionalExpression(parent) && parent.condition !== child) ||
    (ts.isBinaryExpression(parent) && /^(&&|\|\||\?\?)$/.test(parent.operatorToken.getText()) && parent.right === child)
  ) {
    [child, parent] = [parent, parent.parent];
  }
  return parent;
}

/** Given to what a page shows: between tags, as an attribute or a property of words, or as what a choice is called. */
function isShown(node) {
  const to = receiver(node);
  if (ts.isJsxAttribute(to)) return !isReadByCode(to);
  if (ts.isJsxExpression(to)) return ts.isJsxAttribute(to.parent) ? !isReadByCode(to.parent) : true;
  if (ts.isPropertyAssignment(to)) return SHOWN.test(to.name.getText()) && !isForWords(to.parent);
  return ts.isArrayLiteralExpression(to) && to.elements.indexOf(node) === 1 && attributeAround(node) === 'options';
}

/**
 * Stands where others beside it are said: the other way of a condition, the same place of another row or entry of a table. A table of
 * strings holds words, unless it says which strings those are.
 */
function isBesideSaid(node) {
  const { parent } = node;
  if (ts.isConditionalExpression(parent) && (isSaid(parent.whenTrue) || isSaid(parent.whenFalse))) return true;
  const to = receiver(node);
  if (ts.isPropertyAssignment(to)) {
    const around = receiver(to.parent);
    if (ts.isVariableDeclaration(around))
      return /^(Readonly<)?Record<.*, string>>?$/s.test(around.type?.getText() ?? '') && !looksLikeCode(node.text);
    return others(around).some((one) => isSaid(property(one, to.name.getText())));
  }
  if (!ts.isArrayLiteralExpression(to)) return false;
  const place = to.elements.findIndex((one) => node.getStart() >= one.getStart() && node.getEnd() <= one.getEnd());
  const around = receiver(to);
  return others(ts.isPropertyAssignment(around) ? around.parent : around).some(
    (one) => ts.isArrayLiteralExpression(one) && isSaid(one.elements[place]),
  );
}

function others(table) {
  return valuesOf(table).map((one) => (ts.isAsExpression(one) ? one.expression : one));
}

function property(row, name) {
  return ts.isObjectLiteralExpression(row)
    ? row.properties.find((one) => one.name?.getText() === name)?.initializer
    : undefined;
}

function valuesOf(table) {
  if (ts.isArrayLiteralExpression(table)) return [...table.elements];
  return ts.isObjectLiteralExpression(table) ? table.properties.map((one) => one.initializer ?? one) : [];
}

/** More than one word, or words with marks between: no name in code looks so. What is thrown and what is looked for on a page are code. */
function isLoose(node) {
  const text = ts.isTemplateExpression(node) ? textOf(node) : node.text;
  if (!hasWords(text) || looksLikeCode(text)) return false;
  if (!(ts.isTemplateExpression(node) ? /\p{L}{2,}[ ,;]+\p{L}{2,}/u : /[ ,;.!?…’]/).test(text)) return false;
  for (let parent = node.parent; parent !== undefined; parent = parent.parent) {
    if (
      ts.isCallExpression(parent) &&
      /(closest|matches|querySelector(All)?|setAttribute)$/.test(parent.expression.getText())
    )
      return false;
    if (ts.isNewExpression(parent) && /Error$/.test(parent.expression.getText())) return false;
    if (ts.isJsxAttribute(parent)) return !isReadByCode(parent);
    if (ts.isImportDeclaration(parent) || ts.isTypeNode(parent) || isSaid(parent)) return false;
  }
  return true;
}

/** Given to `say` or `wordsBy`: keys of sentences, and what a select goes by. */
function isForWords(node) {
  return ts.isCallExpression(node.parent) && /^(say|wordsBy)$/.test(node.parent.expression.getText());
}

function attributeAround(node) {
  for (let { parent } = node; parent !== undefined; parent = parent.parent) {
    if (ts.isJsxAttribute(parent)) return parent.name.getText();
  }
  return null;
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

/** Whether code reads an attribute: of what is an element, and not a component, its name too. */
function isReadByCode(attribute) {
  const name = attribute.name.getText();
  return READ_BY_CODE.test(name) || (name === 'name' && /^[a-z]/.test(attribute.parent.parent.tagName.getText()));
}

/** Said inside of an attribute that code reads; what a handler does inside of one is another matter. */
function isSaidToCode(node) {
  if (!isSaid(node)) return false;
  for (let { parent } = node; parent !== undefined && !ts.isFunctionLike(parent); parent = parent.parent) {
    if (ts.isJsxAttribute(parent))
      return isReadByCode(parent) && !/^(about|header|value|html)$/.test(parent.name.getText());
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
