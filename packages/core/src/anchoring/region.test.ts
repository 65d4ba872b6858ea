import fc from 'fast-check';
import { boxBetween, grownBox, hits, movedBox, unturned, type Box, type Turn } from './region.js';

const share = fc.double({ min: 0, max: 1, noNaN: true });
const far = fc.double({ min: -2, max: 3, noNaN: true });
const onPage = ({ x, y, width, height }: Box) =>
  [x, y, width, height].every((one) => one >= 0) && x + width <= 1 + 1e-9 && y + height <= 1 + 1e-9;

describe('regions of a page', () => {
  it('are drawn from any corner to any other, and never stick out', () => {
    const drawn = { x: 0.2, y: 0.3, width: 0.4, height: 0.2 };
    expect(boxBetween({ x: 0.2, y: 0.3 }, { x: 0.6, y: 0.5 })).toEqual(drawn);
    expect(boxBetween({ x: 0.6, y: 0.3 }, { x: 0.2, y: 0.5 })).toEqual(drawn);
    fc.assert(
      fc.property(far, far, far, far, (ax, ay, bx, by) => onPage(boxBetween({ x: ax, y: ay }, { x: bx, y: by }))),
    );
  });

  it('are points where the hand was still', () => {
    expect(boxBetween({ x: 0.5, y: 0.5 }, { x: 0.503, y: 0.498 })).toEqual({ x: 0.503, y: 0.498, width: 0, height: 0 });
  });

  it('keep their size when moved, their corner when grown, and the page in both', () => {
    fc.assert(
      fc.property(share, share, share, share, far, far, (ax, ay, bx, by, dx, dy) => {
        const box = boxBetween({ x: ax, y: ay }, { x: bx, y: by });
        const moved = movedBox(box, { x: dx, y: dy });
        const grown = grownBox(box, { x: dx, y: dy });
        expect(onPage(moved) && onPage(grown)).toBe(true);
        expect(moved.width).toBeCloseTo(box.width, 3);
        expect(moved.height).toBeCloseTo(box.height, 3);
        expect([grown.x, grown.y]).toEqual([box.x, box.y]);
      }),
    );
  });

  it('are where they were on a picture that is shown turned', () => {
    // A corner of the picture, by the quarter turn clockwise: where it is seen, and what it is.
    expect(([0, 1, 2, 3] as Turn[]).map((turn) => unturned({ x: 0, y: 0 }, turn))).toEqual([
      { x: 0, y: 0 },
      { x: 0, y: 1 },
      { x: 1, y: 1 },
      { x: 1, y: 0 },
    ]);
    fc.assert(
      fc.property(share, share, (x, y) => {
        const twice = unturned(unturned({ x, y }, 1), 3);
        expect(twice.x).toBeCloseTo(x, 9);
        expect(twice.y).toBeCloseTo(y, 9);
      }),
    );
  });

  it('are hit inside, points from a little way off', () => {
    const box = { x: 0.2, y: 0.2, width: 0.1, height: 0.1 };
    expect([0.19, 0.2, 0.25, 0.3, 0.31].map((x) => hits(box, { x, y: 0.25 }, 0.02))).toEqual([
      false,
      true,
      true,
      true,
      false,
    ]);
    expect(hits({ x: 0.5, y: 0.5, width: 0, height: 0 }, { x: 0.515, y: 0.49 }, 0.02)).toBe(true);
  });
});
