import { describe, expect, test } from "@jest/globals";
import { shippedPlan } from "../testing/shippedPlan";
import { failsWithin } from "./failureChance";
import { whereIsIt } from "./whereIsIt";
import { whileThere } from "./whileThere";

describe("while you are in there", () => {
  const plan = shippedPlan("siskin-glove-box");
  const minor = (minutes: number): number => Math.round(minutes * 100);
  const other = (part: string, fails: number) => ({
    part,
    priceMinor: 3000,
    fitMinutes: 2,
    failsWithin: fails,
  });

  test("by hand: the motor is out for the pack anyway, so it adds only its own fitting", () => {
    const [motor] = whileThere(plan, ["R1"], [other("M1", 0.5)], minor, 10_000);
    // Removal to reach the pack 16.3 min; to reach the motor alone 12.8, there and back 25.6, and 2 to fit it.
    expect(motor?.extraMinutes).toBeCloseTo(2, 9);
    expect(motor?.laterMinutes).toBeCloseTo(27.6, 9);
    expect(motor).toMatchObject({ nowMinor: 3200, laterMinor: Math.round(0.5 * (2760 + 3000 + 10_000)) });
    expect(motor?.advice).toBe("replace-now");
    expect(motor?.breakEven).toBeCloseTo(3200 / 15_760, 9);
  });

  test("a part that hardly ever fails is left; parts being replaced already are not listed", () => {
    expect(whileThere(plan, ["R1"], [other("M1", 0.02)], minor, 10_000)[0]?.advice).toBe("prove-and-leave");
    expect(whileThere(plan, ["R1"], [other("R1", 1)], minor, 0)).toEqual([]);
    expect(whileThere(plan, ["R1"], [other("Q1", 1)], minor, 0)).toEqual([]);
  });
});

test("probability of failing within a warranty: today's doubt, and for the rest the yearly probability", () => {
  expect(failsWithin("motor", 12, 0)).toBeCloseTo(0.04, 12);
  expect(failsWithin("motor", 24, 0)).toBeCloseTo(1 - 0.96 ** 2, 12);
  expect(failsWithin("motor", 0, 0.3)).toBeCloseTo(0.3, 12);
  expect(failsWithin("motor", 12, 0.5)).toBeCloseTo(0.52, 12);
  expect(failsWithin("splice", 12, 0)).toBeLessThan(failsWithin("motor", 12, 0));
});

describe("where is it at all", () => {
  test("nothing noticed: the passenger's footwell first; all places together sum to 1", () => {
    const odds = whereIsIt([]);
    expect(odds[0]?.id).toBe("passenger-footwell");
    expect(odds.reduce((sum, { p }) => sum + p, 0)).toBeCloseTo(1, 12);
  });

  test("by hand: louder under the bonnet, 0.18 × 0.8 against 0.62 × 0.05, 0.15 × 0.1 and 0.05 × 0.05", () => {
    const [first] = whereIsIt(["loud-bonnet"]);
    expect(first?.id).toBe("under-bonnet");
    expect(first?.p).toBeCloseTo(0.144 / (0.144 + 0.031 + 0.015 + 0.0025), 12);
  });

  test("signs that agree add up, in any order", () => {
    const both = whereIsIt(["shake-centre", "loud-bonnet"]);
    expect(whereIsIt(["loud-bonnet", "shake-centre"])).toEqual(both);
  });
});
