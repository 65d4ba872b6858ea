/** Rows and columns that are worked on together: sixteen sums share eight loads, several times as fast as one at a time. */
const TILE = 4;

/** Cholesky factor L Lᵀ of a full symmetric positive definite matrix, in place of its lower half. */
export class DenseCholesky {
  /** Entries from one row to the next: the size, filled up to whole tiles. */
  readonly stride: number;
  /** Row by row, `stride` apart; only what is on and below the diagonal is read. */
  readonly matrix: Float64Array;
  readonly #sums = new Float64Array(TILE * TILE);

  constructor(readonly size: number) {
    this.stride = Math.ceil(size / TILE) * TILE;
    this.matrix = new Float64Array(this.stride * this.stride);
  }

  /** @returns the logarithm of the determinant; null where the matrix is not positive definite */
  factor(): number | null {
    const { matrix, size, stride } = this;
    const sums = this.#sums;
    for (let row = size; row < stride; row += 1) {
      matrix.fill(0, row * stride, row * stride + row);
      matrix[row * stride + row] = 1;
    }
    let logarithm = 0;
    for (let top = 0; top < stride; top += TILE) {
      for (let left = 0; left <= top; left += TILE) {
        tile(matrix, top * stride, stride, matrix, left * stride, stride, 0, left, sums);
        for (let one = 0; one < TILE; one += 1) {
          const line = (top + one) * stride;
          const last = left === top ? one : TILE - 1;
          for (let two = 0; two <= last; two += 1) {
            const other = (left + two) * stride;
            let value = (matrix[line + left + two] as number) - (sums[one * TILE + two] as number);
            for (let k = left; k < left + two; k += 1)
              value -= (matrix[line + k] as number) * (matrix[other + k] as number);
            if (line !== other) matrix[line + left + two] = value / (matrix[other + left + two] as number);
            else {
              if (!(value > 0)) return null;
              logarithm += Math.log(value);
              matrix[line + left + two] = Math.sqrt(value);
            }
          }
        }
      }
    }
    return logarithm;
  }

  /** In place. */
  solve(x: Float64Array): void {
    const { matrix, size, stride } = this;
    for (let row = 0; row < size; row += 1) {
      const line = row * stride;
      let value = x[row] as number;
      for (let column = 0; column < row; column += 1)
        value -= (matrix[line + column] as number) * (x[column] as number);
      x[row] = value / (matrix[line + row] as number);
    }
    for (let row = size - 1; row >= 0; row -= 1) {
      const line = row * stride;
      const value = (x[row] as number) / (matrix[line + row] as number);
      x[row] = value;
      for (let column = 0; column < row; column += 1) {
        x[column] = (x[column] as number) - (matrix[line + column] as number) * value;
      }
    }
  }

  /** Both halves, row by row, `stride` apart. */
  inverse(): Float64Array {
    const { matrix, stride } = this;
    const sums = this.#sums;
    // Row `column` holds a column of the inverse of L: what is summed lies side by side.
    const columns = new Float64Array(stride * stride);
    for (let left = 0; left < stride; left += TILE) {
      for (let top = left; top < stride; top += TILE) {
        tile(matrix, top * stride, stride, columns, left * stride, stride, left, top, sums);
        for (let one = 0; one < TILE; one += 1) {
          const row = top + one;
          const line = row * stride;
          for (let two = 0; two < TILE && left + two <= row; two += 1) {
            const own = (left + two) * stride;
            let value = (row === left + two ? 1 : 0) - (sums[one * TILE + two] as number);
            for (let k = top; k < row; k += 1) value -= (matrix[line + k] as number) * (columns[own + k] as number);
            columns[own + row] = value / (matrix[line + row] as number);
          }
        }
      }
    }
    const result = new Float64Array(stride * stride);
    for (let top = 0; top < stride; top += TILE) {
      for (let left = 0; left <= top; left += TILE) {
        tile(columns, top * stride, stride, columns, left * stride, stride, top, stride, sums);
        for (let one = 0; one < TILE; one += 1) {
          for (let two = 0; two < TILE; two += 1) {
            const value = sums[one * TILE + two] as number;
            result[(top + one) * stride + left + two] = value;
            result[(left + two) * stride + top + one] = value;
          }
        }
      }
    }
    return result;
  }
}

/** The sums of products of four rows of `a` with four of `b`, over the columns from `from` to before `to`. */
function tile(
  a: Float64Array,
  atA: number,
  strideA: number,
  b: Float64Array,
  atB: number,
  strideB: number,
  from: number,
  to: number,
  sums: Float64Array,
): void {
  const a0 = atA;
  const a1 = a0 + strideA;
  const a2 = a1 + strideA;
  const a3 = a2 + strideA;
  const b0 = atB;
  const b1 = b0 + strideB;
  const b2 = b1 + strideB;
  const b3 = b2 + strideB;
  let s00 = 0,
    s01 = 0,
    s02 = 0,
    s03 = 0;
  let s10 = 0,
    s11 = 0,
    s12 = 0,
    s13 = 0;
  let s20 = 0,
    s21 = 0,
    s22 = 0,
    s23 = 0;
  let s30 = 0,
    s31 = 0,
    s32 = 0,
    s33 = 0;
  for (let k = from; k < to; k += 1) {
    const x0 = a[a0 + k] as number;
    const x1 = a[a1 + k] as number;
    const x2 = a[a2 + k] as number;
    const x3 = a[a3 + k] as number;
    const y0 = b[b0 + k] as number;
    const y1 = b[b1 + k] as number;
    const y2 = b[b2 + k] as number;
    const y3 = b[b3 + k] as number;
    s00 += x0 * y0;
    s01 += x0 * y1;
    s02 += x0 * y2;
    s03 += x0 * y3;
    s10 += x1 * y0;
    s11 += x1 * y1;
    s12 += x1 * y2;
    s13 += x1 * y3;
    s20 += x2 * y0;
    s21 += x2 * y1;
    s22 += x2 * y2;
    s23 += x2 * y3;
    s30 += x3 * y0;
    s31 += x3 * y1;
    s32 += x3 * y2;
    s33 += x3 * y3;
  }
  sums[0] = s00;
  sums[1] = s01;
  sums[2] = s02;
  sums[3] = s03;
  sums[4] = s10;
  sums[5] = s11;
  sums[6] = s12;
  sums[7] = s13;
  sums[8] = s20;
  sums[9] = s21;
  sums[10] = s22;
  sums[11] = s23;
  sums[12] = s30;
  sums[13] = s31;
  sums[14] = s32;
  sums[15] = s33;
}
