import { describe, expect, test } from "@jest/globals";
import { randomSource } from "../../chance/randomSource";
import type { HumpGrid } from "../rhythm/humpGrid";
import { foldConsistency, humpsApart, isSmoothHump, repeatsAfter } from "./foldedTurn";

const points = 20;

/** A grid of ripples made from a function of the ripple number, with noise. */
function gridOf(humps: number, amps: (hump: number) => number, noise = 0): HumpGrid {
  const { normal } = randomSource(7);
  const values = Float32Array.from(
    { length: humps * points },
    (_, i) => amps((i + 0.5) / points) + noise * normal(),
  );
  return { points, values, humps, first: 0 };
}
/** A sum of cosines with a common period, in ripples. */
const wave = (period: number, orders: readonly number[]) => (hump: number) =>
  orders.reduce((sum, order) => sum + Math.cos((2 * Math.PI * order * hump) / period), 0);

describe("what repeats after so many ripples", () => {
  test("finds a period that is no whole number of points or ripples, and its multiples, but no other", () => {
    const grid = gridOf(400, wave(3.7, [1, 2]));
    for (const times of [1, 2, 3]) expect(repeatsAfter(grid, 3.7 * times)).toBeGreaterThan(0.98);
    for (const period of [3, 3.5, 4, 5.1]) expect(repeatsAfter(grid, period)).toBeLessThan(0.05);
  });

  test("half a period explains only the even orders: half of what two equal orders make", () => {
    expect(repeatsAfter(gridOf(400, wave(8, [1, 2])), 4)).toBeCloseTo(0.5, 1);
    expect(repeatsAfter(gridOf(400, wave(8, [1])), 4)).toBeCloseTo(0, 2);
  });

  test("half of noise as strong as the wave is explained, and none of noise alone", () => {
    // A cosine's mean square is a half.
    expect(repeatsAfter(gridOf(2000, wave(6, [1]), Math.SQRT1_2), 6)).toBeCloseTo(0.5, 1);
    expect(
      repeatsAfter(
        gridOf(2000, () => 0, 1),
        6,
      ),
    ).toBeLessThan(0.02);
  });

  test("a stretch shorter than two periods gives no result", () => {
    expect(repeatsAfter(gridOf(10, wave(8, [1])), 8)).toBe(0);
  });
});

describe("differences between ripples", () => {
  test("are zero if all are alike, and the odd one if one differs", () => {
    const alike = gridOf(120, wave(1, [1]));
    expect(Math.max(...humpsApart(alike).values.map(Math.abs))).toBeLessThan(1e-6);
    const odd = gridOf(120, (hump) => (Math.floor(hump) % 6 === 2 ? 0.4 : 1) * wave(1, [1])(hump));
    expect(foldConsistency(humpsApart(odd), 6)).toBeCloseTo(1, 6);
    expect(foldConsistency(humpsApart(odd), 5)).toBeLessThan(0.3);
  });
});

describe("a smooth ripple", () => {
  const sine = (hump: number) => Math.abs(Math.sin(Math.PI * hump));

  test("rises once and falls once, with or without noise", () => {
    for (const noise of [0, 0.05, 0.2]) {
      const grid = gridOf(600, sine, noise);
      expect(isSmoothHump(grid.values, points, foldConsistency(grid, 12))).toBe(true);
    }
  });

  test("is not the effect of a bad bar over half a turn, with slight ripples on its flanks", () => {
    const dipped = (hump: number) => sine(hump) + 0.3 * Math.abs(Math.sin(5 * Math.PI * hump));
    for (const noise of [0, 0.05]) {
      const grid = gridOf(600, dipped, noise);
      expect(isSmoothHump(grid.values, points, foldConsistency(grid, 12))).toBe(false);
    }
  });

  test("is given the benefit of the doubt if noise could have made the second bump", () => {
    const grid = gridOf(60, (hump) => sine(hump) + 0.3 * Math.abs(Math.sin(5 * Math.PI * hump)), 0.4);
    expect(isSmoothHump(grid.values, points, foldConsistency(grid, 12))).toBe(true);
  });
});
