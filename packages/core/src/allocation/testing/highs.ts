import type { AllocationProblem, Pair } from '../problem.js';
import { isAllowed } from './problems.js';

export interface Highs {
  solve(
    model: string,
    options?: Readonly<Record<string, string | number | boolean>>,
  ): { readonly Status: string; readonly ObjectiveValue: number };
}

/**
 * The same question as linear programs for a general-purpose solver (HiGHS; Huangfu and Hall, Mathematical Programming
 * Computation 10, 2018): one variable for each possible pair, one for each further review of a draft, whose costs
 * 1, 3, 5, … add up to squares.
 */
export class Reference {
  readonly #free: readonly Pair[];
  readonly #constraints: string[] = [];
  readonly #steps: Array<{ readonly name: string; readonly cost: number }> = [];
  readonly #placed: string;

  constructor(
    private readonly highs: Highs,
    private readonly problem: AllocationProblem,
  ) {
    const { reviewers, drafts, fixed } = problem;
    const isFixed = new Set(fixed.map(({ reviewerId, draftId }) => `${reviewerId} ${draftId}`));
    this.#free = reviewers
      .flatMap(({ id: reviewerId }) => drafts.map(({ id: draftId }) => ({ reviewerId, draftId })))
      .filter((pair) => !isFixed.has(`${pair.reviewerId} ${pair.draftId}`) && isAllowed(problem, pair));
    for (const { id, capacity } of reviewers) {
      const names = this.#free.filter(({ reviewerId }) => reviewerId === id).map(variable);
      const left = Math.max(0, capacity - fixed.filter(({ reviewerId }) => reviewerId === id).length);
      if (names.length > 0) this.#constraints.push(`${names.join(' + ')} <= ${left}`);
    }
    for (const { id } of drafts) {
      const names = this.#free.filter(({ draftId }) => draftId === id).map(variable);
      const already = fixed.filter(({ draftId }) => draftId === id).length;
      if (names.length === 0) continue;
      const room = Math.max(0, Math.min(names.length, (problem.maxPerDraft ?? Infinity) - already));
      const steps = Array.from({ length: names.length }, (_, at) => `${id}_step${at}`);
      steps.forEach((name, at) => this.#steps.push({ name, cost: 2 * (already + at) + 1 }));
      this.#constraints.push(`${names.join(' + ')} <= ${room}`);
      this.#constraints.push(`${names.join(' + ')} - ${steps.join(' - ')} = 0`);
    }
    this.#placed = this.#free.map(variable).join(' + ');
  }

  /** Least values of the four: not placed, squares, repeats, mutual pairs; the last only if wanted: it takes long. */
  solve(withMutual: boolean): [number, number, number, number | null] {
    const { problem } = this;
    const squaresOfFixed = problem.drafts.reduce(
      (sum, { id }) => sum + problem.fixed.filter(({ draftId }) => draftId === id).length ** 2,
      0,
    );
    const timesOf = new Map(problem.earlier.map((pair) => [variable(pair), pair.times]));
    const fixedRepeats = problem.fixed.reduce((sum, pair) => sum + (timesOf.get(variable(pair)) ?? 0), 0);
    if (this.#free.length === 0) {
      return [-problem.fixed.length, squaresOfFixed, fixedRepeats, withMutual ? this.#fixedMutual() : null];
    }
    const placed = Math.round(this.#run('Maximize', this.#placed, []));
    const squares = this.#steps.map(({ name, cost }) => `${cost} ${name}`).join(' + ');
    const allPlaced = `${this.#placed} = ${placed}`;
    const leastSquares = Math.round(this.#run('Minimize', squares, [allPlaced]));
    const repeats = this.#free.flatMap((pair) => {
      const times = timesOf.get(variable(pair));
      return times === undefined ? [] : [`${times} ${variable(pair)}`];
    });
    const balanced = [allPlaced, `${squares} = ${leastSquares}`];
    const fewest = repeats.length === 0 ? 0 : Math.round(this.#run('Minimize', repeats.join(' + '), balanced, true));
    const result = [-(problem.fixed.length + placed), squaresOfFixed + leastSquares, fixedRepeats + fewest] as const;
    if (!withMutual) return [...result, null];
    const sameRepeats = repeats.length === 0 ? [] : [`${repeats.join(' + ')} = ${fewest}`];
    return [...result, this.#leastMutual([...balanced, ...sameRepeats])];
  }

  #reviewing(a: string, b: string): string[] {
    const own = this.problem.drafts.filter(({ authorIds }) => authorIds.includes(b)).map(({ id }) => id);
    return this.#free.filter(({ reviewerId, draftId }) => reviewerId === a && own.includes(draftId)).map(variable);
  }

  #fixedReviewing(a: string, b: string): boolean {
    const own = this.problem.drafts.filter(({ authorIds }) => authorIds.includes(b)).map(({ id }) => id);
    return this.problem.fixed.some(({ reviewerId, draftId }) => reviewerId === a && own.includes(draftId));
  }

  #fixedMutual(): number {
    const ids = this.problem.reviewers.map(({ id }) => id);
    return ids.reduce(
      (sum, a) => sum + ids.filter((b) => a < b && this.#fixedReviewing(a, b) && this.#fixedReviewing(b, a)).length,
      0,
    );
  }

  #leastMutual(before: readonly string[]): number {
    const ids = this.problem.reviewers.map(({ id }) => id);
    const marks: string[] = [];
    const constraints: string[] = [];
    let certain = 0;
    for (const a of ids) {
      for (const b of ids) {
        if (a >= b) continue;
        const mark = `mutual_${a}_${b}`;
        const there: Array<string | null> = this.#fixedReviewing(a, b) ? [null] : this.#reviewing(a, b);
        const back: Array<string | null> = this.#fixedReviewing(b, a) ? [null] : this.#reviewing(b, a);
        if (there.includes(null) && back.includes(null)) certain += 1;
        else if (there.length > 0 && back.length > 0) {
          marks.push(mark);
          for (const x of there) {
            for (const y of back) {
              const both = [x, y].filter((name) => name !== null);
              constraints.push(`${mark} - ${both.join(' - ')} >= ${1 - both.length}`);
            }
          }
        }
      }
    }
    if (marks.length === 0) return certain;
    return certain + Math.round(this.#run('Minimize', marks.join(' + '), [...before, ...constraints], true, marks));
  }

  #run(
    sense: 'Maximize' | 'Minimize',
    objective: string,
    further: readonly string[],
    whole = false,
    marks: readonly string[] = [],
  ): number {
    const names = this.#free.map(variable);
    const bounds = [...names, ...this.#steps.map(({ name }) => name), ...marks].map((name) => `0 <= ${name} <= 1`);
    const model = [
      sense,
      ` obj: ${folded(objective)}`,
      'Subject To',
      ...[...this.#constraints, ...further].map((line, at) => ` c${at}: ${folded(line)}`),
      'Bounds',
      ...bounds.map((line) => ` ${line}`),
      ...(whole ? ['General', ...names.map((name) => ` ${name}`)] : []),
      'End',
    ].join('\n');
    const { Status, ObjectiveValue } = this.highs.solve(model, { presolve: 'on' });
    if (Status !== 'Optimal') throw new Error(`the reference did not find the best: ${Status}`);
    return ObjectiveValue;
  }
}

function variable({ reviewerId, draftId }: Pair): string {
  return `x_${reviewerId}_${draftId}`;
}

/** Lines of this format have a greatest length. */
function folded(line: string): string {
  return line.replace(/(.{400}\S*) /g, '$1\n  ');
}
