import { describe, expect, test } from "@jest/globals";
import { normalCdf, normalQuantile, roughNormalCdf } from "./normal";

// Table of the standard normal distribution function, any statistics handbook (for example NIST/SEMATECH
// e-Handbook of Statistical Methods, 1.3.6.7.1), rows from memory.
const table: readonly (readonly [number, number])[] = [
  [0, 0.5],
  [0.5, 0.69146],
  [1, 0.84134],
  [1.28, 0.89973],
  [1.645, 0.95002],
  [1.96, 0.975],
  [2.326, 0.98999],
  [3, 0.99865],
  [4, 0.99997],
];

describe("the standard normal distribution", () => {
  test.each(table)("the value at %p is %p", (x, p) => {
    expect(normalCdf(x)).toBeCloseTo(p, 5);
    expect(normalCdf(-x)).toBeCloseTo(1 - p, 5);
    expect(roughNormalCdf(x)).toBeCloseTo(p, 4);
  });

  test("the quantile is the inverse", () => {
    for (const p of [0.001, 0.025, 0.2, 0.5, 0.8, 0.975, 0.999])
      expect(normalCdf(normalQuantile(p))).toBeCloseTo(p, 6);
    expect(normalQuantile(0.975)).toBeCloseTo(1.96, 3);
  });

  test("the table rises, stays within 0 and 1 far out, and agrees with the function", () => {
    let last = 0;
    for (let x = -12; x <= 12; x += 0.037) {
      const p = roughNormalCdf(x);
      expect(p).toBeGreaterThanOrEqual(last);
      expect(p).toBeLessThanOrEqual(1);
      expect(Math.abs(p - normalCdf(x))).toBeLessThan(2e-5);
      last = p;
    }
  });
});
