import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { apportioned, roundingRules, scaled, shareOf, toCoin } from "./rounding";

// A worked table of IEEE 754-2019 roundings on halves (from memory): ties to even, away from zero, towards and from
// zero.
describe("a half is rounded by its rule", () => {
  test.each([
    [5, [1, 0, 1, 0]],
    [15, [2, 2, 2, 1]],
    [25, [3, 2, 3, 2]],
    [-5, [-1, 0, -1, 0]],
    [-15, [-2, -2, -2, -1]],
    [14, [1, 1, 2, 1]],
    [16, [2, 2, 2, 1]],
    [20, [2, 2, 2, 2]],
  ] as const)("%d tenths", (tenths, expected) => {
    for (const [index, rule] of roundingRules.entries())
      expect(scaled(tenths, 1, 10, rule) + 0).toBe((expected[index] as number) + 0);
  });
});

test("cases binary fractions get wrong are right here: 17.5 % of 0.20, 8.25 % of 2.00, and money beyond 2^53 hundredths", () => {
  // 0.2 × 0.175 is 0.034999999999999996 in floating point; by hand 0.035, which is 4 hundredths from a half up.
  expect(shareOf(20, 1750, "half-up")).toBe(4);
  expect(shareOf(20, 1750, "half-even")).toBe(4);
  expect(shareOf(200, 825, "half-even")).toBe(16);
  expect(shareOf(200, 825, "half-up")).toBe(17);
  expect(scaled(9_007_199_254_740_991, 9999, 10_000, "down")).toBe(9_006_298_534_815_516);
  expect(() => scaled(0.5, 1, 1, "down")).toThrow(RangeError);
});

test("pieces add up to their total for any weights, and each is within a unit of its share", () => {
  const weights = fc.array(fc.nat(100_000), { minLength: 1, maxLength: 12 });
  fc.assert(
    fc.property(fc.integer({ min: -1e9, max: 1e9 }), weights, (total, own) => {
      const pieces = apportioned(total, own);
      expect(pieces.reduce((sum, piece) => sum + piece, 0)).toBe(total);
      const sum = own.reduce((all, weight) => all + weight, 0);
      if (sum === 0) return;
      for (const [i, piece] of pieces.entries())
        expect(Math.abs(piece - (total * (own[i] as number)) / sum)).toBeLessThan(1 + 1e-6);
    }),
    { numRuns: 500, seed: 5 },
  );
  // Hamilton's method by hand: 10 over 1, 1, 1 is 3.33 each; the first gets the one left over.
  expect(apportioned(10, [1, 1, 1])).toEqual([4, 3, 3]);
  expect(apportioned(-10, [1, 1, 1])).toEqual([-4, -3, -3]);
});

test.each([
  [1237, 5, 1235],
  [1238, 5, 1240],
  [1237, 1, 1237],
  [1250, 100, 1300],
  [-1238, 5, -1240],
])("%d to the nearest coin of %d is %d", (amount, coin, expected) =>
  expect(toCoin(amount, coin)).toBe(expected),
);
