import { LIMITS } from '@salt-circle/contracts';
import { ProblemError } from './problem-error.js';
import { say } from '../../words/problems.js';

const [QUOTE, BACKSLASH, COLON, COMMA] = ['"', '\\', ':', ','].map((sign) => sign.charCodeAt(0));
const [OPEN_OBJECT, CLOSE_OBJECT, OPEN_LIST, CLOSE_LIST] = ['{', '}', '[', ']'].map((sign) => sign.charCodeAt(0));

/**
 * What a body says, as JSON. Before it is parsed, and then compared with a request class, which takes much longer for each key and
 * object, its signs are counted: in one pass, without regard to what it is about.
 *
 * @throws ProblemError for what is no JSON, no object, or deeper, wider or longer than any request
 */
export function readBody(text: string): object {
  assertShape(text);
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    throw strange(say('cutOffOrNoJson'));
  }
  if (typeof body !== 'object' || body === null || Array.isArray(body)) throw strange(say('noObject'));
  return body;
}

function assertShape(text: string): void {
  /** How many fields each open object has so far; lists are among them. */
  const fields: number[] = [];
  let [objects, values] = [0, 0];
  for (let at = 0; at < text.length; at += 1) {
    switch (text.charCodeAt(at)) {
      case QUOTE:
        at = endOfString(text, at);
        break;
      case OPEN_OBJECT:
        objects += 1;
        fields.push(0);
        break;
      case OPEN_LIST:
        fields.push(0);
        break;
      case CLOSE_OBJECT:
      case CLOSE_LIST:
        fields.pop();
        break;
      case COLON:
        fields[fields.length - 1] = (fields.at(-1) ?? 0) + 1;
        if ((fields.at(-1) ?? 0) > LIMITS.keys) throw strange(say('objectWithMoreThanFields', { keys: LIMITS.keys }));
        break;
      case COMMA:
        values += 1;
        break;
    }
    if (fields.length > LIMITS.depth) throw strange(say('moreThanLevelsDeep', { depth: LIMITS.depth }));
    if (objects > LIMITS.objects || values > LIMITS.values) throw strange(say('moreThanAnyPageSends'));
  }
}

/** @returns where its closing quote stands, or the end of the text */
function endOfString(text: string, from: number): number {
  for (let at = from + 1; at < text.length; at += 1) {
    const sign = text.charCodeAt(at);
    if (sign === BACKSLASH) at += 1;
    else if (sign === QUOTE) return at;
  }
  return text.length;
}

function strange(sentence: string): ProblemError {
  return new ProblemError({
    code: 'not-json',
    sentence,
    whatToDo: say('loadPageAgainWhatYou'),
  });
}
