// Odds and scores of a shop's own records, against numbers worked by hand and jStat, a general statistics package.
import { describe, expect, test } from "@jest/globals";
import jstat from "jstat";
import { dirichletShares } from "../diagnose/belief/learnedPrior";
import { closureProblem, closureSchema } from "./closure";
import { comebackOdds, stillThere } from "./comebackOdds";
import { learntRepairs, repairsAsLearnt } from "./learntRepairs";
import { binOf, type Held, reliability, sumsOf, wilsonInterval } from "./reliability";

describe("Wilson's interval", () => {
  // R. G. Newcombe, Statistics in Medicine 17 (1998), table I, method 3, 95 % (values from memory).
  test.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])("of %i in %i equals Newcombe's", (hits, trials, low, high) => {
    const own = wilsonInterval(hits, trials, 0.95);
    expect(own.low).toBeCloseTo(low, 4);
    expect(own.high).toBeCloseTo(high, 4);
  });

  test("of nothing is unknown", () => {
    expect(wilsonInterval(0, 0)).toEqual({ share: 0, low: 0, high: 1 });
  });

  test("uses the normal quantile jStat knows", () => {
    const z = jstat.jStat.normal.inv(0.95, 0, 1);
    const centre = (0.5 + (z * z) / 20) / (1 + (z * z) / 10);
    const { low, high } = wilsonInterval(5, 10);
    expect((low + high) / 2).toBeCloseTo(centre, 6);
  });
});

describe("calibration of the verdicts", () => {
  const verdicts: Held[] = [
    { p: 0.99, held: true },
    { p: 0.99, held: true },
    { p: 0.96, held: true },
    { p: 0.96, held: false },
    { p: 0.6, held: true },
    { p: 1, held: true },
  ];
  const own = reliability(sumsOf(verdicts));

  test("Brier's score, by hand: (0.0001 + 0.0001 + 0.0016 + 0.9216 + 0.16 + 0) / 6", () => {
    expect(own.brier).toBeCloseTo(1.0834 / 6, 12);
    expect(own.brierOfShare).toBeCloseTo((5 / 6) * (1 / 6), 12);
  });

  test("bins contain their own: the belief, how many held, within Wilson's interval", () => {
    expect(own.bins.map(({ from, to, hits, trials }) => [from, to, hits, trials])).toEqual([
      [0.5, 0.7, 1, 1],
      [0.95, 0.98, 1, 2],
      [0.98, 1, 3, 3],
    ]);
    expect(own.bins[1]?.said).toBeCloseTo(0.96, 12);
    expect(own.bins[1]).toMatchObject(wilsonInterval(1, 2));
  });

  test("sums give the same as single verdicts: jStat's mean squared error on 500 random ones", () => {
    let state = 7;
    const next = () => {
      state = (state * 48271) % 2147483647;
      return state / 2147483647;
    };
    const many = Array.from({ length: 500 }, (): Held => {
      const p = next();
      return { p, held: next() < p };
    });
    const errors = many.map(({ p, held }) => (p - (held ? 1 : 0)) ** 2);
    const whole = reliability(sumsOf(many));
    expect(whole.brier).toBeCloseTo(jstat.jStat.mean(errors), 10);
    expect(whole.trials).toBe(500);
    // Correct odds lie on the diagonal: none of their bins is far outside its interval.
    for (const bin of whole.bins) expect(Math.abs(bin.share - bin.said)).toBeLessThan(0.15);
  });

  test("edges belong to the bin above, and certainty to the last", () => {
    expect([0, 0.49, 0.5, 0.95, 0.979, 0.98].map(binOf)).toEqual([0, 0, 1, 5, 5, 6]);
    expect(sumsOf([{ p: 1, held: true }])[6]?.trials).toBe(1);
    expect(reliability(sumsOf([]))).toEqual({ bins: [], trials: 0, brier: 0, brierOfShare: 0 });
  });
});

