import { StringDecoder } from 'node:string_decoder';
import { Parser, type Handler } from 'htmlparser2';
import { Refused } from './refused.js';
import { say } from '../../words/bytes.js';

/** Word processors nest some dozens deep. */
const DEEPEST = 400;
/** Attributes and elements in one document of a thousand pages are a tenth of it. */
const CHUNK = 1 << 16;

/** Reads XML from its beginning to its end, once, and stops where it nests deeper than any document. @throws Refused */
export function scanXml(bytes: Buffer, handler: Partial<Handler>): void {
  let depth = 0;
  const parser = new Parser(
    {
      ...handler,
      onopentag: (name, attributes, implied) => {
        depth += 1;
        if (depth > DEEPEST) {
          throw new Refused(say('thisDocumentIsNestedToo'), say('handItInAsPdf'));
        }
        handler.onopentag?.(name, attributes, implied);
      },
      onclosetag: (name, implied) => {
        depth -= 1;
        handler.onclosetag?.(name, implied);
      },
    },
    { xmlMode: true, decodeEntities: true },
  );
  const decoder = new StringDecoder('utf8');
  for (let from = 0; from < bytes.length; from += CHUNK)
    parser.write(decoder.write(bytes.subarray(from, from + CHUNK)));
  parser.end(decoder.end());
}

/** @throws Refused for what nests deeper than any document */
export function assertShallow(bytes: Buffer): void {
  scanXml(bytes, {});
}

/** What stands in elements and attributes, by names of which each is asked with its prefix. Linear in the size. */
export function valuesIn(
  bytes: Buffer,
  { elements = [], attribute }: { readonly elements?: readonly string[]; readonly attribute?: RegExp },
): string[] {
  const wanted = new Set(elements);
  const values: string[] = [];
  let open: string | null = null;
  let text = '';
  scanXml(bytes, {
    onopentag: (name, attributes) => {
      if (attribute !== undefined) {
        for (const [key, value] of Object.entries(attributes)) if (attribute.test(key)) values.push(value);
      }
      if (wanted.has(name)) [open, text] = [name, ''];
    },
    ontext: (some) => {
      if (open !== null) text += some;
    },
    onclosetag: (name) => {
      if (name !== open) return;
      values.push(text);
      open = null;
    },
  });
  return values;
}
