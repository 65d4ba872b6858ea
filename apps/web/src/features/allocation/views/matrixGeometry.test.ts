import { Geometry, HEAD, LABEL } from './matrixGeometry.js';

const FRAME = { left: 100, top: 50, scrollLeft: 0, scrollTop: 0 };

describe('the geometry of the matrix', () => {
  it('finds the cell under every point inside it, also when it is scrolled', () => {
    const geometry = new Geometry(40, 12);
    for (const [row, col] of [
      [0, 0],
      [39, 11],
      [17, 5],
    ] as const) {
      for (const into of [0, geometry.size - 1]) {
        const scrolled = { ...FRAME, scrollLeft: 30, scrollTop: row * 7 };
        const x = FRAME.left + geometry.leftOf(col) + into - scrolled.scrollLeft;
        const y = FRAME.top + geometry.topOf(row) + into - scrolled.scrollTop;
        const covered = x - FRAME.left < LABEL || y - FRAME.top < HEAD;
        expect(geometry.cellAt(x, y, scrolled)).toEqual(covered ? null : { row, col });
      }
    }
  });

  it('finds nothing over the names or past the last row and column', () => {
    const geometry = new Geometry(3, 3);
    expect(geometry.cellAt(FRAME.left + LABEL - 1, FRAME.top + HEAD, FRAME)).toBeNull();
    expect(geometry.cellAt(FRAME.left + LABEL, FRAME.top + HEAD - 1, FRAME)).toBeNull();
    expect(geometry.cellAt(FRAME.left + geometry.width, FRAME.top + HEAD, FRAME)).toBeNull();
    expect(geometry.cellAt(FRAME.left + LABEL, FRAME.top + geometry.height, FRAME)).toBeNull();
  });

  it('draws smaller for more people, and steps to the edges and no further', () => {
    expect([24, 48, 300].map((count) => new Geometry(count, count).size)).toEqual([24, 19, 14]);
    const geometry = new Geometry(5, 4);
    expect(geometry.after({ row: 2, col: 2 }, { rows: 0, columns: Infinity })).toEqual({ row: 2, col: 3 });
    expect(geometry.after({ row: 2, col: 2 }, { rows: -10, columns: 0 })).toEqual({ row: 0, col: 2 });
  });
});
