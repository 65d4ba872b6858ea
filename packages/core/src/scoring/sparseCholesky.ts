import { DenseCholesky } from './denseCholesky.js';
import { eliminationOrder, type Graph } from './eliminationOrder.js';

/** From this share of full columns on, the rest is treated as full: nearly all of it fills anyway. */
const FULL = 0.7;

/**
 * Cholesky factors of symmetric positive definite matrices of one pattern, with few entries beside the diagonal: L D Lᵀ by columns
 * (George and Liu 1981), with the part that fills at the end kept as one full block. The pattern is worked out once; matrices of it
 * are factored as often as wanted.
 */
export class SparseCholesky {
  readonly size: number;
  /** Place of each node in the order of elimination. */
  readonly #place: Int32Array;
  readonly #order: Int32Array;
  /** Columns before this one are sparse; from it on all is one full block. */
  readonly #full: number;
  /** Of the sparse columns: rows below the diagonal, ascending, and their values; `start` has one entry more. */
  readonly #start: Int32Array;
  readonly #rows: Int32Array;
  readonly #values: Float64Array;
  readonly #diagonal: Float64Array;
  readonly #block: DenseCholesky;
  readonly #graph: Graph;
  /** Of the inverse, on the pattern of the factor; once asked for. */
  #inverse: { readonly values: Float64Array; readonly diagonal: Float64Array; readonly block: Float64Array } | null =
    null;

