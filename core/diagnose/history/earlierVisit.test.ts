import { describe, expect, test } from "@jest/globals";
import type { Reading } from "../../predict/reading";
import { heard, repairIn, shippedEngine } from "../../testing/shippedCircuit";
import { believe, repairBelief } from "../belief/belief";
import { diagnose } from "../diagnose";
import { beginning, type EarlierVisit } from "./earlierVisit";

const engine = shippedEngine("whimbrel-four-speed");
const complaint: Reading[] = heard({ "1": "none", "2": "none", "3": "none", "4": "normal" });
const first: EarlierVisit = { readings: complaint, repairs: [], parts: ["R1"] };
const partOdds = (part: string, earlier: EarlierVisit | null): number => {
  const belief = believe(engine, [], undefined, beginning(engine, earlier, null));
  return repairBelief(engine, belief).get(repairIn(engine, part)) ?? 0;
};

describe("a comeback", () => {
  test("begins with the cause that the first visit left: the motor that burnt the pack", () => {
    expect(partOdds("M1", first)).toBeGreaterThan(partOdds("M1", null));
  });

  test("still allows for any new fault, at half its usual odds and more", () => {
    for (const part of ["S2", "F7", "K3", "X6"])
      expect(partOdds(part, first)).toBeGreaterThan(0.5 * partOdds(part, null) * 0.999);
  });

  test("beliefs sum to 1, and the pack of then is no longer believed as it was", () => {
    const belief = believe(engine, [], undefined, beginning(engine, first, null));
    expect(belief.variants.reduce((sum, own) => sum + own, belief.unknown)).toBeCloseTo(1, 9);
    const then = repairBelief(engine, believe(engine, complaint)).get(repairIn(engine, "R1")) ?? 0;
    expect(partOdds("R1", first)).toBeLessThan(then / 2);
  });

  test("of the same complaint finds the motor sooner than a first visit does", () => {
    const again = diagnose(engine, complaint, { earlier: first });
    const fresh = diagnose(engine, complaint);
    const motor = (own: typeof again): number =>
      own.ok ? (own.value.parts.find(({ part }) => part === "M1")?.p ?? 0) : -1;
    expect(motor(again)).toBeGreaterThan(2 * motor(fresh));
  });

  test("of a vehicle whose circuit has changed begins like any job", () => {
    const gone: Reading = { test: "look", at: "X99", seen: "clean" };
    expect(beginning(engine, { ...first, readings: [gone] }, null)).toBeNull();
    expect(beginning(engine, null, null)).toBeNull();
  });
});
