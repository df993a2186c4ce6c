import { describe, expect, test } from "@jest/globals";
import { brierOverTime, brierParts, brierScore, type Said } from "./calibration";
import { dueAt, freshRecall, qualityOf, type Recall, recallAfter } from "./spacedRepetition";

describe("algorithm SM-2 (Woźniak 1990, from memory)", () => {
  const after = (...qualities: (0 | 1 | 2 | 3 | 4 | 5)[]): Recall =>
    qualities.reduce<Recall>((recall, quality) => recallAfter(recall, quality), freshRecall);

  // The published formula, EF' = EF + (0.1 − (5 − q)(0.08 + (5 − q) 0.02)): q 5 adds 0.1, 4 adds nothing, 3 takes off
  // 0.14.
  test.each([
    [5, 2.6],
    [4, 2.5],
    [3, 2.36],
  ] as const)("an answer of %p changes the easiness to %p", (quality, ease) =>
    expect(after(quality).ease).toBeCloseTo(ease, 9),
  );

  test("one day, six days, then by the easiness, rounded up", () => {
    expect(after(4).intervalDays).toBe(1);
    expect(after(4, 4).intervalDays).toBe(6);
    expect(after(4, 4, 4).intervalDays).toBe(15);
    expect(after(4, 4, 4, 4).intervalDays).toBe(38);
    expect(after(5, 5, 5).intervalDays).toBe(Math.ceil(6 * 2.8));
  });

  test("what was forgotten starts again with the same easiness; easiness never falls below 1.3", () => {
    expect(after(4, 4, 1)).toEqual({ ease: 2.5, repetitions: 0, intervalDays: 1 });
    expect(after(...Array.from({ length: 30 }, () => 3 as const)).ease).toBeCloseTo(1.3, 9);
  });

  test("is due so many days after the answer; quality by right and by the clock", () => {
    expect(dueAt(after(4, 4), 1000)).toBe(1000 + 6 * 86_400_000);
    expect([qualityOf(false, 3), qualityOf(true, 3), qualityOf(true, 30), qualityOf(true, 90)]).toEqual([
      1, 5, 4, 3,
    ]);
  });
});

describe("the Brier score", () => {
  // By hand, by Brier's own form for two outcomes: (0.3² + 0.1² + 0.6² + 0.2²) / 4.
  const said: Said[] = [
    { p: 0.7, right: true },
    { p: 0.9, right: true },
    { p: 0.6, right: false },
    { p: 0.2, right: false },
  ];
  test("by hand", () => {
    expect(brierScore(said)).toBeCloseTo((0.09 + 0.01 + 0.36 + 0.04) / 4, 12);
    expect(brierScore([{ p: 0.5, right: true }])).toBe(0.25);
    expect(brierScore([])).toBe(0);
  });

  test("Murphy's three parts add up to it", () => {
    const often: Said[] = [0.2, 0.5, 0.8, 0.8, 0.2, 0.5, 0.8].map((p, i) => ({ p, right: i % 3 !== 1 }));
    for (const own of [said, often]) {
      const { score, reliability, resolution, uncertainty } = brierParts(own);
      expect(reliability - resolution + uncertainty).toBeCloseTo(score, 12);
    }
    expect(
      brierParts(Array.from({ length: 10 }, (_, i) => ({ p: 0.8, right: i < 8 }))).reliability,
    ).toBeCloseTo(0, 12);
  });

  test("over the last few", () => {
    expect(brierOverTime(said, 2)).toEqual(
      [0.09, 0.05, 0.185, 0.2].map((own) => expect.closeTo(own, 12) as unknown),
    );
  });
});
