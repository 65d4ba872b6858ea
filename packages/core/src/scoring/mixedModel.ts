import { DenseCholesky } from './denseCholesky.js';
import type { RatingDesign } from './ratingDesign.js';
import { SparseCholesky } from './sparseCholesky.js';

/** Variances of the random effects and of what is left; an effect that is not in the model has 0. */
export interface Variances {
  readonly draft: number;
  readonly reviewer: number;
  readonly review: number;
  readonly residual: number;
}

export type Component = keyof Variances;

/** Which random effects the model has beside what is left. */
export type Effects = Readonly<Record<Exclude<Component, 'residual'>, boolean>>;

/**
 * Henderson's mixed model equations for score = item + draft + reviewer + review + rest, at given variances. What is estimated is asked of
 * {@link solveAt}; the pattern of the equations is worked out once.
 *
 * Effects are scaled by the ratio of their standard deviation to that of the rest, as in Bates et al. (2015), so that a variance may be
 * zero; the effects of reviews are taken out review by review, since the weights of one review concern its own ratings alone.
 */
export class MixedModel {
  readonly #system: SparseCholesky;
  readonly #pairs: ReadonlyArray<ReadonlyMap<number, number>>;
  readonly nodes: number;

  constructor(readonly design: RatingDesign) {
    const { drafts, reviewers, draftOf, reviewerOf } = design;
    this.nodes = drafts.length + reviewers.length;
    const pairs: Array<Map<number, number>> = Array.from({ length: this.nodes }, () => new Map<number, number>());
    draftOf.forEach((draft, review) => {
      const reviewer = drafts.length + (reviewerOf[review] as number);
      (pairs[draft] as Map<number, number>).set(reviewer, review);
      (pairs[reviewer] as Map<number, number>).set(draft, review);
    });
    this.#pairs = pairs;
    this.#system = new SparseCholesky(pairs.map((one) => [...one.keys()]));
  }

  /** @returns null where the equations have no solution to rely on */
  solveAt(variances: Variances): Solution | null {
    return Solution.at(this, this.#system, this.#pairs, variances);
  }
}

/** Estimates at given variances, and what says how good those variances are. */
export class Solution {
  /** Effects of the items, in the order of the design. */
  readonly fixed: Float64Array;
  /** Best linear unbiased predictions of drafts and then reviewers, in units of the score. */
  readonly effects: Float64Array;
  /** The restricted log-likelihood, without what does not hang on the variances. */
  readonly logLikelihood: number;
  /** V⁻¹ times what the items leave, for a residual variance of 1; by rating. */
  readonly #left: Float64Array;

