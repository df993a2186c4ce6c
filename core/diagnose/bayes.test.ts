import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { posteriorOf } from "./bayes";

describe("Bayes' rule in logarithms", () => {
  test("the screening example of any textbook: 1 in 100 ill, test right 9 in 10, ill given positive is 1 in 12", () => {
    const { p, evidence } = posteriorOf(Float64Array.of(Math.log(0.01 * 0.9), Math.log(0.99 * 0.1)));
    expect(p[0]).toBeCloseTo(1 / 12, 12);
    expect(Math.exp(evidence)).toBeCloseTo(0.108, 12);
  });

  test("neither under- nor overflows", () => {
    const { p, evidence } = posteriorOf(
      Float64Array.of(-4000, -4000 + Math.log(3), Number.NEGATIVE_INFINITY),
    );
    expect([...p]).toEqual([expect.closeTo(0.25, 10), expect.closeTo(0.75, 10), 0]);
    expect(evidence).toBeCloseTo(-4000 + Math.log(4), 9);
    expect(posteriorOf(Float64Array.of(900, 0)).p[0]).toBe(1);
  });

  test("what is common to all does not move it, and its sum is 1", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -300, max: 0, noNaN: true }), { minLength: 1, maxLength: 20 }),
        fc.double({ min: -500, max: 500, noNaN: true }),
        (logs, shift) => {
          const plain = posteriorOf(Float64Array.from(logs));
          const moved = posteriorOf(Float64Array.from(logs, (log) => log + shift));
          expect(plain.p.reduce((sum, p) => sum + p, 0)).toBeCloseTo(1, 12);
          for (const [i, p] of plain.p.entries()) expect(moved.p[i]).toBeCloseTo(p, 9);
          expect(moved.evidence - plain.evidence).toBeCloseTo(shift, 6);
        },
      ),
      { numRuns: 200, seed: 3 },
    );
  });
});
