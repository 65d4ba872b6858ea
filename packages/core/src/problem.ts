/** Something that is wrong with what a person entered: data first, words later. */
export interface CoreProblem<Code extends string = string> {
  readonly code: Code;
  /** Where it is, as a path of property names and indexes, e.g. `['items', 2, 'title']`. */
  readonly path: ReadonlyArray<string | number>;
  /** What a sentence about it needs to name: bounds, the clashing value, the other date. */
  readonly facts: Readonly<Record<string, string | number>>;
}

export function problem<Code extends string>(
  code: Code,
  path: ReadonlyArray<string | number>,
  facts: Readonly<Record<string, string | number>> = {},
): CoreProblem<Code> {
  return { code, path, facts };
}

/** Thrown for calls that a correct program never makes (duplicate ids, negative capacity). */
export class MisuseError extends Error {
  readonly code: string;
  readonly fields: Readonly<Record<string, unknown>>;

  constructor(code: string, message: string, fields: Readonly<Record<string, unknown>> = {}) {
    super(message);
    this.name = 'MisuseError';
    this.code = code;
    this.fields = fields;
  }
}
