import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { type Hole, layOn } from "./holePattern";

const plate: readonly Hole[] = [
  [0, 0],
  [60, 0],
  [48, 40],
];
const turned = (holes: readonly Hole[], degrees: number, dx: number, dy: number): Hole[] => {
  const angle = (degrees * Math.PI) / 180;
  return holes.map(([x, y]) => [
    Math.cos(angle) * x - Math.sin(angle) * y + dx,
    Math.sin(angle) * x + Math.cos(angle) * y + dy,
  ]);
};

describe("one hole pattern fitted on another", () => {
  test("rotated and moved it is the same, to a thousandth, in any order", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 359 }), fc.integer({ min: -80, max: 80 }), (degrees, move) => {
        const fit = layOn(plate, turned(plate, degrees, move, -move).reverse());
        expect(fit?.worstMm).toBeLessThan(1e-3);
        expect(fit?.mirrored).toBe(false);
      }),
      { numRuns: 80, seed: 2 },
    );
  });

  test("turned over it is recognised as such, unless it is symmetrical", () => {
    const over = plate.map(([x, y]): Hole => [-x, y]);
    expect(layOn(plate, over)).toMatchObject({ mirrored: true });
    const square: readonly Hole[] = [
      [0, 0],
      [50, 0],
      [50, 50],
      [0, 50],
    ];
    expect(
      layOn(
        square,
        square.map(([x, y]): Hole => [-x, y]),
      ),
    ).toMatchObject({ mirrored: false });
  });

  test("by hand: two holes 60 and 63 apart are each off by half the difference", () => {
    const pair = (apart: number): Hole[] => [
      [0, 0],
      [apart, 0],
    ];
    expect(layOn(pair(60), pair(63))?.worstMm).toBeCloseTo(1.5, 9);
  });

  test("another count, or another pattern, does not fit at all", () => {
    expect(layOn(plate, plate.slice(0, 2))).toBeNull();
    expect(layOn([], [])).toBeNull();
    expect(
      layOn(
        plate,
        turned(plate, 0, 0, 0).map(([x, y]): Hole => [3 * x, 3 * y]),
      ),
    ).toBeNull();
  });
});
