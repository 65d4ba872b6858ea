import {
  PDFArray,
  PDFBool,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFRef,
  PDFString,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';

/**
 * Says what of an object may be in a copy: gives the object made anew from that, or nothing. Whatever a shape does not name
 * stays behind.
 */
export type Shape = (object: PDFObject, copy: Copying) => PDFObject | undefined;

/** Takes objects of one document over into another, each shape of an object once, however long their chains are. */
export class Copying {
  readonly #made = new Map<Shape, Map<PDFRef, PDFRef>>();
  readonly #open: Array<() => void> = [];
  readonly #names = new Map<string, string>();

  constructor(
    readonly from: PDFContext,
    readonly to: PDFContext,
  ) {}

  /** What the shape lets through; an object that is referred to is made later, by `finish`. */
  take(object: PDFObject | undefined, shape: Shape): PDFObject | undefined {
    if (object === undefined) return undefined;
    if (!(object instanceof PDFRef)) return shape(object, this);
    const target = this.from.lookup(object);
    if (target === undefined) return undefined;
    const made = this.#made.get(shape) ?? new Map<PDFRef, PDFRef>();
    this.#made.set(shape, made);
    const known = made.get(object);
    if (known !== undefined) return known;
    const ref = this.to.nextRef();
    made.set(object, ref);
    this.#open.push(() => {
      const result = shape(target, this);
      if (result !== undefined) this.to.assign(ref, result);
    });
    return ref;
  }

  finish(): void {
    for (let work = this.#open.pop(); work !== undefined; work = this.#open.pop()) work();
  }

  /** Resources are called by names that may be anybody's: the same one gets the same new one throughout the document. */
  renamed(name: string): string {
    const known = this.#names.get(name);
    if (known !== undefined) return known;
    const made = `R${this.#names.size}`;
    this.#names.set(name, made);
    return made;
  }

  /** The object itself, where it is referred to. */
  found(object: PDFObject | undefined): PDFObject | undefined {
    return object instanceof PDFRef ? this.from.lookup(object) : object;
  }

  dict(entries: Readonly<Record<string, PDFObject | undefined>>): PDFDict {
    const made = PDFDict.withContext(this.to);
    for (const [key, value] of Object.entries(entries)) if (value !== undefined) made.set(PDFName.of(key), value);
    return made;
  }

  list(values: readonly PDFObject[]): PDFArray {
    const made = PDFArray.withContext(this.to);
    for (const value of values) made.push(value);
    return made;
  }
}

export const number: Shape = (object) => (object instanceof PDFNumber ? object : undefined);
export const bool: Shape = (object) => (object instanceof PDFBool ? object : undefined);

/** One of these names. */
export function oneOf(...names: readonly string[]): Shape {
  return (object) => (object instanceof PDFName && names.includes(object.decodeText()) ? object : undefined);
}

/** Bytes that mean colours or numbers, not words. */
export const bytes: Shape = (object) =>
  object instanceof PDFString || object instanceof PDFHexString
    ? PDFHexString.of(Buffer.from(object.asBytes()).toString('hex'))
    : undefined;

/** What `shape` lets through of each entry; an entry that is not let through ends the list. */
export function listOf(shape: Shape): Shape {
  return (object, copy) => {
    if (!(object instanceof PDFArray)) return undefined;
    const made = object.asArray().map((one) => copy.take(one, shape));
    return copy.list(made.filter((one) => one !== undefined));
  };
}

export const numbers = listOf(number);

/** Entries by their keys; the values may be chosen by looking at the whole. */
export function dictOf(keys: Readonly<Record<string, Shape>>): Shape {
  return (object, copy) => (object instanceof PDFDict ? entriesOf(object, copy, keys) : undefined);
}

export function entriesOf(dict: PDFDict, copy: Copying, keys: Readonly<Record<string, Shape>>): PDFDict {
  return copy.dict(
    Object.fromEntries(Object.entries(keys).map(([key, shape]) => [key, copy.take(dict.get(PDFName.of(key)), shape)])),
  );
}

/** A dictionary whose keys are names of resources. */
export function resourcesOf(shape: Shape): Shape {
  return (object, copy) => {
    if (!(object instanceof PDFDict)) return undefined;
    return copy.dict(
      Object.fromEntries(
        object.entries().map(([name, value]) => [copy.renamed(name.decodeText()), copy.take(value, shape)]),
      ),
    );
  };
}

/** The first of the shapes that lets something through. */
export function either(...shapes: readonly Shape[]): Shape {
  return (object, copy) => {
    for (const shape of shapes) {
      const made = shape(object, copy);
      if (made !== undefined) return made;
    }
    return undefined;
  };
}

/** Shapes that contain themselves are named before they are there. */
export function later(shape: () => Shape): Shape {
  return (object, copy) => shape()(object, copy);
}