  private constructor(
    private readonly model: MixedModel,
    private readonly system: SparseCholesky,
    readonly variances: Variances,
    private readonly scale: Float64Array,
    private readonly ratio: number,
    /** A⁻¹ Λ Zᵀ W X, by item and node. */
    private readonly through: readonly Float64Array[],
    private readonly items: DenseCholesky,
    logarithms: number,
  ) {
    const { score } = model.design;
    const { fixed, nodes } = this.#estimate(score);
    this.fixed = fixed;
    this.effects = nodes.map((value, node) => value * (scale[node] as number));
    this.#left = this.#withoutFixed(score, fixed, nodes);
    const free = score.length - this.fixed.length;
    const squares = score.reduce((sum, value, rating) => sum + value * (this.#left[rating] as number), 0);
    const { residual } = variances;
    this.logLikelihood = -0.5 * (free * Math.log(2 * Math.PI * residual) + logarithms + squares / residual);
  }

  static at(
    model: MixedModel,
    system: SparseCholesky,
    pairs: ReadonlyArray<ReadonlyMap<number, number>>,
    variances: Variances,
  ): Solution | null {
    const { design, nodes } = model;
    const { drafts, items, start, draftOf, item } = design;
    const { residual } = variances;
    const ratio = variances.review / residual;
    const scale = new Float64Array(nodes);
    const ofDrafts = Math.sqrt(variances.draft / residual);
    const ofReviewers = Math.sqrt(variances.reviewer / residual);
    scale.fill(ofDrafts, 0, drafts.length).fill(ofReviewers, drafts.length);
    const count = (review: number) => (start[review + 1] as number) - (start[review] as number);
    const weight = (review: number) => count(review) / (1 + count(review) * ratio);
    let logarithms = 0;
    draftOf.forEach((_, review) => (logarithms += Math.log1p(count(review) * ratio)));
    const own = new Float64Array(nodes);
    pairs.forEach((beside, node) => {
      for (const review of beside.values()) own[node] = (own[node] as number) + weight(review);
    });
    const determinant = system.factor(
      (node) => 1 + (scale[node] as number) ** 2 * (own[node] as number),
      (one, other) => ofDrafts * ofReviewers * weight((pairs[one] as ReadonlyMap<number, number>).get(other) as number),
    );
    if (determinant === null) return null;
    const width = items.length;
    const across = Array.from({ length: width }, () => new Float64Array(nodes));
    const fixed = new DenseCholesky(width);
    const square = fixed.matrix;
    const { stride } = fixed;
    for (let review = 0; review < draftOf.length; review += 1) {
      const shrink = 1 / (1 + count(review) * ratio);
      const draft = draftOf[review] as number;
      const reviewer = drafts.length + (design.reviewerOf[review] as number);
      const end = start[review + 1] as number;
      for (let rating = start[review] as number; rating < end; rating += 1) {
        const one = item[rating] as number;
        const column = across[one] as Float64Array;
        column[draft] = (column[draft] as number) + ofDrafts * shrink;
        column[reviewer] = (column[reviewer] as number) + ofReviewers * shrink;
        square[one * stride + one] = (square[one * stride + one] as number) + 1;
        for (let second = start[review] as number; second < end; second += 1) {
          const place = one * stride + (item[second] as number);
          square[place] = (square[place] as number) - ratio * shrink;
        }
      }
    }
    const through = across.map((column) => system.solve(column));
    for (let one = 0; one < width; one += 1) {
      for (let other = 0; other <= one; other += 1) {
        square[one * stride + other] =
          (square[one * stride + other] as number) -
          product(across[one] as Float64Array, through[other] as Float64Array);
      }
    }
    const rest = fixed.factor();
    if (rest === null) return null;
    return new Solution(model, system, variances, scale, ratio, through, fixed, logarithms + determinant + rest);
  }

  /** Zᵀ W x, scaled, by node; and Xᵀ W x, by item. */
  #gather(x: Float64Array): { readonly nodes: Float64Array; readonly items: Float64Array } {
    const { drafts, items, start, draftOf, reviewerOf, item } = this.model.design;
    const nodes = new Float64Array(this.model.nodes);
    const fixed = new Float64Array(items.length);
    for (let review = 0; review < draftOf.length; review += 1) {
      const from = start[review] as number;
      const to = start[review + 1] as number;
      let sum = 0;
      for (let rating = from; rating < to; rating += 1) sum += x[rating] as number;
      const shrunk = sum / (1 + (to - from) * this.ratio);
      const draft = draftOf[review] as number;
      const reviewer = drafts.length + (reviewerOf[review] as number);
      nodes[draft] = (nodes[draft] as number) + (this.scale[draft] as number) * shrunk;
      nodes[reviewer] = (nodes[reviewer] as number) + (this.scale[reviewer] as number) * shrunk;
      for (let rating = from; rating < to; rating += 1) {
        const one = item[rating] as number;
        fixed[one] = (fixed[one] as number) + (x[rating] as number) - this.ratio * shrunk;
      }
    }
    return { nodes, items: fixed };
  }

  /** Generalized least squares of the items, and scaled effects, for any x by rating. */
  #estimate(x: Float64Array): { readonly fixed: Float64Array; readonly nodes: Float64Array } {
    const right = this.#gather(x);
    const nodes = this.system.solve(right.nodes);
    const fixed = right.items.map((value, one) => value - product(this.through[one] as Float64Array, right.nodes));
    this.items.solve(fixed);
    fixed.forEach((value, one) => {
      const column = this.through[one] as Float64Array;
      for (let node = 0; node < nodes.length; node += 1)
        nodes[node] = (nodes[node] as number) - (column[node] as number) * value;
    });
    return { fixed, nodes };
  }

  /** W (x − items − effects), which is P x for a residual variance of 1. */
  #withoutFixed(x: Float64Array, fixed: Float64Array, nodes: Float64Array): Float64Array {
    const { drafts, start, draftOf, reviewerOf, item } = this.model.design;
    const left = new Float64Array(x.length);
    for (let review = 0; review < draftOf.length; review += 1) {
      const from = start[review] as number;
      const to = start[review + 1] as number;
      const draft = draftOf[review] as number;
      const reviewer = drafts.length + (reviewerOf[review] as number);
      const effect =
        (nodes[draft] as number) * (this.scale[draft] as number) +
        (nodes[reviewer] as number) * (this.scale[reviewer] as number);
      let sum = 0;
      for (let rating = from; rating < to; rating += 1) {
        left[rating] = (x[rating] as number) - (fixed[item[rating] as number] as number) - effect;
        sum += left[rating] as number;
      }
      const taken = (this.ratio * sum) / (1 + (to - from) * this.ratio);
      for (let rating = from; rating < to; rating += 1) left[rating] = (left[rating] as number) - taken;
    }
    return left;
  }