describe("what counts change", () => {
  const shares = new Map([
    ["link open", 0.5],
    ["motor open", 0.3],
    ["fuse blown", 0.2],
  ]);

  test("is the Dirichlet's mean and its beta marginals' deviation, as jStat computes them", () => {
    const learnt = dirichletShares(shares, [
      { kind: "link", mode: "open", n: 30 },
      { kind: "motor", mode: "open", n: 10 },
      { kind: "module", mode: "dead", n: 99 },
    ]);
    // By hand: 60 jobs of table and 40 of the shop's own: (30 + 30) / 100, (18 + 10) / 100, 12 / 100.
    expect([...learnt.values()].map(({ share }) => share)).toEqual([0.6, 0.28, 0.12]);
    for (const { share, deviation } of learnt.values()) {
      expect(share).toBeCloseTo(jstat.jStat.beta.mean(100 * share, 100 * (1 - share)), 12);
      expect(deviation).toBeCloseTo(Math.sqrt(jstat.jStat.beta.variance(100 * share, 100 * (1 - share))), 12);
    }
  });

  test("one count at a time gives the same as all at once", () => {
    const once = dirichletShares(shares, [{ kind: "link", mode: "open", n: 3 }]);
    const three = Array.from({ length: 3 }, () => ({ kind: "link", mode: "open", n: 1 }));
    expect(dirichletShares(shares, three)).toEqual(once);
  });
});

describe("the odds of a comeback", () => {
  const sure = { cured: 1, temporary: false };

  test("by hand: what a passed check leaves of the doubt about the repair", () => {
    // One car in five with its fault still in it passes the check: 0.1 · 0.2 against 0.9.
    expect(stillThere(0.9)).toBeCloseTo(0.02 / 0.92, 12);
    const odds = (more: Partial<Parameters<typeof comebackOdds>[0]>): number =>
      comebackOdds({ ...sure, months: 0, fitted: ["motor"], advised: null, ...more }).plain;
    expect(odds({ cured: 0.9 })).toBeCloseTo(0.02 / 0.92, 12);
    // Work that cures nothing the readings know of: it passed because the fault comes and goes.
    expect(odds({ cured: 0 })).toBe(1);
    expect(odds({ temporary: true })).toBeCloseTo(0.7, 12);
  });
  test("by hand: a pack at 3 % a year, a motor left in at 20 % doubt and 4 % a year, over a year", () => {
    const own = comebackOdds({
      months: 12,
      ...sure,
      fitted: ["resistor"],
      advised: { kind: "motor", doubt: 0.2 },
    });
    // 1 − 0.97 · (0.8 · 0.96), and 1 − 0.97 · 0.96 with the motor new too.
    expect(own.plain).toBeCloseTo(1 - 0.97 * 0.768, 12);
    expect(own.advised).toBeCloseTo(1 - 0.97 * 0.96, 12);
  });

  test("without advice, and without a warranty", () => {
    expect(comebackOdds({ ...sure, months: 12, fitted: ["resistor"], advised: null })).toEqual({
      months: 12,
      plain: 1 - 0.97,
      advised: null,
    });
    expect(comebackOdds({ ...sure, months: 0, fitted: ["motor"], advised: null }).plain).toBe(0);
  });
});

describe("a closure", () => {
  const closure = {
    found: "link open",
    fault: "R1.link:open",
    parts: ["R1"],
    cause: "none",
    learn: true,
  } as const;

  test("is valid, or says what is missing", () => {
    const own = closureSchema.parse(closure);
    expect(closureProblem(own)).toBeNull();
    expect(closureProblem({ ...own, stopgap: "bearing oiled" })).toMatch(/needs a date/);
    expect(closureProblem({ ...own, stopgap: "oiled", followUpOn: "2026-12-24" })).toBeNull();
    expect(closureProblem({ ...own, cause: "found" })).toMatch(/enter the root cause/);
  });

  test.each([{ found: "x" }, { followUpOn: "24.12.2026" }, { cause: "perhaps" }, { parts: [] }, { more: 1 }])(
    "%j is refused",
    (wrong) => expect(closureSchema.safeParse({ ...closure, ...wrong }).success).toBe(false),
  );
});

describe("learned minutes of repairs", () => {
  const table = { resistor: { priceMinor: 3500, minutes: 15 }, motor: { priceMinor: 9500, minutes: 30 } };

  test("count the table as three jobs, and the shop's own: (3 × 15 + 2 × 25) / 5", () => {
    const learnt = learntRepairs(table, [
      { kind: "resistor", jobs: 2, minutes: 50 },
      { kind: "motor", jobs: 0, minutes: 0 },
      { kind: "gearbox", jobs: 4, minutes: 900 },
    ]);
    expect(learnt).toEqual([
      { kind: "resistor", before: 15, jobs: 2, minutes: 19, sum: "(3 × 15 + 50) / (3 + 2)" },
    ]);
    expect(repairsAsLearnt(table, learnt)).toEqual({
      resistor: { priceMinor: 3500, minutes: 19 },
      motor: table.motor,
    });
  });
});
