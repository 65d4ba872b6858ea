import { problem, type CoreProblem } from '../problem.js';

export type FileProblemCode =
  | 'not-an-object'
  | 'wrong-format'
  | 'wrong-version'
  | 'field-missing'
  | 'field-type'
  | 'kind-unknown'
  | 'too-many'
  | 'rubric-missing'
  | 'column-missing'
  | 'points-not-a-number'
  | 'row-without-criterion'
  | 'file-empty';

export type FileProblem = CoreProblem<FileProblemCode>;
export type Path = ReadonlyArray<string | number>;

/**
 * Reads parts of a value of unknown shape and takes note of everything that is not as it should be, so that a
 * file with five faults says five things at once.
 */
export class StructureReader {
  readonly problems: FileProblem[] = [];

  object(value: unknown, path: Path): Readonly<Record<string, unknown>> {
    if (typeof value === 'object' && value !== null && !Array.isArray(value)) return value as Record<string, unknown>;
    this.problems.push(problem('not-an-object', path));
    return {};
  }

  list(from: Readonly<Record<string, unknown>>, name: string, path: Path, max: number): readonly unknown[] {
    const value = from[name];
    if (value === undefined) return [];
    if (!Array.isArray(value)) {
      this.#wrong(name, path, 'list');
      return [];
    }
    if (value.length > max) this.problems.push(problem('too-many', [...path, name], { max, count: value.length }));
    return value.slice(0, max) as unknown[];
  }

  /** @param fallback undefined where the field must be there */
  text(from: Readonly<Record<string, unknown>>, name: string, path: Path, fallback?: string): string {
    const value = from[name];
    if (typeof value === 'string') return value;
    return this.#missing(value, name, path, fallback, 'text') ?? '';
  }

  flag(from: Readonly<Record<string, unknown>>, name: string, path: Path, fallback: boolean): boolean {
    const value = from[name];
    if (typeof value === 'boolean') return value;
    return this.#missing(value, name, path, fallback, 'flag') ?? fallback;
  }

  number(from: Readonly<Record<string, unknown>>, name: string, path: Path, fallback?: number): number {
    const value = from[name];
    if (typeof value === 'number' && Number.isFinite(value)) return value;
    return this.#missing(value, name, path, fallback, 'number') ?? 0;
  }

  numberOrNull(from: Readonly<Record<string, unknown>>, name: string, path: Path): number | null {
    const value = from[name];
    if (value === undefined || value === null) return null;
    return this.number(from, name, path);
  }

  oneOf<T extends string>(
    from: Readonly<Record<string, unknown>>,
    name: string,
    path: Path,
    values: readonly T[],
    fallback: T,
  ): T {
    const value = from[name];
    if (value === undefined) return fallback;
    if (values.includes(value as T)) return value as T;
    this.problems.push(
      problem('kind-unknown', [...path, name], { value: JSON.stringify(value), known: values.join(', ') }),
    );
    return fallback;
  }

  #missing<T>(value: unknown, name: string, path: Path, fallback: T | undefined, type: string): T | undefined {
    if (value === undefined && fallback === undefined)
      this.problems.push(problem('field-missing', [...path, name], { name }));
    else if (value !== undefined && value !== null) this.#wrong(name, path, type);
    return fallback;
  }

  #wrong(name: string, path: Path, type: string): void {
    this.problems.push(problem('field-type', [...path, name], { name, type }));
  }
}
