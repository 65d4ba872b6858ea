import { wordsBy } from '@salt-circle/core';
import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFRef,
  PDFStream,
  PDFStreamWriter,
  PDFString,
  type PDFObject,
  type PDFPage,
} from '@cantoo/pdf-lib';
import { onPage } from './annotations.js';
import { redrawn } from './drawing.js';
import { drawables, layers, PAGE, resources } from './page-shapes.js';
import { Copying, either, entriesOf, listOf, number, numbers } from './shapes.js';
import { MOST_WORDS, plainBytes, streamFrom } from './streams.js';
import { say } from '../../../../words/files.js';

const key = (name: string) => PDFName.of(name);

export interface Rebuilt {
  readonly bytes: Uint8Array;
  readonly pages: number;
  /** Addresses of links that are in the copy, and names of bookmarks. */
  readonly addresses: readonly string[];
  readonly bookmarks: readonly string[];
  /** What is not in the copy, for the author. */
  readonly remarks: readonly string[];
}

/**
 * A new PDF made of the pages of another: their drawings, written anew from operators that are known, and of every object
 * that they need the keys that are known. Fields and remarks are drawn into the page; links within the document and to the
 * web are kept, and bookmarks.
 *
 * @throws Error for what cannot be read as a whole: half a page is no copy
 */
export async function rebuilt(source: PDFDocument, tell: (share: number) => void): Promise<Rebuilt> {
  return new Rebuilding(source, await PDFDocument.create({ updateMetadata: false })).done(tell);
}

class Rebuilding {
  readonly #copy: Copying;
  /** New pages by the old ones, for what leads to them. */
  readonly #pages = new Map<PDFRef, PDFRef>();
  readonly #addresses = new Set<string>();
  readonly #bookmarks: string[] = [];
  readonly #remarks = new Set<string>();
  #destinations: ReadonlyMap<string, PDFObject> | null = null;

  constructor(
    private readonly source: PDFDocument,
    private readonly target: PDFDocument,
  ) {
    this.#copy = new Copying(source.context, target.context);
  }

