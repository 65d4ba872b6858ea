import fc from 'fast-check';
import { eliminationOrder, type Graph } from './eliminationOrder.js';
import { SparseCholesky } from './sparseCholesky.js';

type Edge = readonly [number, number, number];

/** A diagonal that outweighs its row by at least one makes the matrix positive definite (Gershgorin). */
function matrixOf(size: number, edges: readonly Edge[], extra: readonly number[]): number[][] {
  const matrix = Array.from({ length: size }, () => new Array<number>(size).fill(0));
  for (const [one, other, value] of edges) {
    if (one === other || one >= size || other >= size) continue;
    (matrix[one] as number[])[other] = value;
    (matrix[other] as number[])[one] = value;
  }
  matrix.forEach(
    (row, node) => (row[node] = row.reduce((sum, value) => sum + Math.abs(value), 1) + (extra[node] ?? 0)),
  );
  return matrix;
}

const graphOf = (matrix: readonly number[][]): Graph =>
  matrix.map((row, node) => row.flatMap((value, other) => (other !== node && value !== 0 ? [other] : [])));

/** By elimination with the largest pivot, as every handbook has it: the logarithm of the determinant and the inverse. */
function dense(matrix: readonly number[][]) {
  const size = matrix.length;
  const rows = matrix.map((row, node) => [...row, ...row.map((_, other) => Number(other === node))]);
  let logarithm = 0;
  for (let column = 0; column < size; column += 1) {
    let best = column;
    for (let row = column; row < size; row += 1) {
      if (Math.abs(rows[row]![column]!) > Math.abs(rows[best]![column]!)) best = row;
    }
    [rows[column], rows[best]] = [rows[best]!, rows[column]!];
    const pivot = rows[column]![column]!;
    logarithm += Math.log(Math.abs(pivot));
    rows[column] = rows[column]!.map((value) => value / pivot);
    rows.forEach((row, at) => {
      const scale = row[column]!;
      if (at !== column && scale !== 0) rows[at] = row.map((value, place) => value - scale * rows[column]![place]!);
    });
  }
  return { logarithm, inverse: rows.map((row) => row.slice(size)) };
}

function check(matrix: readonly number[][]): void {
  const graph = graphOf(matrix);
  const sparse = new SparseCholesky(graph);
  const logarithm = sparse.factor(
    (node) => matrix[node]![node]!,
    (one, other) => matrix[one]![other]!,
  );
  const truth = dense(matrix);
  expect(logarithm).toBeCloseTo(truth.logarithm, 8);
  const right = Float64Array.from(matrix, (_, node) => ((node * 37) % 11) - 5);
  sparse.solve(right).forEach((value, node) => {
    expect(value).toBeCloseTo(
      truth.inverse[node]!.reduce((sum, entry, other) => sum + entry * right[other]!, 0),
      8,
    );
  });
  graph.forEach((beside, node) => {
    for (const other of [node, ...beside]) {
      expect(sparse.inverseAt(node, other)).toBeCloseTo(truth.inverse[node]![other]!, 8);
    }
  });
}

const value = fc.double({ min: -2, max: 2, noNaN: true });
const problem = fc.integer({ min: 0, max: 24 }).chain((size) =>
  fc.record({
    size: fc.constant(size),
    edges: fc.array(
      fc.tuple(fc.nat(Math.max(0, size - 1)), fc.nat(Math.max(0, size - 1)), value),
      // From next to nothing to nearly full.
      { maxLength: size * 4 },
    ),
    extra: fc.array(fc.double({ min: 0, max: 5, noNaN: true }), { minLength: size, maxLength: size }),
  }),
);

describe('factors of sparse matrices', () => {
  it('give determinant, solution and inverse as elimination in full does, of any pattern', () => {
    fc.assert(
      fc.property(problem, ({ size, edges, extra }) => check(matrixOf(size, edges, extra))),
      { numRuns: 300 },
    );
  });

  it('do so for a chain, a star, a grid, and where everything stands beside everything', () => {
    const size = 30;
    const pairs = Array.from({ length: size }, (_, one) => Array.from({ length: size }, (__, other) => [one, other]));
    const all = pairs.flat().filter(([one, other]) => one! < other!) as Array<[number, number]>;
    const some = (keep: (one: number, other: number) => boolean) =>
      matrixOf(
        size,
        all.filter(([one, other]) => keep(one, other)).map(([one, other]) => [one, other, ((one + other) % 5) - 2.5]),
        [],
      );
    check(some((one, other) => other === one + 1));
    check(some((one) => one === 0));
    check(some((one, other) => other - one === 6 || (other - one === 1 && other % 6 !== 0)));
    check(some(() => true));
  });

  it('can be made again with other values of the same pattern', () => {
    const sparse = new SparseCholesky([[1], [0]]);
    const of = (diagonal: number, beside: number) =>
      sparse.factor(
        () => diagonal,
        () => beside,
      );
    expect(of(2, 1)).toBeCloseTo(Math.log(3), 12);
    expect(sparse.inverseAt(0, 1)).toBeCloseTo(-1 / 3, 12);
    expect(of(4, 2)).toBeCloseTo(Math.log(12), 12);
    expect(sparse.inverseAt(0, 1)).toBeCloseTo(-1 / 6, 12);
  });

  it('say no where a matrix is not positive definite, in the sparse and in the full part', () => {
    const chain = graphOf(
      matrixOf(
        12,
        Array.from({ length: 11 }, (_, one) => [one, one + 1, 1] as const),
        [],
      ),
    );
    const of = (graph: Graph, diagonal: (node: number) => number) =>
      new SparseCholesky(graph).factor(diagonal, () => 1);
    expect(of(chain, (node) => (node === 0 ? -1 : 3))).toBeNull();
    expect(of(chain, () => 1)).toBeNull();
    expect(
      of(
        [
          [1, 2],
          [0, 2],
          [0, 1],
        ],
        () => 0.5,
      ),
    ).toBeNull();
    expect(of([[]], () => 0)).toBeNull();
    expect(of([[]], () => Number.NaN)).toBeNull();
  });

  it('take every node out once, the middle of a star among the last', () => {
    fc.assert(
      fc.property(problem, ({ size, edges, extra }) => {
        const order = eliminationOrder(graphOf(matrixOf(size, edges, extra)));
        expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: size }, (_, node) => node));
      }),
    );
    const star = graphOf(
      matrixOf(
        20,
        Array.from({ length: 19 }, (_, leaf) => [0, leaf + 1, 1] as const),
        [],
      ),
    );
    expect([...eliminationOrder(star)].indexOf(0)).toBeGreaterThanOrEqual(18);
  });
});
