import { DenseCholesky } from './denseCholesky.js';
import { firstGuess } from './firstGuess.js';
import type { Component, Effects, MixedModel, Solution, Variances } from './mixedModel.js';

/** A component is held at this share of the spread of all scores where it wants to be less, and is 0 in the end. */
const FLOOR = 1e-9;

/** What is left is never less than this share of the spread: beside nothing at all, the equations lose their digits. */
const LEAST_RESIDUAL = 1e-6;

/** Nothing is left to gain: twice the likelihood that could be, as the parabola has it. */
const ENOUGH = 1e-12;

/**
 * The top is so near that one whole step leads to it: what is left is of the second order. In standard errors of the variances the step
 * is the root of this.
 */
const NEAR = 1e-5;

/** Far more than are ever needed: a handful is usual. */
const MOST_STEPS = 200;

/**
 * Variances by restricted maximum likelihood (Patterson and Thompson 1971): Newton's steps with average information (Gilmour, Thompson
 * and Cullis 1995), halved until the likelihood rises, within bounds that keep every variance at 0 or above.
 *
 * @param spread the variance of all scores about their items, more than 0
 */
export function estimateVariances(model: MixedModel, effects: Effects, spread: number): Solution {
  const components: Component[] = ['residual'];
  for (const one of ['draft', 'reviewer', 'review'] as const) if (effects[one]) components.push(one);
  const floor = FLOOR * spread;
  const lowest = (one: Component) => (one === 'residual' ? LEAST_RESIDUAL * spread : floor);
  let variances = firstGuess(model.design, effects, spread);
  let solution = solved(model, variances);
  for (let step = 0; step < MOST_STEPS; step += 1) {
    const { score, information } = solution.slopes(components);
    const free = components.flatMap((one, index) =>
      variances[one] > lowest(one) * 1.001 || (score[index] as number) > 0 ? [index] : [],
    );
    const direction = newton(
      free.map((index) => score[index] as number),
      free.map((index) => free.map((other) => (information[index] as number[])[other] as number)),
    );
    const gain = free.reduce((sum, index, at) => sum + (score[index] as number) * (direction[at] as number), 0);
    if (gain < ENOUGH) break;
    const next = climb(model, solution, gain < NEAR, (share) => {
      let moved = variances;
      free.forEach((index, at) => {
        const one = components[index] as Component;
        moved = { ...moved, [one]: Math.max(lowest(one), variances[one] + share * (direction[at] as number)) };
      });
      return moved;
    });
    if (next === null) break;
    ({ variances } = next);
    solution = next;
    if (gain < NEAR) break;
  }
  const atZero = components.filter((one) => one !== 'residual' && variances[one] <= floor * 1.001);
  if (atZero.length === 0) return solution;
  return solved(model, { ...variances, ...Object.fromEntries(atZero.map((one) => [one, 0])) });
}

function solved(model: MixedModel, variances: Variances): Solution {
  const solution = model.solveAt(variances);
  if (solution === null) throw new Error('the mixed model equations have no solution');
  return solution;
}

/** The longest of the step, its half, its quarter … by which the likelihood rises; null where it does by none. */
function climb(model: MixedModel, from: Solution, near: boolean, step: (share: number) => Variances): Solution | null {
  // So near to the top the likelihood no longer tells better from worse: its digits run out.
  if (near) return model.solveAt(step(1));
  for (let share = 1; share > 1e-12; share /= 2) {
    const next = model.solveAt(step(share));
    if (next !== null && next.logLikelihood > from.logLikelihood) return next;
  }
  return null;
}

/** The step to the top of the parabola; where the curvature says nothing, along the slope. */
function newton(score: readonly number[], information: ReadonlyArray<readonly number[]>): Float64Array {
  const step = Float64Array.from(score);
  const size = score.length;
  const curvature = new DenseCholesky(size);
  // Scaled by its diagonal, so that components of other sizes do not count as nothing.
  const scale = information.map((row, index) => 1 / Math.sqrt(row[index] as number));
  if (scale.some((one) => !Number.isFinite(one))) return step;
  information.forEach((row, one) =>
    row.forEach((value, other) => {
      const ridge = one === other ? 1e-12 : 0;
      curvature.matrix[one * curvature.stride + other] =
        value * (scale[one] as number) * (scale[other] as number) + ridge;
    }),
  );
  if (curvature.factor() === null) return step;
  step.forEach((value, index) => (step[index] = value * (scale[index] as number)));
  curvature.solve(step);
  step.forEach((value, index) => (step[index] = value * (scale[index] as number)));
  return step;
}