  async done(tell: (share: number) => void): Promise<Rebuilt> {
    const { context } = this.target;
    const pages = this.source.getPages();
    const tree = context.nextRef();
    for (const { ref } of pages) this.#pages.set(ref, context.nextRef());
    for (const [index, page] of pages.entries()) {
      const ref = this.#pages.get(page.ref) as PDFRef;
      context.assign(ref, this.#page(page, tree));
      tell((index + 1) / pages.length);
    }
    const kids = this.#copy.list(pages.map(({ ref }) => this.#pages.get(ref) as PDFRef));
    context.assign(tree, this.#copy.dict({ Type: key('Pages'), Kids: kids, Count: PDFNumber.of(pages.length) }));
    const catalog = this.#copy.dict({
      Type: key('Catalog'),
      Pages: tree,
      Lang: this.#language(),
      OCProperties: this.#copy.take(this.source.catalog.get(key('OCProperties')), layers),
      Outlines: this.#outlines(),
    });
    this.#copy.finish();
    const root = context.nextRef();
    context.assign(root, catalog);
    context.trailerInfo.Root = root;
    delete context.trailerInfo.Info;
    delete context.trailerInfo.ID;
    dropUnreachable(this.target, root);
    const bytes = await PDFStreamWriter.forContext(context, Infinity).serializeToBuffer();
    return {
      bytes,
      pages: pages.length,
      addresses: [...this.#addresses],
      bookmarks: this.#bookmarks,
      remarks: [...this.#remarks],
    };
  }

  #page({ node }: PDFPage, tree: PDFRef): PDFDict {
    const flat = this.#copy.from.obj({});
    for (const name of Object.keys(PAGE)) {
      const value = node.getInheritableAttribute(key(name));
      if (value !== undefined) flat.set(key(name), value);
    }
    const made = entriesOf(flat, this.#copy, PAGE);
    const annotations = node.lookup(key('Annots'));
    const found = onPage(annotations instanceof PDFArray ? annotations : undefined, this.#copy, (one) =>
      this.#link(one),
    );
    for (const kind of found.undrawn) this.#remarks.add(UNDRAWN[kind] ?? otherUndrawn());
    const drawing = redrawn(this.#contents(node.lookup(key('Contents'))), this.#copy);
    const whole = Buffer.concat([Buffer.from('q\n'), drawing, Buffer.from(`Q\n${found.drawing}`, 'latin1')]);
    const contents = this.#copy.to.nextRef();
    this.#copy.to.assign(contents, streamFrom(this.#copy, this.#copy.dict({}), whole));
    if (found.drawn.size > 0) this.#addDrawn(made, node, found.drawn);
    made.set(key('Type'), key('Page'));
    made.set(key('Parent'), tree);
    made.set(key('Contents'), contents);
    if (!made.has(key('Resources'))) made.set(key('Resources'), this.#copy.dict({}));
    if (found.links.length > 0) made.set(key('Annots'), this.#copy.list(found.links));
    return made;
  }

  /** Resources may be shared between pages: what only this page draws goes into a dictionary of its own. */
  #addDrawn(made: PDFDict, node: PDFPage['node'], drawn: ReadonlyMap<string, PDFObject>): void {
    const given = this.#copy.found(node.getInheritableAttribute(key('Resources')));
    const shared = given instanceof PDFDict ? resources(given, this.#copy) : undefined;
    const own = shared instanceof PDFDict ? shared : this.#copy.dict({});
    const old = given instanceof PDFDict ? given.lookup(key('XObject')) : undefined;
    const copied = old === undefined ? undefined : drawables(old, this.#copy);
    const all = copied instanceof PDFDict ? copied : this.#copy.dict({});
    for (const [name, form] of drawn) all.set(key(name), form);
    own.set(key('XObject'), all);
    made.set(key('Resources'), own);
  }

  #contents(contents: PDFObject | undefined): Uint8Array {
    const streams = contents instanceof PDFArray ? contents.asArray().map((_, at) => contents.lookup(at)) : [contents];
    const parts: Uint8Array[] = [];
    let room = MOST_WORDS;
    for (const one of streams) {
      if (!(one instanceof PDFStream)) continue;
      const bytes = plainBytes(one, room);
      room -= bytes.length;
      parts.push(bytes, Buffer.from('\n'));
    }
    return Buffer.concat(parts);
  }

  #language(): PDFObject | undefined {
    const lang = this.source.catalog.lookup(key('Lang'));
    const told = lang instanceof PDFString || lang instanceof PDFHexString ? lang.decodeText() : '';
    return /^[a-z]{2,3}(-[A-Z]{2})?$/.test(told) ? PDFString.of(told) : undefined;
  }

  /** Links to the web and within the document. To mailboxes they would tell whose; whatever else they do stays behind. */
  #link(annotation: PDFDict): PDFDict | undefined {
    const base = {
      Type: key('Annot'),
      Subtype: key('Link'),
      Rect: this.#copy.take(annotation.get(key('Rect')), numbers),
      QuadPoints: this.#copy.take(annotation.get(key('QuadPoints')), numbers),
      Border: this.#copy.take(annotation.get(key('Border')), borders),
      C: this.#copy.take(annotation.get(key('C')), numbers),
    };
    const action = annotation.lookup(key('A'));
    const uri = action instanceof PDFDict ? action.lookup(key('URI')) : undefined;
    if (uri instanceof PDFString || uri instanceof PDFHexString) {
      const address = webAddress(uri.decodeText());
      if (address === null) return undefined;
      this.#addresses.add(address);
      return this.#copy.dict({ ...base, A: this.#copy.dict({ S: key('URI'), URI: PDFString.of(address) }) });
    }
    const to = action instanceof PDFDict ? action.get(key('D')) : annotation.get(key('Dest'));
    const dest = this.#destination(to);
    return dest === undefined ? undefined : this.#copy.dict({ ...base, Dest: dest });
  }

  /** A page and how it is shown; places that have a name are named no more. */
  #destination(given: PDFObject | undefined): PDFArray | undefined {
    const found = this.#copy.found(given);
    const name =
      found instanceof PDFName || found instanceof PDFString || found instanceof PDFHexString
        ? found.decodeText()
        : null;
    const named = name === null ? found : this.#copy.found(this.#named().get(name));
    const list = named instanceof PDFDict ? named.lookup(key('D')) : named;
    if (!(list instanceof PDFArray)) return undefined;
    const page = list.get(0);
    const ref = page instanceof PDFRef ? this.#pages.get(page) : undefined;
    const how = list.lookup(1);
    if (ref === undefined) return undefined;
    const kind = how instanceof PDFName && HOW.has(how.decodeText()) ? how : key('Fit');
    const rest = list
      .asArray()
      .slice(2)
      .map((one) => (one instanceof PDFNumber ? one : PDFNumber.of(0)));
    return this.#copy.list([ref, kind, ...(kind === how ? rest : [])]);
  }

  #named(): ReadonlyMap<string, PDFObject> {
    if (this.#destinations !== null) return this.#destinations;
    const found = new Map<string, PDFObject>();
    const old = this.source.catalog.lookup(key('Dests'));
    if (old instanceof PDFDict) for (const [name, value] of old.entries()) found.set(name.decodeText(), value);
    const names = this.source.catalog.lookup(key('Names'));
    const open = [names instanceof PDFDict ? names.lookup(key('Dests')) : undefined];
    const seen = new Set<PDFObject>();
    for (let node = open.pop(); node instanceof PDFDict; node = open.pop()) {
      if (seen.has(node)) continue;
      seen.add(node);
      const pairs = node.lookup(key('Names'));
      for (let at = 0; pairs instanceof PDFArray && at + 1 < pairs.size(); at += 2) {
        const name = pairs.lookup(at);
        const value = pairs.get(at + 1);
        if ((name instanceof PDFString || name instanceof PDFHexString) && value !== undefined)
          found.set(name.decodeText(), value);
      }
      const kids = node.lookup(key('Kids'));
      if (kids instanceof PDFArray) for (let at = 0; at < kids.size(); at += 1) open.push(kids.lookup(at));
    }
    this.#destinations = found;
    return found;
  }

  /** Bookmarks in their order, with their depth. */
  #outlines(): PDFRef | undefined {
    const outlines = this.source.catalog.lookup(key('Outlines'));
    if (!(outlines instanceof PDFDict)) return undefined;
    const root = this.#copy.to.nextRef();
    const count = this.#level(outlines, root, new Set());
    const made =
      count === null ? undefined : this.#copy.dict({ Type: key('Outlines'), First: count.first, Last: count.last });
    if (made === undefined) return undefined;
    this.#copy.to.assign(root, made);
    return root;
  }

  #level(parent: PDFDict, parentRef: PDFRef, seen: Set<PDFDict>): { first: PDFRef; last: PDFRef } | null {
    const items: Array<{ readonly ref: PDFRef; readonly made: PDFDict }> = [];
    for (
      let item = parent.lookup(key('First'));
      item instanceof PDFDict && !seen.has(item);
      item = item.lookup(key('Next'))
    ) {
      seen.add(item);
      const title = item.lookup(key('Title'));
      const words = title instanceof PDFString || title instanceof PDFHexString ? title.decodeText() : '';
      const action = item.lookup(key('A'));
      const ref = this.#copy.to.nextRef();
      const inner = seen.size < MOST_BOOKMARKS ? this.#level(item, ref, seen) : null;
      this.#bookmarks.push(words);
      items.push({
        ref,
        made: this.#copy.dict({
          Title: PDFHexString.fromText(words),
          Parent: parentRef,
          Dest: this.#destination(action instanceof PDFDict ? action.get(key('D')) : item.get(key('Dest'))),
          First: inner?.first,
          Last: inner?.last,
        }),
      });
    }
    for (const [index, { ref, made }] of items.entries()) {
      const [before, after] = [items[index - 1], items[index + 1]];
      if (before !== undefined) made.set(key('Prev'), before.ref);
      if (after !== undefined) made.set(key('Next'), after.ref);
      this.#copy.to.assign(ref, made);
    }
    const [first, last] = [items[0], items.at(-1)];
    return first === undefined || last === undefined ? null : { first: first.ref, last: last.ref };
  }
}