  constructor(graph: Graph) {
    this.size = graph.length;
    this.#graph = graph;
    this.#order = eliminationOrder(graph);
    this.#place = new Int32Array(this.size);
    this.#order.forEach((node, place) => (this.#place[node] = place));
    const columns = fillIn(graph, this.#order, this.#place);
    this.#full = firstFull(columns);
    const sparse = columns.slice(0, this.#full);
    this.#start = new Int32Array(this.#full + 1);
    sparse.forEach((rows, column) => (this.#start[column + 1] = (this.#start[column] as number) + rows.length));
    this.#rows = new Int32Array(this.#start[this.#full] as number);
    sparse.forEach((rows, column) => this.#rows.set(rows, this.#start[column]));
    this.#values = new Float64Array(this.#rows.length);
    this.#diagonal = new Float64Array(this.#full);
    this.#block = new DenseCholesky(this.size - this.#full);
  }

  /**
   * @param diagonal by node
   * @param beside the entry of two neighbours, in either order
   * @returns the logarithm of the determinant; null where the matrix is not positive definite
   */
  factor(diagonal: (node: number) => number, beside: (one: number, other: number) => number): number | null {
    this.#inverse = null;
    const { size } = this;
    const full = this.#full;
    const start = this.#start;
    const rows = this.#rows;
    const values = this.#values;
    const work = new Float64Array(size);
    const head = new Int32Array(full).fill(-1);
    const next = new Int32Array(full);
    const at = new Int32Array(full);
    const block = this.#block.matrix;
    const width = this.#block.stride;
    block.fill(0);
    let logarithm = 0;
    for (let column = 0; column < full; column += 1) {
      this.#scatter(column, diagonal, beside, work);
      for (let before = head[column] as number; before !== -1;) {
        const following = next[before] as number;
        let entry = at[before] as number;
        const end = start[before + 1] as number;
        const scale = (values[entry] as number) * (this.#diagonal[before] as number);
        for (let one = entry; one < end; one += 1) {
          const row = rows[one] as number;
          work[row] = (work[row] as number) - (values[one] as number) * scale;
        }
        entry += 1;
        link(before, entry);
        before = following;
      }
      const pivot = work[column] as number;
      if (!(pivot > 0)) return null;
      this.#diagonal[column] = pivot;
      logarithm += Math.log(pivot);
      const end = start[column + 1] as number;
      for (let one = start[column] as number; one < end; one += 1) {
        const row = rows[one] as number;
        values[one] = (work[row] as number) / pivot;
        work[row] = 0;
      }
      link(column, start[column] as number);
    }
    function link(column: number, entry: number): void {
      at[column] = entry;
      const row = entry < (start[column + 1] as number) ? (rows[entry] as number) : full;
      if (row >= full) return;
      next[column] = head[row] as number;
      head[row] = column;
    }
    for (let column = full; column < size; column += 1) {
      this.#scatter(column, diagonal, beside, work);
      for (let row = column; row < size; row += 1) {
        block[(row - full) * width + column - full] = work[row] as number;
        work[row] = 0;
      }
    }
    for (let column = 0; column < full; column += 1) {
      const end = start[column + 1] as number;
      let first = start[column] as number;
      while (first < end && (rows[first] as number) < full) first += 1;
      const pivot = this.#diagonal[column] as number;
      for (let one = first; one < end; one += 1) {
        const line = ((rows[one] as number) - full) * width - full;
        const scale = (values[one] as number) * pivot;
        for (let other = first; other <= one; other += 1) {
          const place = line + (rows[other] as number);
          block[place] = (block[place] as number) - scale * (values[other] as number);
        }
      }
    }
    const rest = this.#block.factor();
    return rest === null ? null : logarithm + rest;
  }

  /** Puts a column of the matrix, from the diagonal on, into `work`. */
  #scatter(
    column: number,
    diagonal: (node: number) => number,
    beside: (one: number, other: number) => number,
    work: Float64Array,
  ): void {
    const node = this.#order[column] as number;
    work[column] = diagonal(node);
    for (const other of this.#graph[node] as readonly number[]) {
      const row = this.#place[other] as number;
      if (row > column) work[row] = beside(node, other);
    }
  }

  /** @param right by node @returns the solution by node */
  solve(right: Float64Array): Float64Array {
    const { size } = this;
    const full = this.#full;
    const x = new Float64Array(size);
    for (let place = 0; place < size; place += 1) x[place] = right[this.#order[place] as number] as number;
    for (let column = 0; column < full; column += 1) {
      const value = x[column] as number;
      const end = this.#start[column + 1] as number;
      for (let one = this.#start[column] as number; one < end; one += 1) {
        const row = this.#rows[one] as number;
        x[row] = (x[row] as number) - (this.#values[one] as number) * value;
      }
    }
    this.#block.solve(x.subarray(full));
    for (let column = full - 1; column >= 0; column -= 1) {
      let value = (x[column] as number) / (this.#diagonal[column] as number);
      const end = this.#start[column + 1] as number;
      for (let one = this.#start[column] as number; one < end; one += 1) {
        value -= (this.#values[one] as number) * (x[this.#rows[one] as number] as number);
      }
      x[column] = value;
    }
    const solution = new Float64Array(size);
    for (let place = 0; place < size; place += 1) solution[this.#order[place] as number] = x[place] as number;
    return solution;
  }

  /**
   * An entry of the inverse, of a node or of two neighbours. Those on the pattern of the factor follow from each other (Takahashi, Fagan
   * and Chen 1973; Erisman and Tinney 1975): the whole inverse, which is full, is never made.
   */
  inverseAt(one: number, other: number): number {
    this.#inverse ??= this.#invert();
    const place = this.#place[one] as number;
    const beside = this.#place[other] as number;
    const low = Math.min(place, beside);
    const high = Math.max(place, beside);
    const full = this.#full;
    if (low >= full) return this.#inverse.block[(high - full) * this.#block.stride + low - full] as number;
    if (low === high) return this.#inverse.diagonal[low] as number;
    let from = this.#start[low] as number;
    let to = this.#start[low + 1] as number;
    while (from < to) {
      const middle = (from + to) >> 1;
      if ((this.#rows[middle] as number) < high) from = middle + 1;
      else to = middle;
    }
    return this.#inverse.values[from] as number;
  }

  #invert() {
    const full = this.#full;
    const width = this.#block.stride;
    const block = this.#block.inverse();
    const values = new Float64Array(this.#values.length);
    const diagonal = new Float64Array(full);
    const sums = new Float64Array(this.size);
    const weight = new Float64Array(this.size);
    const mark = new Int32Array(this.size).fill(-1);
    const rows = this.#rows;
    for (let column = full - 1; column >= 0; column -= 1) {
      const from = this.#start[column] as number;
      const to = this.#start[column + 1] as number;
      for (let one = from; one < to; one += 1) {
        const row = rows[one] as number;
        weight[row] = this.#values[one] as number;
        sums[row] = 0;
        mark[row] = column;
      }
      let tail = from;
      for (; tail < to && (rows[tail] as number) < full; tail += 1) {
        const row = rows[tail] as number;
        const own = weight[row] as number;
        let sum = own * (diagonal[row] as number);
        const end = this.#start[row + 1] as number;
        for (let one = this.#start[row] as number; one < end; one += 1) {
          const other = rows[one] as number;
          if (mark[other] !== column) continue;
          const value = values[one] as number;
          sum += (weight[other] as number) * value;
          sums[other] = (sums[other] as number) + own * value;
        }
        sums[row] = (sums[row] as number) + sum;
      }
      for (let one = tail; one < to; one += 1) {
        const line = ((rows[one] as number) - full) * width - full;
        let sum = 0;
        for (let other = tail; other < to; other += 1) {
          sum += (this.#values[other] as number) * (block[line + (rows[other] as number)] as number);
        }
        const row = rows[one] as number;
        sums[row] = (sums[row] as number) + sum;
      }
      let own = 1 / (this.#diagonal[column] as number);
      for (let one = from; one < to; one += 1) {
        const row = rows[one] as number;
        values[one] = -(sums[row] as number);
        own += (this.#values[one] as number) * (sums[row] as number);
      }
      diagonal[column] = own;
    }
    return { values, diagonal, block };
  }
}

/** Rows below the diagonal of each column of the factor, ascending, by place. */
function fillIn(graph: Graph, order: Int32Array, place: Int32Array): number[][] {
  const size = graph.length;
  const columns: number[][] = [];
  const children: number[][] = graph.map(() => []);
  const mark = new Int32Array(size).fill(-1);
  for (let column = 0; column < size; column += 1) {
    const rows: number[] = [];
    const add = (row: number) => {
      if (row <= column || mark[row] === column) return;
      mark[row] = column;
      rows.push(row);
    };
    for (const other of graph[order[column] as number] as readonly number[]) add(place[other] as number);
    for (const child of children[column] as number[]) (columns[child] as number[]).forEach(add);
    rows.sort((a, b) => a - b);
    columns.push(rows);
    const [parent] = rows;
    if (parent !== undefined) (children[parent] as number[]).push(column);
  }
  return columns;
}

function firstFull(columns: ReadonlyArray<readonly number[]>): number {
  const size = columns.length;
  let first = size;
  while (first > 0 && (columns[first - 1] as readonly number[]).length >= FULL * (size - first)) first -= 1;
  return first;
}
