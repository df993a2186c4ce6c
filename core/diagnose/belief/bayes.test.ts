import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { posteriorOf, rescale } from "./bayes";

describe("Bayes' rule", () => {
  test("the screening example of any textbook: 1 in 100 ill, test right 9 in 10, ill given positive is 1 in 12", () => {
    const { p, evidence } = posteriorOf(Float64Array.of(0.01 * 0.9, 0.99 * 0.1));
    expect(p[0]).toBeCloseTo(1 / 12, 12);
    expect(Math.exp(evidence)).toBeCloseTo(0.108, 12);
  });

  test("a long product of likelihoods, rescaled on the way, equals the sum of its logarithms", () => {
    const weights = Float64Array.of(0.5, 0.5, 0);
    let logScale = 0;
    for (let reading = 0; reading < 4000; reading++) {
      for (const [i, odds] of [0.02, 0.0199].entries()) weights[i] = (weights[i] as number) * odds;
      if (reading % 12 === 11) logScale += rescale(weights);
    }
    const { p, evidence } = posteriorOf(weights, logScale);
    const ratio = 4000 * Math.log(0.02 / 0.0199);
    expect(Math.log((p[0] as number) / (p[1] as number))).toBeCloseTo(ratio, 6);
    expect(evidence).toBeCloseTo(Math.log(0.5) + 4000 * Math.log(0.02) + Math.log1p(Math.exp(-ratio)), 6);
    expect(p[2]).toBe(0);
  });

  test("a common factor does not change it, and it sums to 1", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 1e-12, max: 1, noNaN: true }), { minLength: 1, maxLength: 20 }),
        fc.double({ min: 1e-9, max: 1e9, noNaN: true }),
        (weights, times) => {
          const plain = posteriorOf(Float64Array.from(weights));
          const moved = posteriorOf(Float64Array.from(weights, (weight) => weight * times));
          const scaled = Float64Array.from(weights);
          const rescaled = posteriorOf(scaled, rescale(scaled));
          expect(plain.p.reduce((sum, p) => sum + p, 0)).toBeCloseTo(1, 12);
          for (const [i, p] of plain.p.entries()) {
            expect(moved.p[i]).toBeCloseTo(p, 9);
            expect(rescaled.p[i]).toBeCloseTo(p, 9);
          }
          expect(moved.evidence - plain.evidence).toBeCloseTo(Math.log(times), 6);
          expect(rescaled.evidence).toBeCloseTo(plain.evidence, 9);
        },
      ),
      { numRuns: 200, seed: 3 },
    );
  });
});