const borders = listOf(either(number, numbers));

const MOST_BOOKMARKS = 5_000;
const HOW = new Set(['XYZ', 'Fit', 'FitH', 'FitV', 'FitR', 'FitB', 'FitBH', 'FitBV']);

const UNDRAWN: Readonly<Record<string, string>> = wordsBy(say, {
  Widget: 'formFieldHasValueThat',
  Text: 'remarksThatOpenWhenThey',
});
const otherUndrawn = () => say('remarkThatHasNoAppearance');

/** An address of the web, without a name and password before the host; null for any other. */
export function webAddress(given: string): string | null {
  try {
    const url = new URL(given);
    if (url.protocol !== 'http:' && url.protocol !== 'https:') return null;
    [url.username, url.password] = ['', ''];
    return url.href;
  } catch {
    return null;
  }
}

/** What was begun and led nowhere, and what the package puts into each new document. */
function dropUnreachable({ context }: PDFDocument, root: PDFRef): void {
  const seen = new Set<PDFRef>();
  const open: PDFObject[] = [root];
  for (let object = open.pop(); object !== undefined; object = open.pop()) {
    if (object instanceof PDFRef) {
      const target = seen.has(object) ? undefined : context.lookup(object);
      seen.add(object);
      if (target !== undefined) open.push(target);
    } else if (object instanceof PDFArray) open.push(...object.asArray());
    else if (object instanceof PDFDict) open.push(...object.values());
    else if (object instanceof PDFStream) open.push(object.dict);
  }
  for (const [ref] of context.enumerateIndirectObjects()) if (!seen.has(ref)) context.delete(ref);
}