  /**
   * The slope of the restricted log-likelihood, and the average of its observed and expected curvature (Gilmour, Thompson and Cullis
   * 1995), for the components asked for.
   */
  slopes(components: readonly Component[]): { readonly score: number[]; readonly information: number[][] } {
    const left = this.#left;
    const { residual } = this.variances;
    const traces = this.#traces();
    const along = components.map((one) => this.#along(one, left));
    const through = along.map((x) => {
      const { fixed, nodes } = this.#estimate(x);
      return this.#withoutFixed(x, fixed, nodes);
    });
    return {
      score: components.map(
        (one, index) => -0.5 * (traces[one] / residual - product(left, along[index] as Float64Array) / residual ** 2),
      ),
      information: along.map((x) => through.map((other) => (0.5 * product(x, other)) / residual ** 3)),
    };
  }

  /** Z Zᵀ x of one component, by rating. */
  #along(component: Component, x: Float64Array): Float64Array {
    if (component === 'residual') return x;
    const { start, draftOf, reviewerOf, drafts, reviewers } = this.model.design;
    const level = component === 'draft' ? draftOf : reviewerOf;
    const sums = new Float64Array(component === 'review' ? draftOf.length : Math.max(drafts.length, reviewers.length));
    const at = (review: number) => (component === 'review' ? review : (level[review] as number));
    for (let review = 0; review < draftOf.length; review += 1) {
      for (let rating = start[review] as number; rating < (start[review + 1] as number); rating += 1) {
        sums[at(review)] = (sums[at(review)] as number) + (x[rating] as number);
      }
    }
    const along = new Float64Array(x.length);
    for (let review = 0; review < draftOf.length; review += 1) {
      along.fill(sums[at(review)] as number, start[review], start[review + 1]);
    }
    return along;
  }

  /** tr(P Z Zᵀ) of each component, for a residual variance of 1. */
  #traces(): Record<Component, number> {
    const { drafts, start, draftOf, reviewerOf, item, score, items } = this.model.design;
    const inverse = (one: number, other: number) => this.system.inverseAt(one, other);
    const ofNodes = (from: number, to: number) => {
      let sum = 0;
      for (let node = from; node < to; node += 1) sum += 1 - this.#uncertainty(node);
      return sum === 0 ? 0 : sum / (this.scale[from] as number) ** 2;
    };
    let review = 0;
    const row = new Float64Array(items.length);
    for (let one = 0; one < draftOf.length; one += 1) {
      const from = start[one] as number;
      const to = start[one + 1] as number;
      const shrink = 1 / (1 + (to - from) * this.ratio);
      const draft = draftOf[one] as number;
      const reviewer = drafts.length + (reviewerOf[one] as number);
      const weight = (to - from) * shrink;
      const a = weight * (this.scale[draft] as number);
      const b = weight * (this.scale[reviewer] as number);
      for (let column = 0; column < row.length; column += 1) {
        const through = this.through[column] as Float64Array;
        row[column] = -(through[draft] as number) * a - (through[reviewer] as number) * b;
      }
      for (let rating = from; rating < to; rating += 1) {
        const column = item[rating] as number;
        row[column] = (row[column] as number) + shrink;
      }
      const random =
        a * a * inverse(draft, draft) + 2 * a * b * inverse(draft, reviewer) + b * b * inverse(reviewer, reviewer);
      review += weight - random - this.#ofItems(row);
    }
    const nodes = this.model.nodes;
    const draft = this.variances.draft > 0 ? ofNodes(0, drafts.length) : 0;
    const reviewer = this.variances.reviewer > 0 ? ofNodes(drafts.length, nodes) : 0;
    const { residual } = this.variances;
    const shared = this.variances.draft * draft + this.variances.reviewer * reviewer + this.variances.review * review;
    return { draft, reviewer, review, residual: score.length - items.length - shared / residual };
  }

  /** xᵀ S⁻¹ x, by item. */
  #ofItems(x: Float64Array): number {
    const solved = Float64Array.from(x);
    this.items.solve(solved);
    return product(x, solved);
  }

  /** Of the scaled effect of a node, from the inverse of the mixed model equations, for a residual variance of 1. */
  #uncertainty(node: number): number {
    const row = Float64Array.from(this.through, (column) => column[node] as number);
    return this.system.inverseAt(node, node) + this.#ofItems(row);
  }

  /** Standard error of the prediction of the effect of a node, the uncertainty of the items in it. */
  errorOf(node: number): number {
    return (this.scale[node] as number) * Math.sqrt(this.#uncertainty(node) * this.variances.residual);
  }

  /** Standard error of the mean of the items and the effect of a node together; of the mean alone for null. */
  errorOfMeanAnd(node: number | null): number {
    const { length } = this.fixed;
    const row = Float64Array.from(this.through, (column) =>
      node === null ? 1 / length : 1 / length - (this.scale[node] as number) * (column[node] as number),
    );
    const own = node === null ? 0 : (this.scale[node] as number) ** 2 * this.system.inverseAt(node, node);
    return Math.sqrt((own + this.#ofItems(row)) * this.variances.residual);
  }

  /** Standard errors of the items. */
  errorsOfItems(): number[] {
    return Array.from(this.fixed, (_, one) => {
      const row = new Float64Array(this.fixed.length);
      row[one] = 1;
      return Math.sqrt(this.#ofItems(row) * this.variances.residual);
    });
  }
}

function product(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let index = 0; index < a.length; index += 1) sum += (a[index] as number) * (b[index] as number);
  return sum;
}
