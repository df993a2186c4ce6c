import { describe, expect, test } from "@jest/globals";
import type { HumpGrid } from "./rhythm/humpGrid";
import { timesTooSlow } from "./timesTooSlow";

const points = 24;
const perTurn = 12;
const poles = 2;

/** Dips of half a turn of six bars, and the ripples between them, on the grid of a rhythm several times too slow. */
function grid(dips: readonly number[], tooSlow: number): HumpGrid {
  const humps = 240;
  const values = Float32Array.from({ length: humps * points }, (_, i) => {
    const bar = (((i + 0.5) / points) * tooSlow) % 6;
    const dip = dips.reduce((sum, depth, at) => sum - depth * Math.exp(-(((bar - at - 0.5) / 0.4) ** 2)), 0);
    return 3 + dip + 0.2 * Math.abs(Math.sin(Math.PI * bar));
  });
  return { points, values, humps, first: 0 };
}

describe("how many times too slow a rhythm is", () => {
  const uneven = [0, 1, 0.6, 0, 0.3, 0];

  test.each([1, 1.5, 2, 3])(
    "on a grid %p times too slow, it is recognised by what bad bars do once per pole",
    (times) => {
      expect(timesTooSlow(grid(uneven, times), perTurn, poles, 10)).toBe(times);
    },
  );

  test("half a turn taken for one ripple is recognised because it is not smooth", () => {
    expect(timesTooSlow(grid(uneven, 6), perTurn, poles, 10)).toBe(6);
  });

  test("sound ripples, all alike, are at the right speed", () => {
    expect(timesTooSlow(grid([], 1), perTurn, poles, 10)).toBe(1);
  });

  test("never makes it faster than the ripples may be", () => {
    expect(timesTooSlow(grid(uneven, 6), perTurn, poles, 5)).toBe(1);
    expect(timesTooSlow(grid(uneven, 1), perTurn, poles, 1)).toBe(1);
  });
});
